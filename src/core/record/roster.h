#pragma once

#include "core/record/test.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// Who is in a test, lap by lap: as made, struck off, left out, put back. The one place that says it; a club that was
/// marked as changed is the same club. Reckoned from the course when it is made.
class Roster {
public:
    explicit Roster(const Test& test);

    /// How many clubs the record has.
    std::size_t clubs() const { return m_out.size(); }
    /// Whether a club is in: now, or in a lap.
    bool isIn(BuildAt club) const;
    bool isIn(BuildAt club, int lap) const;
    /// The clubs that are in now, in the order of the test.
    std::vector<BuildAt> left() const;
    /// Why a club is out, in words; empty while it is in.
    const std::string& whyOut(BuildAt club) const;
    /// Whether a club left for good while others went on: it is struck off.
    bool isStruckOff(BuildAt club) const;
    bool isAnyStruckOff() const;

private:
    struct Stretch { ///< out of the laps from `from` up to `until`, which is nothing while it is out
        Standing::What what;
        int from = 1;
        std::optional<int> until;
        std::string why;
    };
    std::vector<std::vector<Stretch>> m_out; ///< by club
    std::vector<int> m_first;                ///< by club, the first lap that was planned for it
};

/// The clubs of a test that are in now, as they are made.
std::vector<Build> buildsIn(const Test& test);

/// What is told of who left by a record that does not say it: `whyOff` has for each club why it was struck off, empty
/// where it was not; a club whose planned stints were ended to the last while others went on was left out.
std::vector<Standing> standingsTold(const Test& test, const std::vector<std::string>& whyOff);
/// For each club why it was struck off; empty where it was not.
std::vector<std::string> whyStruckOff(const Test& test);

/// A club leaves from a lap on, or comes back in it.
void setStanding(Test& test, BuildAt club, Standing::What what, int lap, const std::string& why = {});

} // namespace knot::record
