#pragma once

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace knot::app {

class Book;
class Declaring;
class NumberField;
class TestInHand;

/// What else a test asks: causes to take out, a number to go along, a second factor, shapes on the ground, an aim.
class AlsoAsked : public QWidget {
    Q_OBJECT

public:
    AlsoAsked(const TestInHand& hand, Declaring& declaring, Book& book, QWidget* parent = nullptr);
    void refresh();

private:
    QWidget* buildCauses();
    QWidget* buildChoices();
    QWidget* buildShapes();
    void addShape();
    void setAim();
    void refreshShapes();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    QList<QCheckBox*> m_causes;
    QComboBox* m_along = nullptr;
    QComboBox* m_factor = nullptr;
    NumberField* m_aimCarry = nullptr;
    NumberField* m_aimSide = nullptr;
    QLineEdit* m_shape = nullptr;
    QLabel* m_shapeFault = nullptr;
    QLabel* m_shapes = nullptr;
};

} // namespace knot::app
