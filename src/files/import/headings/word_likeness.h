#pragma once

#include <string>
#include <vector>

namespace knot::files {

/// The share of two headings' words that are the same, each word once: 1 for the same heading, less for slips of the
/// pen, plurals and words cut short, 0 for nothing in common. Signs that are syllables or words themselves are the same
/// or not.
double sameness(const std::vector<std::string>& a, const std::vector<std::string>& b);

} // namespace knot::files
