#include "core/record/roster.h"

#include "core/record/typed/number_in.h"

#include <algorithm>

namespace knot::record {

Roster::Roster(const Test& test)
    : m_out(test.builds.size())
    , m_first(test.builds.size(), 0) {
    for (const PlannedTurn& turn : test.turns)
        if (turn.build < m_first.size() && (m_first[turn.build] == 0 || turn.round < m_first[turn.build]))
            m_first[turn.build] = turn.round;
    for (const Standing& standing : test.standings) {
        const auto club = test.buildIndex(standing.club);
        if (!club)
            continue;
        auto& stretches = m_out[*club];
        if (!stretches.empty() && !stretches.back().until)
            stretches.back().until = standing.lap;
        if (standing.what != Standing::What::putBack)
            stretches.push_back({standing.what, standing.lap, std::nullopt, standing.why});
    }
}

bool Roster::isIn(BuildAt club) const {
    return club >= m_out.size() || m_out[club].empty() || m_out[club].back().until;
}

bool Roster::isIn(BuildAt club, int lap) const {
    return club >= m_out.size() || (lap >= m_first[club] && std::ranges::none_of(m_out[club], [&](const Stretch& out) {
                                        return out.from <= lap && (!out.until || lap < *out.until);
                                    }));
}

std::vector<BuildAt> Roster::left() const {
    std::vector<BuildAt> left;
    for (BuildAt club; club < m_out.size(); ++club)
        if (isIn(club))
            left.push_back(club);
    return left;
}

const std::string& Roster::whyOut(BuildAt club) const {
    static const std::string in;
    return isIn(club) ? in : m_out[club].back().why;
}

bool Roster::isStruckOff(BuildAt club) const {
    return !isIn(club) && m_out[club].back().what == Standing::What::struckOff;
}

bool Roster::isAnyStruckOff() const {
    for (BuildAt club; club < m_out.size(); ++club)
        if (isStruckOff(club))
            return true;
    return false;
}

std::vector<Build> buildsIn(const Test& test) {
    std::vector<Build> builds;
    for (const BuildAt club : Roster(test).left())
        builds.push_back(test.builds[club]);
    return builds;
}

std::vector<Standing> standingsTold(const Test& test, const std::vector<std::string>& whyOff) {
    std::vector<Standing> told;
    int last = 0;
    for (const PlannedTurn& turn : test.turns)
        last = std::max(last, turn.round);
    auto isEndedFrom = [&](BuildAt club, int lap) {
        return std::ranges::all_of(
            test.turns, [&](const PlannedTurn& turn) { return turn.build != club || turn.round < lap || turn.ended; });
    };
    auto isPlannedIn = [&](BuildAt club, int lap) {
        return std::ranges::any_of(test.turns,
                                   [&](const PlannedTurn& turn) { return turn.build == club && turn.round == lap; });
    };
    bool allEnded = true;
    for (BuildAt club; club < test.builds.size(); ++club)
        allEnded = allEnded && (!isPlannedIn(club, last) || isEndedFrom(club, last));
    for (BuildAt club; club < test.builds.size(); ++club) {
        const std::string& who = test.builds[club].who();
        constexpr std::string_view afterLap = "after lap ";
        if (club < whyOff.size() && !whyOff[club].empty()) {
            const auto lap = whyOff[club].starts_with(afterLap)
                                 ? wholeIn(std::string_view(whyOff[club]).substr(afterLap.size()))
                                 : std::nullopt;
            told.push_back(Standing{Standing::What::struckOff, who, lap.value_or(last) + 1, whyOff[club]});
        } else if (!allEnded && isPlannedIn(club, last) && isEndedFrom(club, last)) {
            int from = last;
            while (from > 1 && isEndedFrom(club, from - 1))
                --from;
            told.push_back({Standing::What::leftOut, who, from, {}});
        }
    }
    return told;
}

std::vector<std::string> whyStruckOff(const Test& test) {
    const Roster roster(test);
    std::vector<std::string> why;
    for (BuildAt club; club < test.builds.size(); ++club)
        why.push_back(roster.isStruckOff(club) ? roster.whyOut(club) : std::string());
    return why;
}

void setStanding(Test& test, BuildAt club, Standing::What what, int lap, const std::string& why) {
    test.standings.push_back({what, test.builds[club].who(), lap, why});
}

} // namespace knot::record
