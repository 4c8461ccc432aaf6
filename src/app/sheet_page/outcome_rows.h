#pragma once

#include "core/record/card.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace knot::app {

class Book;
class Declaring;
class NumberField;
class TestInHand;

/// The three outcomes that a test may declare, in order of priority: what is judged, what is wanted,
/// the worthwhile gap and what is expected.
class OutcomeRows : public QWidget {
    Q_OBJECT

public:
    OutcomeRows(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void refresh();

private:
    struct Row {
        QComboBox* outcome = nullptr;
        QComboBox* want = nullptr;
        NumberField* value = nullptr; ///< the wanted value
        NumberField* gap = nullptr;
        QComboBox* expected = nullptr;
    };
    void buildRow(int row);
    void refreshRow(int row);
    void offerOutcomes(QComboBox* box) const;
    std::optional<record::Outcome> declared(int row) const;
    void setOutcome(int row, const QString& text);
    void setGap(int row, double shown);
    void setWant(int row);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    Row m_rows[3];
};

} // namespace knot::app
