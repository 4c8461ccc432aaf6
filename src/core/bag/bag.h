#pragma once

#include "core/flight/flight.h"
#include "core/judge/claim.h"
#include "core/record/test.h"

#include <optional>
#include <string>
#include <vector>

// The clubs that a player carries, from free shots, files and decisions over any number of sittings. Everything of a
// bag is exploratory (judgement §33).
namespace knot::bag {

/// The shots of a club in one sitting, stint by stint.
struct InSitting {
    std::size_t sitting = 0;
    std::vector<std::vector<double>> stints; ///< carries, m
    double mean() const;
    std::size_t shots() const;
};

struct Club {
    std::string name;
    std::vector<InSitting> sittings;
    double carry = 0;                     ///< the mean of its sittings' means, m
    std::optional<flight::Launch> launch; ///< the mean, where ball speed, launch and spin were read
    std::size_t shots() const;
};

/// What a gap between neighbours rests on: several sittings that hold both, one, a third club that both met, or only
/// the clubs' own averages.
enum class Rests { severalSittings, oneSitting, byAnother, averages };

struct Gap {
    std::size_t longer = 0, shorter = 0; ///< places among the clubs
    Rests rests = Rests::averages;
    std::size_t sittings = 0;
    double gap = 0; ///< m
    std::optional<judge::Interval> ci95;
    std::optional<double> outflown; ///< how often the shorter one outflies the longer, where a sitting holds both
    std::optional<judge::Interval> outflownCi95; ///< from four such sittings on
    enum class Is { neither, hole, twin } is = Is::neither;
};

struct Bag {
    std::vector<Club> clubs; ///< the longest first
    std::vector<Gap> gaps;   ///< of neighbours
    double step = 0;         ///< wanted between neighbours, m: the player's, else the even one
    std::size_t sittings = 0;
};

/// Whether a record is of a bag: free shots, or clubs that are no rivals. Of others a decided club comes in alone.
bool isOfBag(const record::Test& test);

/// The counted shots with a carry of one player (empty: of all), of clubs told by their names; shots of a club that
/// were asked for in several ways by the commonest. Tests whose comparisons may not be seen yet are left out. `step`:
/// the player's own wanted step, m.
///
/// A gap of several sittings is the mean of the differences of means in sittings that hold both, weighted by their
/// stints, Student's t on sittings − 1 (as `judge::poolSittings`). One sitting: that one, with its own shots and what a
/// stint usually adds. A hole is a gap surely above 1.25 of the step, a twin one surely under half of it: by
/// intervals with the gaps' common spread between sittings, at 5 in 100 over all gaps of the bag together.
Bag bagOf(const std::vector<record::Test>& tests, const std::string& player = {}, std::optional<double> step = {});

/// What a club carries in other air, by the flight model's share; nothing without a launch.
std::optional<double> carryIn(const Club& club, const flight::Air& air);

} // namespace knot::bag
