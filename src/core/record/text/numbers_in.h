#pragma once

#include <string>
#include <vector>

namespace knot::record {

/// The numbers of a text, whatever stands between them; a minus of either kind counts where a number begins.
std::vector<double> numbersIn(std::string text);

} // namespace knot::record
