#pragma once

#include "app/form/page.h"
#include "app/plan_page/plan_words.h"
#include "app/plan_page/ways_view.h"
#include "core/ask/answers.h"
#include "core/plan/worth_ways.h"

class QLabel;
class QPushButton;
class QScrollArea;
class QStackedWidget;

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class FuturesView;
class PowerView;
class SealPanel;
class SentenceView;
class StripView;
class TestInHand;

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
    /// What the curves are of.
    enum class Shows { worth, proof, bySize };

    QWidget* buildStrip();
    QWidget* buildWorth();
    QWidget* buildFutures();
    void wire();
    bool isChangeable() const;
    bool isStruckAsItCame() const;
    void takeOwnSpreads();
    void refreshStrip();
    void refreshWorth(const Planning& planning);
    void refreshProof(const Planning& planning);
    void refreshFutures(const record::Outcome& outcome);
    void setMinutes(const Planning& planning);
    void refreshPower(const Planning& planning);
    void showWays(WaysView::Measure measure, std::vector<WaysView::Curve> curves, std::optional<QPointF> planned);
    std::vector<double> steps() const;
    void showSeal(bool isShown);
    void giveWordsRoom();
    void takeWay(const plan::WayOption& option);
    record::Outcome outcomeSeen() const;
    std::optional<double> learntScale(const record::Outcome& outcome) const;
    plan::WorthOf worthOf(const record::Outcome& outcome) const;
    plan::Spreads spreads(const record::Outcome& outcome) const;
    std::vector<ask::Piece> ofWhat() const;
    std::vector<ask::Answer> ofWhatElse(const ask::Chip& chip) const;
    QString takeOfWhat(const ask::Chip& chip, const QString& typed);

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
    QLabel* m_by = nullptr; ///< what the curves are of
    SentenceView* m_ofWhat = nullptr;
    QLabel* m_number = nullptr;
    QLabel* m_gets = nullptr;
    WaysView* m_ways = nullptr;
    PowerView* m_power = nullptr;
    QLabel* m_wayText = nullptr;
    QLabel* m_answers = nullptr;
    QLabel* m_limits = nullptr;
    QScrollArea* m_words = nullptr;
    QLabel* m_others = nullptr;
    QStackedWidget* m_beside = nullptr; ///< the futures or the seal
    FuturesView* m_futures = nullptr;
    QLabel* m_ifBetter = nullptr;
    QLabel* m_futuresText = nullptr;
    SealPanel* m_seal = nullptr;
    Shows m_shows = Shows::worth;
    bool m_showsSeal = false;
    std::size_t m_outcome = 0;                              ///< among the declared ones
    std::optional<plan::Level> m_level = plan::Level::club; ///< nothing: this player's own
    std::optional<double> m_minutesThere;                   ///< nothing: as many as the plan takes
};

} // namespace knot::app
