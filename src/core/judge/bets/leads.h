#pragma once

#include "core/judge/case.h"

#include <optional>
#include <vector>

namespace knot::judge {

/// A club of a screening that is still in, with its shots so far.
struct Lead {
    BuildAt club; ///< in the record
    std::size_t shots = 0;
    std::optional<double> value; ///< in the outcome's unit: a mean, an SD inside stints, an area or a share
};

/// The outcome by which a screening is ranked: the first declared one, else the average carry.
record::Outcome leadOutcome(const record::Card& card);

/// The clubs that are in, the best by what is wanted of that outcome first (more, where nothing is
/// said of an average); those without a value last. A club that was changed stands with what was
/// struck since.
std::vector<Lead> leads(const Case& subject);

/// The average of each build that has readings, in the order of the case.
struct LiveAverage {
    BuildAt build;
    double mean = 0;
    std::size_t shots = 0;
};
std::vector<LiveAverage> liveAverages(const Case& subject, record::Metric metric);

} // namespace knot::judge
