#pragma once

#include "core/record/test.h"

#include <tl/expected.hpp>

#include <string>
#include <vector>

// Names in a list, as a person types them.
namespace knot::record {

/// The names of a list: parted by commas, semicolons, ">", "and", "or" and line ends. One that is known, in either
/// case, is found whole whatever stands in it, and comes as it is known; so does what stands in quotes.
std::vector<std::string> namesIn(const std::string& text, const std::vector<std::string>& known);

/// Names of builds in the order they are said, the best first: "Fern, Slate, Reed" or "fe > sl". A name may be as short
/// as tells it from the others, in either case. Nothing said is no order. Else a sentence that says what is not
/// understood.
tl::expected<std::vector<std::string>, std::string> orderFromText(const std::string& text,
                                                                  const std::vector<Build>& builds);

/// What it would have to be typed as: "Fern, Slate, Reed".
std::string orderText(const std::vector<std::string>& order);

} // namespace knot::record
