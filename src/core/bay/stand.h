#pragma once

#include "core/record/test.h"

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

/// Running a test in the bay: where it stands, and what each thing done there changes. Pure functions
/// over a test; times come from the caller as ISO 8601 texts of one zone.
namespace knot::bay {

enum class Phase {
    noPlan,   ///< a test without a plan: nothing can be struck
    free,     ///< an open sitting or a screening: any club, any time
    warmUp,   ///< uncounted swings before the first hand-over of a sitting
    handOver, ///< the next club is to be handed over, or drawn when alone
    striking,
    nameTag, ///< alone: the stint is struck and its tag not entered yet
    done
};

/// Where a test stands in the bay.
struct Stand {
    Phase phase = Phase::noPlan;
    std::optional<std::size_t> turn; ///< a place in the plan
    std::size_t build = 0;           ///< the club to be in hand; nothing to go by while `drawn`
    bool drawn = false;              ///< alone: which club it is shows only after the stint
    bool confirmed = true;           ///< false: shots came before the hand-over was confirmed
    bool anew = false;               ///< the same club as before, handed over anew
    std::optional<std::size_t> next; ///< the club after this stint
    int shot = 1, shots = 1;         ///< the shot to be struck next, of so many
    int round = 1, rounds = 1;
    int warmUp = 0, warmUpPlanned = 0; ///< uncounted swings of the sitting
    int swings = 0;                    ///< of the sitting, all of them
    int sinceRest = 0;                 ///< swings since the last rest
    std::vector<std::size_t> inBag;    ///< alone: clubs that this lap has not had yet
};

Stand standOf(const record::Test& test);

/// The label that shots of a planned stint carry, and back.
std::string turnLabel(std::size_t turn);
std::optional<std::size_t> plannedTurn(const record::Test& test, const record::Shot& shot);

/// A shot with at least one reading beside where it met the face.
bool isRead(const record::Shot& shot);

/// How many shots fill each planned stint; set-aside ones too where they are not hit again.
std::vector<int> filledTurns(const record::Test& test);
/// How many good shots a planned stint asks for.
int wantedShots(const record::Test& test, std::size_t turn);

/// Alone: the stint of this shot has no tag yet, so nobody knows which club struck it.
bool isUnnamed(const record::Test& test, const record::Shot& shot);
/// The test without shots of unknown clubs, as it may be judged.
record::Test withoutUnnamed(record::Test test);

} // namespace knot::bay
