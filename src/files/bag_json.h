#pragma once

#include "core/bag/bag.h"

#include <optional>
#include <string>

namespace knot::files {

/// A bag as JSON (docs/formats.md, schema/knotcount.bag.json). `wind`: m/s along the line, + with the ball; then with
/// what each club carries in it, modelled.
std::string bagJson(const bag::Bag& bag, std::optional<double> wind = {});

} // namespace knot::files
