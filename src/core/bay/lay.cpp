#include "core/bay/lay.h"

#include "core/bay/stand.h"
#include "core/record/text/moment.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace knot::bay {
namespace {

using record::Plan;
using record::Shot;

// Costs of an alignment, in the units of squared log ratios of waiting times below.
constexpr double gapCost = 2.5, skipCost = 3, otherWarmUpCost = 1.5, openEndCost = 0.3;
constexpr double logSd = 0.5, softSeconds = 5;
constexpr double worstMisfit = 1.2; // a wait that fits nowhere says little
constexpr std::size_t mostJumped = 8;

std::optional<std::vector<double>> timesOf(const std::vector<Shot>& shots) {
    std::vector<double> times;
    for (const Shot& shot : shots) {
        const auto at = shot.takenAt.seconds();
        if (!at)
            return std::nullopt;
        times.push_back(*at);
    }
    return std::ranges::is_sorted(times) ? std::optional(times) : std::nullopt;
}

// When each planned shot would be struck, in seconds from the first. Inside a stint the file's own
// usual pace counts: most waits are of that kind.
std::vector<double> plannedTimes(const Plan& plan, const std::vector<Laying::Slot>& slots,
                                 const std::vector<double>& times) {
    std::vector<double> waits;
    for (std::size_t i = 1; i < times.size(); ++i)
        waits.push_back(times[i] - times[i - 1]);
    const double shot =
        waits.size() < 4 || plan.turnLength < 2 ? plan.shotSeconds : std::max(1.0, statistics::medianOf(waits));
    std::vector<double> planned;
    double at = 0;
    for (std::size_t i = 0; i < slots.size(); ++i) {
        if (i > 0)
            at += slots[i].turn == slots[i - 1].turn ? shot : shot + plan.changeSeconds;
        planned.push_back(at);
    }
    return planned;
}

double misfit(double waited, double planned) {
    const double log = std::log((waited + softSeconds) / (planned + softSeconds));
    return std::min(worstMisfit, log * log / (2 * logSd * logSd));
}

// The cheapest way to lay shots on slots in order, by dynamic programming: which slot each shot gets,
// nothing where it is left out.
std::vector<std::optional<std::size_t>> cheapest(const std::vector<double>& times, const std::vector<double>& planned,
                                                 int warmUp) {
    const std::size_t n = times.size();
    const std::size_t m = planned.size();
    constexpr double never = std::numeric_limits<double>::infinity();
    struct Cell {
        double cost = never;
        std::size_t fromShot = 0, fromSlot = 0;
        bool first = true;
    };
    std::vector<Cell> cells(n * m);
    auto cell = [&](std::size_t shot, std::size_t slot) -> Cell& { return cells[shot * m + slot]; };
    double best = never;
    std::optional<std::pair<std::size_t, std::size_t>> end;
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < m; ++j) {
            Cell& here = cell(i, j);
            here.cost = otherWarmUpCost * std::fabs(static_cast<double>(i) - warmUp) + gapCost * static_cast<double>(j);
            for (std::size_t skips = 0; skips <= mostJumped && skips + 1 <= i; ++skips)
                for (std::size_t gaps = 0; gaps <= mostJumped && gaps + 1 <= j; ++gaps) {
                    const std::size_t shot = i - 1 - skips;
                    const std::size_t slot = j - 1 - gaps;
                    const double cost = cell(shot, slot).cost +
                                        misfit(times[i] - times[shot], planned[j] - planned[slot]) +
                                        skipCost * static_cast<double>(skips) + gapCost * static_cast<double>(gaps);
                    if (cost < here.cost)
                        here = {cost, shot, slot, false};
                }
            const double open =
                openEndCost * static_cast<double>(m - 1 - j) + skipCost * static_cast<double>(n - 1 - i);
            if (here.cost + open < best) {
                best = here.cost + open;
                end = {i, j};
            }
        }
    std::vector<std::optional<std::size_t>> laid(n);
    while (end) {
        const auto [shot, slot] = *end;
        laid[shot] = slot;
        const Cell& here = cell(shot, slot);
        end = here.first ? std::nullopt : std::optional(std::pair(here.fromShot, here.fromSlot));
    }
    return laid;
}

} // namespace

Laying::Laying(const Plan& plan, const std::vector<record::PlannedTurn>& turns, std::vector<Shot> shots)
    : m_shots(std::move(shots)) {
    for (PlannedAt turn; turn < turns.size(); ++turn)
        for (int shot = 1; shot <= turns[turn].shots; ++shot)
            m_slots.push_back({turn, shot});
    const auto times = timesOf(m_shots);
    if (!times || m_slots.empty() || m_shots.empty()) {
        for (std::size_t i = 0; i < m_shots.size(); ++i)
            m_lines.push_back({.shot = i});
        number();
        return;
    }
    const auto laid = cheapest(*times, plannedTimes(plan, m_slots, *times), plan.warmUp);
    std::size_t slot = 0;
    for (std::size_t i = 0; i < m_shots.size(); ++i) {
        if (laid[i])
            for (; slot < *laid[i]; ++slot)
                m_lines.push_back({});
        slot += laid[i] ? 1 : 0;
        m_lines.push_back({.shot = i, .leftOut = !laid[i]});
    }
    number();
}

void Laying::number() {
    std::size_t slot = 0;
    for (Line& line : m_lines) {
        line.slot.reset();
        if (!line.leftOut && slot < m_slots.size())
            line.slot = slot++;
    }
}

void Laying::addGap(std::size_t line) {
    m_lines.insert(m_lines.begin() + static_cast<std::ptrdiff_t>(std::min(line, m_lines.size())), Line{});
    number();
}

void Laying::removeGap(std::size_t line) {
    if (line >= m_lines.size() || m_lines[line].shot)
        return;
    m_lines.erase(m_lines.begin() + static_cast<std::ptrdiff_t>(line));
    number();
}

void Laying::toggle(std::size_t line) {
    if (line >= m_lines.size() || !m_lines[line].shot)
        return;
    m_lines[line].leftOut = !m_lines[line].leftOut;
    number();
}

Laying::Totals Laying::totals() const {
    Totals totals{.planned = m_slots.size()};
    for (const Line& line : m_lines) {
        totals.leftOut += line.leftOut ? 1 : 0;
        totals.gaps += !line.shot ? 1 : 0;
        totals.laid += line.shot && line.slot ? 1 : 0;
        totals.beyond += line.shot && !line.leftOut && !line.slot ? 1 : 0;
    }
    totals.empty = totals.planned - std::min(totals.planned, totals.laid + totals.gaps);
    return totals;
}

record::Test Laying::applied(record::Test test, const std::string& sitting) const {
    std::optional<std::size_t> lastTurn;
    for (const Line& line : m_lines) {
        if (line.leftOut && lastTurn)
            continue;
        if (!line.leftOut && !line.slot)
            continue;
        Shot shot = line.shot ? m_shots[*line.shot] : Shot();
        shot.sitting = sitting;
        shot.extra.assign(test.extraColumns.size(), {});
        if (line.leftOut) {
            shot.status = record::ShotStatus::warmUp;
            shot.build = m_slots.empty() ? record::BuildAt() : test.turns[m_slots.front().turn].build;
            shot.round.clear();
            shot.turn.clear();
        } else {
            const PlannedAt turn = m_slots[*line.slot].turn;
            shot.build = test.turns[turn].build;
            if (test.players.size() > 1)
                shot.player = test.players[test.turns[turn].player].name;
            shot.round = std::to_string(test.turns[turn].round);
            shot.turn = turnLabel(test, turn);
            shot.handedOver = lastTurn != turn;
            lastTurn = turn;
        }
        shot.id = test.nextShotId();
        test.shots.push_back(std::move(shot));
    }
    if (lastTurn) {
        if (test.sittings.empty() || test.sittings.back().label != sitting)
            test.sittings.push_back({sitting, m_shots.empty() ? std::string() : m_shots.front().takenAt.text(), {}});
        test.progress.warmedUp = true;
        test.progress.confirmed = std::max(test.progress.confirmed, static_cast<int>(*lastTurn) + 1);
        test.progress.named = test.progress.confirmed;
    }
    return test;
}

} // namespace knot::bay
