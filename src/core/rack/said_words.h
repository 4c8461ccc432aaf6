#pragma once

#include "core/record/club.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

// The words and figures that clubs are said in.
namespace knot::rack {

inline constexpr double millimetres = 25.4; // of an inch

enum class Measured { mass, angle, length, inches, volume };

struct Quantity {
    double value = 0;
    Measured what = Measured::mass;
};

/// "53g", "18°", "42¼in": a number that ends in a unit.
std::optional<Quantity> quantityIn(std::string_view word);

/// A number that stands alone or before a degree sign: "1", "½", "1½°".
std::optional<double> bareIn(std::string_view word);

/// Words between spaces, commas and middle dots; a number and its unit are one word.
std::vector<std::string> wordsOf(const std::string& text);
std::string joined(const std::vector<std::string>& words);

/// What a builder's words do to a club ("1 weak", "1 up", "½in long", "D2"); gives back the words that are none.
std::vector<std::string> built(record::Club& club, const std::vector<std::string>& words);

} // namespace knot::rack
