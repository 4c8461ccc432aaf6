#pragma once

#include "app/form/number_field.h"
#include "core/record/test.h"

#include <QWidget>

#include <functional>
#include <vector>

class QLabel;
class QLineEdit;

namespace knot::app {

class Book;
class Declaring;
class TestInHand;

/// The parts of one club, as far as they are known, and what they add up to.
class ClubEditor : public QWidget {
    Q_OBJECT

public:
    ClubEditor(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void setBuild(record::BuildAt build);
    void refresh();
    /// Names of parts in the logbook complete themselves from then on.
    void offerParts();
    QLineEdit* nameField() const { return m_name; }

private:
    struct Number {
        NumberField* field = nullptr;
        std::function<std::optional<double>(const record::Club&)> read;
        int decimals = 1;
    };
    struct Length {
        Number number;
        QLabel* shown = nullptr; ///< with the unit
        QString label;           ///< without
        NumberRange range;       ///< in millimetres
    };
    struct Text {
        QLineEdit* field = nullptr;
        std::function<std::string(const record::Club&)> read;
    };
    void buildUi();
    void showUnit();
    bool checkName(const QString& typed);
    void rename(const QString& typed);
    void setSleeve(const std::string& setting);
    void usePart(record::PartKind kind, const QString& name);
    void change(const QString& what, const std::function<void(record::Club&)>& edit);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    record::BuildAt m_build;
    QLineEdit* m_name = nullptr;
    QLabel* m_nameFault = nullptr;
    std::vector<Number> m_numbers;
    std::vector<Length> m_lengths;
    double m_plain = 1;
    double m_lengthUnit = 1; ///< millimetres in the unit that lengths are shown in
    std::vector<Text> m_texts;
    std::vector<record::Part> m_known;
    QLabel* m_figures = nullptr;
};

} // namespace knot::app
