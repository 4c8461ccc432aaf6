#pragma once

#include "core/record/test.h"
#include "core/record/units.h"

#include <QString>

#include <vector>

namespace knot::app {

/// A club of a screening that is still in, with its shots so far.
struct Lead {
    std::size_t build = 0;
    int shots = 0;
    double mean = 0;
};

/// The number by which a screening is ranked: the first declared outcome, else carry.
record::Metric leadMetric(const record::Test& test);

/// The clubs that are in, the best average first; those without a shot last.
std::vector<Lead> leadsOf(const record::Test& test);

/// Them in words, with the risk of dropping the best one.
QString leadsText(const record::Test& test, const std::vector<Lead>& leads, const record::DisplayUnits& units);

} // namespace knot::app
