#pragma once

#include <tl/expected.hpp>

#include <cstdint>
#include <optional>
#include <string_view>

namespace knot::record {

/// Why a text is no number.
enum class NumberFault {
    notANumber,
    notFinite, ///< infinite, or too large to hold
    ambiguous  ///< "6,250" by itself: a thousand or a decimal mark
};

/// Which mark parts whole units from decimals: known, or told from the number itself, which "6,250"
/// does not tell. Spaces and apostrophes between groups of three are thousands marks in any case.
enum class DecimalMark { point, comma, open };

/// The number that a text is from end to end: the one way in which files, fields, settings and the
/// command line read one. Spaces around it, a sign (true minus too) and thousands marks between
/// groups of three are taken; words such as "inf" and hexadecimal figures are not. Any locale.
tl::expected<double, NumberFault> numberIn(std::string_view text, DecimalMark mark = DecimalMark::open);

/// What one number tells of the file that it stands in: nothing, or its decimal mark.
std::optional<DecimalMark> decimalMarkTold(std::string_view text);

/// Digits from end to end and nothing else, as programs write counts; nothing for what 64 bits don't hold.
std::optional<std::uint64_t> countIn(std::string_view digits);
/// The same of what an int holds.
std::optional<int> wholeIn(std::string_view digits);

constexpr bool isDigit(char c) {
    return c >= '0' && c <= '9';
}

} // namespace knot::record
