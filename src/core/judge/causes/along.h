#pragma once

#include "core/record/test.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::judge {

/// The number that a shot stands at along what is tested: a measure of its club (rack::measures), else one of the
/// file's own columns. Nothing where it has none.
std::optional<double> numberAlong(const record::Test& test, const record::Shot& shot, const std::string& name);

/// Which delivery, player or entry of one of the file's columns a shot is of; empty where none.
std::string levelOf(const record::Test& test, const record::Shot& shot, const std::string& factor);

/// What a test could go along: measures that at least two of its clubs have and differ in, and columns of its file
/// that hold numbers, two or more different ones.
std::vector<std::string> alongWhat(const record::Test& test);

} // namespace knot::judge
