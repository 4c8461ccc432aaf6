#include "core/bay/tally.h"

#include <algorithm>

namespace knot::bay {
namespace {

using record::Shot;
using record::ShotStatus;

bool fillsStint(const record::Card& card, const Shot& shot) {
    if (!isRead(shot) || shot.status == ShotStatus::warmUp)
        return false;
    return shot.status == ShotStatus::counted ||
           (card.setAsideRule != record::SetAsideRule::untilGood && !card.replaceSetAside);
}

// A label that no shot can carry, while there is no sitting.
std::string sittingInHand(const record::Test& test) {
    return test.sittings.empty() ? std::string(1, '\0') : test.sittings.back().label;
}

} // namespace

Tally::Tally(const record::Test& test)
    : m_filled(test.turns.size())
    , m_struck(test.turns.size())
    , m_sitting(sittingInHand(test))
    , m_player(playerInHand(test)) {
    m_shares.reserve(test.shots.size());
    update(test, 0);
}

void Tally::update(const record::Test& test, std::size_t from) {
    if (m_sitting != sittingInHand(test) || m_player != playerInHand(test) || m_filled.size() != test.turns.size()) {
        *this = Tally(test);
        return;
    }
    while (m_shares.size() > from) {
        add(m_shares.back(), -1);
        m_shares.pop_back();
    }
    for (std::size_t i = m_shares.size(); i < test.shots.size(); ++i) {
        m_shares.push_back(shareOf(test, test.shots[i]));
        add(m_shares.back(), 1);
        m_mostId = std::max(m_mostId, static_cast<std::int64_t>(test.shots[i].id));
    }
}

Tally::Share Tally::shareOf(const record::Test& test, const Shot& shot) const {
    Share share{.turn = shot.turn};
    share.inSitting = shot.sitting == m_sitting && (m_player.empty() || shot.player == m_player);
    share.warmUp = shot.status == ShotStatus::warmUp;
    if (share.warmUp)
        return share;
    if (const auto turn = plannedTurn(test, shot))
        share.planned = static_cast<int>(*turn);
    share.fills = fillsStint(test.card, shot);
    share.struck = shot.sitting == m_sitting;
    return share;
}

void Tally::add(const Share& share, int sign) {
    if (share.planned >= 0) {
        m_filled[static_cast<std::size_t>(share.planned)] += share.fills ? sign : 0;
        m_struck[static_cast<std::size_t>(share.planned)] += share.struck ? sign : 0;
    }
    const auto step = static_cast<std::size_t>(sign); // −1 wraps around and back
    m_swings += share.inSitting ? step : 0;
    m_warmUp += share.inSitting && share.warmUp ? step : 0;
    if (share.turn.empty())
        return; // a swing of the warm-up
    const auto stint = m_stints.try_emplace(share.turn).first;
    stint->second += sign;
    if (stint->second == 0)
        m_stints.erase(stint);
}

std::string playerInHand(const record::Test& test) {
    return test.players.size() > 1 && test.progress.player < test.players.size()
               ? test.players[test.progress.player].name
               : std::string();
}

bool isRead(const Shot& shot) {
    return std::ranges::any_of(record::allMetrics(), [&](record::Metric metric) {
        return !record::isStrike(metric) && shot.readings.has(metric);
    });
}

} // namespace knot::bay
