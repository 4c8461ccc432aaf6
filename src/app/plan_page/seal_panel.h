#pragma once

#include "app/form/panel.h"
#include "app/session/declaring.h"

#include <functional>

class QLabel;
class QLineEdit;
class QPushButton;
class QTimer;

namespace knot::app {

class Declaring;
class OrderSlip;
class TestInHand;

/// Who may know and see what, the seal itself, and the order slip.
class SealPanel : public Panel {
    Q_OBJECT

public:
    SealPanel(const TestInHand& hand, Declaring& declaring, QWidget* parent = nullptr);
    /// Asks, then draws the tags or takes them as they were put on.
    void askSeal();

signals:
    /// The slip is to be printed; the window asks where.
    void printRequested(const QString& html);
    void saveSlipRequested(const QString& html);
    /// The sealed text is to be saved to the letter; the window asks where.
    void saveRequested(const QString& text);

private:
    void buildUi();
    void wire();
    void refresh();
    QWidget* buildOpening();
    QWidget* buildQuestion();
    QString stateText() const;
    void showSlip(const QString& key);
    void openSlip(const std::vector<TagOfClub>& tags);
    void showWords(const QString& words, const std::vector<TagOfClub>& tags);
    void show(OrderSlip* slip);
    /// The words that stand in the field, which keeps them no longer.
    QString takeKey();
    /// Asks once, in words; `act` happens on yes.
    void ask(const QString& question, const QString& yes, int waitMs, std::function<void()> act);
    void askReveal();
    void askByHand();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    QLabel* m_gradeText = nullptr;
    QPushButton* m_slip = nullptr;
    QPushButton* m_save = nullptr;
    QLabel* m_state = nullptr;
    QWidget* m_opening = nullptr;
    QLineEdit* m_key = nullptr;
    QPushButton* m_helperSlip = nullptr;
    QPushButton* m_reveal = nullptr;
    QLineEdit* m_byHand = nullptr; ///< where the slip is lost
    QWidget* m_asking = nullptr;
    QLabel* m_question = nullptr;
    QPushButton* m_yes = nullptr;
    QPushButton* m_no = nullptr;
    QTimer* m_yesSoon = nullptr; ///< until then no second click of the one that asked
    std::function<void()> m_pending;
};

} // namespace knot::app
