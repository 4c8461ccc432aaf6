#pragma once

#include "core/record/card.h"
#include "core/record/typed/amount.h"

#include <tl/expected.hpp>

#include <string>

namespace knot::record {

/// A shape as people say it, in the user's unit of distance or another that is typed: "strip 20", "strip 20 at 5",
/// "circle 12 at 150", "oval 20 x 12 at 150", "box 20 x 12 at 150, 3", "left 15", "right 15". Numbers: how wide (across
/// the line) and how deep, where its middle is (how far, then how far right of the line; a strip has only the latter),
/// how far beyond the line to a side. It is named by what was said. Else a sentence that says what is missing.
tl::expected<Shape, std::string> shapeFromText(const std::string& text, const Typing& typing);

/// What it would have to be typed as: "circle 12 at 150".
std::string shapeText(const Shape& shape, const DisplayUnits& units);

} // namespace knot::record
