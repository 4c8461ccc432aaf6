#pragma once

#include "core/record/test.h"

#include <tl/expected.hpp>

#include <string>
#include <vector>

namespace knot::record {

/// Names of builds in the order they are said, the best first: "Fern, Slate, Reed" or "fe > sl". A name may be as short
/// as tells it from the others, in either case. Nothing said is no order. Else a sentence that says what is not
/// understood.
tl::expected<std::vector<std::string>, std::string> orderFromText(const std::string& text,
                                                                  const std::vector<Build>& builds);

/// What it would have to be typed as: "Fern, Slate, Reed".
std::string orderText(const std::vector<std::string>& order);

} // namespace knot::record
