#pragma once

#include "core/record/player.h"
#include "core/record/units.h"

#include <QWidget>

#include <string>

class QLabel;
class QLineEdit;

namespace knot::app {

class Book;
class Declaring;
class TestInHand;

/// Who hits: a name each, chosen from the logbook's players by typing it, and what is known of them in a
/// sentence that leads to all of it.
class PlayerRows : public QWidget {
    Q_OBJECT

public:
    PlayerRows(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void refresh();

signals:
    /// The page about a player, by id.
    void aboutRequested(const std::string& id);

private:
    struct Row {
        QWidget* box;
        QLineEdit* name;
        QLabel* about;
    };
    void addRow();
    void take(std::size_t at, const QString& typed);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QList<Row> m_rows;
    QLabel* m_note;
};

/// What is known of a player, in a line: "left-handed, driver 41.5 m/s, low fade, misses high and left".
QString aboutPlayer(const record::Player& player, const record::DisplayUnits& units);

} // namespace knot::app
