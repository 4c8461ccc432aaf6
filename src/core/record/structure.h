#pragma once

#include "core/record/test.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// A run of consecutive shots with one build between two club changes.
struct Turn {
    BuildAt build;
    std::optional<RoundAt> round; ///< nothing where all of it is warm-up
    std::size_t sitting = 0;      ///< index in order of appearance
    std::size_t player = 0;       ///< index in order of appearance
    std::size_t delivery = 0;     ///< index in order of appearance
    std::size_t lap = 0;          ///< the round whatever was asked for in it; counts only with a `round`
    std::size_t phase = 0;        ///< how many marks of a changed player or day came before
    std::vector<ShotAt> shots;    ///< in order struck
};

/// How the shots of a test fall into turns, rounds and sittings.
struct Structure {
    std::vector<Turn> turns;         ///< in order struck
    std::vector<std::string> rounds; ///< "sitting · round" labels in order of appearance
    std::vector<std::string> sittings, players, deliveries;
    std::vector<TurnAt> turnOfShot;
    std::vector<std::size_t> orderInSitting; ///< 1-based place of each shot in its sitting
    /// Every turn holds one counted shot at most, over the whole test.
    bool shotByShot = false;
};

/// Infers turns and rounds (judgement §1). A turn ends when another build is struck, the sitting
/// the player or the delivery asked for changes, or a hand-over or a mark is logged. Neighbouring turns of one build
/// are one turn; a file's differing `turn` values part them only across the border of two rounds that were each struck
/// in one piece with two builds or more, since that is what a rotated plan looks like. Where a file has neither turns
/// nor hand-overs, the border itself parts them when both rounds hold one stint of each build. Where a turn spans
/// rounds, or no round is given, a build's k-th turn in the sitting is in round k. Players and deliveries are never
/// laps of each other (judgement §22): each player has rounds of their own with each delivery. A mark of a changed
/// player or day parts a round in two, so that nothing is paired across it.
Structure structureOf(const Test& test);

/// The test with every club that was marked as changed followed by a successor build ("NAME,
/// changed"), so that nothing struck after the change is pooled with what came before. Without such
/// marks it is the test itself. `originals` has the club that each build is, or was before.
struct Successors {
    Test test;
    std::vector<BuildAt> originals;
};
Successors withSuccessors(Test test);

} // namespace knot::record
