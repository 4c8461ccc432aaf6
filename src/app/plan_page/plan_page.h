#pragma once

#include "app/form/page.h"
#include "core/record/test.h"

class QLabel;
class QPushButton;
class QScrollArea;
class QStackedWidget;

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class FuturesView;
class SealPanel;
class SentenceView;
class StripView;
class TestInHand;
class WorthPanel;

/// How a test is struck, in a sentence and on cords; what that is worth, what it can prove, and the seal.
class PlanPage : public Page {
    Q_OBJECT

public:
    PlanPage(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier,
             QWidget* parent = nullptr);
    void takeFocus() override;
    QString subtitle() const override;
    SealPanel* sealPanel() const { return m_seal; }

protected:
    void refresh() override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QWidget* buildStrip();
    QWidget* buildFutures();
    void wire();
    bool isChangeable() const;
    void refreshStrip();
    void refreshFutures(const record::Outcome& outcome);
    void showSeal(bool isShown);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    const EarlierTests& m_earlier;
    SentenceView* m_sentence = nullptr;
    StripView* m_strip = nullptr;
    QScrollArea* m_stripArea = nullptr;
    QLabel* m_totals = nullptr;
    QLabel* m_cautions = nullptr;
    QPushButton* m_another = nullptr;
    QPushButton* m_sealKey = nullptr;
    WorthPanel* m_worth = nullptr;
    QStackedWidget* m_beside = nullptr; ///< the futures or the seal
    FuturesView* m_futures = nullptr;
    QLabel* m_ifBetter = nullptr;
    QLabel* m_futuresText = nullptr;
    SealPanel* m_seal = nullptr;
};

} // namespace knot::app
