#pragma once

#include "core/plan/requirements.h"
#include "core/record/units.h"

#include <QColor>
#include <QString>

namespace knot::app {

/// A worthwhile gap with its unit, or how many times a spread is another.
QString gapText(const record::Outcome& outcome, double gap, const record::DisplayUnits& units);

/// What a test takes, outcome by outcome, in a few lines each (HTML); what would do instead in this colour.
QString takesHtml(const record::Test& test, const std::vector<plan::Takes>& takes, const record::DisplayUnits& units,
                  const QColor& advice);

/// The test sheet on paper, as it reads (HTML): the sentence, what was said beside it, what is held constant, who hits,
/// and what that takes. While the seal is closed it names no club.
QString sheetHtml(const record::Test& test, const std::vector<plan::Takes>& takes, const record::DisplayUnits& units);

} // namespace knot::app
