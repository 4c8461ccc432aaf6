#pragma once

#include "app/form/panel.h"
#include "app/session/declaring.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace knot::app {

class Declaring;
class TestInHand;

/// Who may know and see what, the seal itself, and the order slip.
class SealPanel : public Panel {
    Q_OBJECT

public:
    SealPanel(const TestInHand& hand, Declaring& declaring, QWidget* parent = nullptr);

signals:
    /// The slip is to be printed; the window asks where.
    void printRequested(const QString& html);

private:
    void buildUi();
    void wire();
    void refresh();
    void showSlip();
    void openSlip(const std::vector<TagOfClub>& tags);
    void sealOrReveal();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    QComboBox* m_grade = nullptr;
    QComboBox* m_way = nullptr;
    QComboBox* m_sees[3] = {};
    QLabel* m_gradeText = nullptr;
    QLineEdit* m_pin = nullptr;
    QPushButton* m_act = nullptr;
    QPushButton* m_slip = nullptr;
    QLabel* m_state = nullptr;
    QLineEdit* m_byHand = nullptr; ///< where the PIN is lost
};

} // namespace knot::app
