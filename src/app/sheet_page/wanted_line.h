#pragma once

#include "app/form/open_line.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace knot::app {

class Book;
class Declaring;
class TestInHand;

/// The windows that numbers should fall into: said in words, one after another, or taken as they are usual of the club
/// at the player's ball speed.
class WantedLine : public OpenLine {
    Q_OBJECT

public:
    WantedLine(const TestInHand& hand, Declaring& declaring, Book& book);
    void refresh();

private:
    void add();
    void takeUsual();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QLineEdit* m_typed;
    QLabel* m_fault;
    QLabel* m_windows;
    QPushButton* m_usual;
};

} // namespace knot::app
