#pragma once

#include "core/record/player.h"
#include "core/record/units.h"

#include <QWidget>

#include <array>
#include <vector>

class QGridLayout;
class QLabel;
class QLineEdit;

namespace knot::app {

class NumberField;

/// What is usual for a player with each club: a row a club, and an empty one for the next.
class UsualRows : public QWidget {
    Q_OBJECT

public:
    explicit UsualRows(QWidget* parent = nullptr);
    void display(const std::vector<record::Usual>& usual, const record::DisplayUnits& units);

signals:
    void edited(const std::vector<knot::record::Usual>& usual);

private:
    static constexpr std::size_t numbers = 4;
    struct Row {
        QLineEdit* club;
        std::array<NumberField*, numbers> fields;
    };
    void addRow();
    void takeClub(std::size_t place, const std::string& club);
    void takeNumber(std::size_t place, std::size_t number, std::optional<double> shown);
    void tell(std::vector<record::Usual> usual);

    std::vector<record::Usual> m_usual;
    record::DisplayUnits m_units;
    QGridLayout* m_grid;
    std::array<QLabel*, numbers> m_heads{};
    QList<Row> m_rows;
    bool m_showing = false;
};

} // namespace knot::app
