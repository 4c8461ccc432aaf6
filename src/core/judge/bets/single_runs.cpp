#include "core/judge/bets/single_runs.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <span>

namespace knot::judge {
namespace {

using Goes = std::span<const TurnValues>;

double meanOfGoes(Goes goes) {
    double sum = 0;
    for (const TurnValues& go : goes)
        sum += go.mean();
    return sum / static_cast<double>(goes.size());
}

// The variance of the mean of several goes by what stints and shots usually add.
double usualVariance(Goes goes, const plan::Spreads& usual) {
    const auto n = static_cast<double>(goes.size());
    double shots = 0;
    for (const TurnValues& go : goes)
        shots += 1 / static_cast<double>(go.values.size());
    return (usual.sdTurn * usual.sdTurn + usual.sdShot * usual.sdShot * shots / n) / n;
}

Again against(Goes before, Goes after, const plan::Spreads& usual) {
    return {.goes = before.size() + after.size(),
            .gap = meanOfGoes(after) - meanOfGoes(before),
            .usually = 1.96 * std::sqrt(usualVariance(before, usual) + usualVariance(after, usual))};
}

// What was noted between a shot and the one before it.
std::string notedBefore(const Case& subject, record::ShotAt shot) {
    std::string words;
    for (const record::Event& event : subject.test().events)
        if (event.kind == record::EventKind::note && event.afterShots + 1 == subject.numberOf(shot))
            words += (words.empty() ? "" : "; ") + event.text;
    return words;
}

class GoneBack {
public:
    GoneBack(const Case& subject, const Column& column, const plan::Spreads& usual)
        : m_subject(subject)
        , m_column(column)
        , m_usual(usual) {}

    std::vector<Again> all() {
        for (BuildAt b; b < m_column.builds.size(); ++b)
            if (!m_column.builds[b].turns.empty())
                withItself(b);
        for (BuildAt b; b < m_column.builds.size(); ++b)
            if (!m_column.builds[b].turns.empty())
                withWhatItWas(b);
        return std::move(m_all);
    }

private:
    void withItself(BuildAt b) {
        const Goes goes = m_column.builds[b].turns;
        if (goes.front().sitting != goes.back().sitting)
            return;
        bool hasMarks = false;
        for (std::size_t from = 0, mark = 1; mark < goes.size(); ++mark) {
            if (goes[mark].phase == goes[mark - 1].phase)
                continue;
            const auto next = std::ranges::find_if(goes.subspan(mark),
                                                   [&](const TurnValues& go) { return go.phase != goes[mark].phase; });
            const auto end = static_cast<std::size_t>(next - goes.begin());
            Again one = against(goes.subspan(from, mark - from), goes.subspan(mark, end - mark), m_usual);
            one.after = afterMark(goes[mark - 1].phase, one.words);
            add(std::move(one), b, b);
            hasMarks = true;
            from = mark;
        }
        if (!hasMarks && goes.size() > 1)
            add(against(goes.first(1), goes.last(1), m_usual), b, b, goes.size());
    }

    // The club that a changed one was before.
    void withWhatItWas(BuildAt b) {
        const BuildAt club = m_subject.clubOf(b);
        BuildAt before = club;
        for (BuildAt other; other < b; ++other)
            if (m_subject.clubOf(other) == club && !m_column.builds[other].turns.empty())
                before = other;
        if (before == b || m_column.builds[before].turns.empty())
            return;
        const Goes old = m_column.builds[before].turns;
        const Goes now = m_column.builds[b].turns;
        if (old.back().sitting != now.front().sitting || old.back().phase != now.front().phase)
            return;
        Again one = against(old, now, m_usual);
        one.after = Again::After::clubChanged;
        one.words = notedBefore(m_subject, now.front().shots.front());
        add(std::move(one), b, before);
    }

    // What ended a phase, and what was said of it.
    Again::After afterMark(std::size_t phase, std::string& words) const {
        const auto& shots = m_subject.test().shots;
        std::size_t marks = 0;
        for (record::ShotAt i; i < shots.size(); ++i)
            if (shots[i].mark == record::Mark::player || shots[i].mark == record::Mark::day)
                if (marks++ == phase) {
                    words = notedBefore(m_subject, i);
                    return shots[i].mark == record::Mark::day ? Again::After::otherDay : Again::After::playerChanged;
                }
        return Again::After::left;
    }

    void add(Again one, BuildAt build, BuildAt before, std::size_t goes = 0) {
        one.metric = m_column.metric;
        one.build = build;
        one.before = before;
        if (goes > 0)
            one.goes = goes;
        m_all.push_back(std::move(one));
    }

    const Case& m_subject;
    const Column& m_column;
    plan::Spreads m_usual;
    std::vector<Again> m_all;
};

} // namespace

bool isOfSingleRuns(const Column& column) {
    std::map<record::RoundAt, std::size_t> clubs;
    for (const BuildValues& build : column.builds) {
        std::set<record::RoundAt> laps;
        for (const TurnValues& turn : build.turns)
            laps.insert(turn.round);
        for (const record::RoundAt lap : laps)
            ++clubs[lap];
    }
    return std::ranges::count_if(clubs, [](const auto& lap) { return lap.second > 1; }) == 1;
}

bool isOfOneClub(const Column& column) {
    return std::ranges::count_if(column.builds, [](const BuildValues& build) { return !build.turns.empty(); }) == 1;
}

std::vector<Again> goneBackTo(const Case& subject, const Column& column, const plan::Spreads& usual) {
    return GoneBack(subject, column, usual).all();
}

} // namespace knot::judge
