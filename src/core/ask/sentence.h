#pragma once

#include "core/record/test.h"
#include "core/record/units.h"

#include <compare>
#include <optional>
#include <string>
#include <vector>

// What a test asks, as one sentence made of words and of chips: places that hold what was chosen and take another
// choice in a few letters.
namespace knot::ask {

/// What a chip stands for. `against` is the baseline, or "which" where there is none; `another` is where a clause is
/// added.
enum class Part {
    // what is asked
    against,
    tested,
    clubs,
    player,
    outcome,
    gap,
    causes,
    along,
    factor,
    shape,
    aim,
    another,
    // how it is struck
    minutes,
    order,
    laps,
    stint,
    warmUp,
    change,
    slower,
    shot,
    restEvery,
    rest,
    grade,
    handsOver,
    tags,
    seesComparisons,
    seesAverages,
    seesShots,
    looks,
    // by what a plan's worth goes
    worthOf,
    spreadOf,
    // by what the number in hand is judged
    clubKind,
    baseline,
    role,
    margin,
    want,
    // what is decided
    decidedClub,
    reason,
    price,
    watch
};

struct Chip {
    Part part = Part::another;
    std::size_t at = 0; ///< which player, outcome or shape
    auto operator<=>(const Chip&) const = default;
};

/// Words, or a chip with what it holds; a chip that holds nothing yet is `empty` and says what belongs there.
struct Piece {
    std::string text;
    std::optional<Chip> chip = {};
    bool isEmpty = false;
};

/// "Against [Alder 62], does [another shaft] ([Reed 53]) give [Marit] [more carry] – worth having from [2.7 m] – …?"
std::vector<Piece> sentenceOf(const record::Test& test, const record::DisplayUnits& units);

/// Whether words stand close behind what comes before them: a comma, a stop, a closing bracket.
bool joinsBefore(const std::string& text);
/// The sentence as it reads, without what is still empty at its end.
std::string textOf(const std::vector<Piece>& pieces);

/// What a chip is called where it can't be seen in its sentence: "worthwhile gap of outcome 1".
std::string nameOf(const Chip& chip);
/// A short name for good, by which a window knows the chip: "gap2".
std::string fieldOf(const Chip& chip);

/// "more carry", "less left–right spread", "side near 0.0 m": an outcome with what is wanted of it.
std::string wantedText(const record::Outcome& outcome, const record::Want& want, const record::DisplayUnits& units);

/// The clubs of a test: while its seal is closed what that hides, in the order of the sheet.
const std::vector<record::Build>& clubsOf(const record::Test& test);
/// Those of them that are in.
std::vector<record::Build> clubsIn(const record::Test& test);

} // namespace knot::ask
