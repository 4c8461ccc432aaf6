#pragma once

#include "app/form/panel.h"
#include "app/plan_page/plan_words.h"
#include "app/plan_page/ways_view.h"
#include "core/ask/answers.h"
#include "core/plan/worth_ways.h"

class QLabel;
class QScrollArea;

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class PowerView;
class SentenceView;
class TestInHand;

/// What a plan is worth, in one outcome and for one kind of player: a number, what that is in the unit, and a curve
/// over minutes. One link away what it can prove, by minutes and by the size of the gap.
class WorthPanel : public Panel {
    Q_OBJECT

public:
    WorthPanel(const TestInHand& hand, Declaring& declaring, Book& book, const EarlierTests& earlier);
    void refresh();
    /// Another test is in hand.
    void forget() { m_minutesThere.reset(); }
    /// The player's own spreads, where earlier tests tell them.
    void takeOwnSpreads();
    /// The outcome that is looked at, carry where none is declared.
    record::Outcome outcomeSeen() const;
    plan::WorthOf worthOf(const record::Outcome& outcome) const;
    void giveWordsRoom();

signals:
    /// Something else is to be looked at.
    void changed();

private:
    /// What the curves are of.
    enum class Shows { worth, proof, bySize };

    void buildUi();
    void wire();
    bool isChangeable() const;
    Shows shows() const;
    void showParts(Shows shows, bool isByMinutes);
    void refreshWorth(const Planning& planning);
    void refreshProof(const Planning& planning);
    void refreshPower(const Planning& planning);
    void setMinutes(const Planning& planning);
    void showWays(WaysView::Measure measure, std::vector<WaysView::Curve> curves, std::optional<QPointF> planned);
    std::vector<double> steps() const;
    void takeWay(const plan::WayOption& option);
    plan::Spreads spreads(const record::Outcome& outcome) const;
    std::vector<ask::Piece> ofWhat() const;
    std::vector<ask::Answer> ofWhatElse(const ask::Chip& chip) const;
    QString takeOfWhat(const ask::Chip& chip, const QString& typed);

    const TestInHand& m_hand;
    Declaring& m_declaring;
    Book& m_book;
    const EarlierTests& m_earlier;
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
    Shows m_shows = Shows::worth;
    std::size_t m_outcome = 0;                              ///< among the declared ones
    std::optional<plan::Level> m_level = plan::Level::club; ///< nothing: this player's own
    std::optional<double> m_minutesThere;                   ///< nothing: as many as the plan takes
};

} // namespace knot::app
