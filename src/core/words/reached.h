#pragma once

#include "core/judge/reading.h"
#include "core/reach/reached.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// A club's carry against what its swing could reach, from the means of a reading.
struct ReachedBy {
    record::BuildAt build;
    reach::Reached reached;
};
/// Of a driver's shots: each build with ball speed, launch, spin and carry read.
std::vector<ReachedBy> reachedBy(const judge::Reading& reading);

/// "Fern carries 196 m; its ball speed could carry 205 (6 by launch, 3 by spin) …": modelled, and says so.
std::string reachedSentence(const judge::Reading& reading, const ReachedBy& of, const record::DisplayUnits& units);

} // namespace knot::words
