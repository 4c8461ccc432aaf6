#pragma once

#include "core/judge/bets/leads.h"
#include "core/record/units.h"

#include <QString>

#include <vector>

namespace knot::app {

/// Leads in words, with the risk of dropping the best one.
QString leadsText(const record::Test& test, const std::vector<judge::Lead>& leads, const record::DisplayUnits& units);

} // namespace knot::app
