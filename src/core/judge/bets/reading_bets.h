#pragma once

#include "core/judge/bets/bet.h"
#include "core/judge/request.h"

#include <map>

namespace knot::judge {

/// What is assumed beforehand of the metrics of one reading: how far its clubs may lie apart and how stints and shots
/// move the player, from the logbook where it tells, else from the tables.
class BetPriors {
public:
    explicit BetPriors(const JudgeRequest& request);

    enum class Runs { asTheyWere, asStints };
    /// `times` as large: gaps and stints.
    BetPrior of(const Column& column, double times = 1, Runs runs = Runs::asTheyWere) const;

private:
    const JudgeRequest& m_request;
    double m_gapTimes; ///< how far clubs lie apart, in worthwhile gaps
};

/// The bets on every pair and every metric, the best of all, and clubs that were gone back to; where clubs were hit as
/// it came, also as if they had been stints. Gives back the bets themselves.
std::map<Metric, Bet> addBets(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
