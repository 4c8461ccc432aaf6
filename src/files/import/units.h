#pragma once

#include "core/record/units.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::files {

/// A column of readings whose unit is to be settled.
struct UnitAsked {
    std::size_t column = 0;
    record::Metric metric = record::Metric::carry;
    std::vector<double> numbers; ///< as they stand
    std::optional<record::Unit> unit = {};
    std::string why = {};      ///< how it is known, where neither heading nor cells say it
    std::string refused = {};  ///< what stands where a unit should, and is none of the metric's
    std::string question = {}; ///< where more than one is possible
    std::vector<record::Unit> choices = {};
};

/// The share of numbers that would be usual readings in a unit.
double fitting(record::Metric metric, record::Unit unit, const std::vector<double>& numbers);

/// The unit that a single column speaks for by itself.
record::Unit likeliestUnit(record::Metric metric, std::optional<record::Unit> written,
                           const std::vector<double>& numbers);

/// Gives every column a unit: the one that it has; the only one in which its numbers are usual; that of
/// the columns of its kind (carry and total, ball and club speed); the one that goes with the flight.
/// Where two are left the likelier is taken and a question says so.
void settleUnits(std::vector<UnitAsked>& columns);

} // namespace knot::files
