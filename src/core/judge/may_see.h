#pragma once

#include "core/record/test.h"

#include <cstddef>
#include <optional>
#include <string>

// May it be seen? Asked here, by whoever gives out shots, averages or comparisons.
namespace knot::judge {

/// Who looks: whoever runs the test, or the player.
enum class Eyes { fitter, player };

/// Whether these eyes may see the numbers of single shots.
bool maySeeShots(const record::Test& test, Eyes eyes);
/// Running averages.
bool maySeeAverages(const record::Test& test, Eyes eyes);
/// Which tag is in hand.
bool maySeeTag(const record::Test& test, Eyes eyes);

/// How far the laps of a plan are whose comparisons nobody sees before it is done.
struct Withheld {
    std::size_t done = 0, planned = 0;
};
/// Whether comparisons of a test are not to be seen yet, by nobody: it was declared without looks, it was begun, and
/// laps of its plan are left to be struck.
std::optional<Withheld> withheld(const record::Test& test);

/// Somebody looks before the plan is done: from here on each lap counts as a look (judgement §9), and the record says
/// that it was so. `at` is ISO 8601.
void look(record::Test& test, const std::string& at);

} // namespace knot::judge
