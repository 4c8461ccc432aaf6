#pragma once

#include "core/judge/days/earlier.h"
#include "core/plan/requirements.h"

#include <QObject>

#include <string>

namespace knot::app {

class Book;
class TestInHand;

/// What the logbook's other tests tell of the one in hand, read and reckoned off the window's thread. Empty until that
/// is done, and where the test is kept in no logbook.
class EarlierTests : public QObject {
    Q_OBJECT

public:
    EarlierTests(const TestInHand& hand, const Book& book)
        : m_hand(hand)
        , m_book(book) {}

    const judge::Earlier& learnt() const { return m_learnt; }
    /// What the player's shots scatter by: their own where the logbook tells, else those of a club player.
    plan::Spreads spreads(const record::Outcome& outcome) const;
    /// The same, or of a usual player of a level.
    plan::Spreads spreads(const record::Outcome& outcome, std::optional<plan::Level> usual) const;
    /// How far clubs of the kind lie apart in a metric; nothing where the logbook does not tell.
    std::optional<double> gapScale(record::Metric metric) const;
    /// What a test takes, by these spreads and scales.
    std::vector<plan::Takes> takesOf(const record::Test& test) const;
    /// Learns again where another test, player, kind of test or set of covariates is in hand.
    void refresh();
    /// Another test is in hand.
    void forget();

signals:
    void changed();

private:
    const TestInHand& m_hand;
    const Book& m_book;
    judge::Earlier m_learnt;
    std::string m_of; ///< the test, player and kind that it is for
};

} // namespace knot::app
