#pragma once

#include "core/record/units.h"

#include <optional>
#include <string>
#include <string_view>
#include <tl/expected.hpp>

namespace knot::record {

/// A number with a fixed count of decimals (−1: to tens, −2: to hundreds), a true minus sign and thin spaces between
/// thousands from 10 000 on. "−0.0" is written "0.0"; anything not finite is written "–".
std::string fixed(double value, int decimals);

/// As `fixed`, with a plus sign before positive numbers.
std::string signedFixed(double value, int decimals);

/// A probability as read by people: "0.03", "0.004", "under 0.001".
std::string probability(double p);

/// How many decimals the uncertainty of a value supports: the second digit of its standard error,
/// but never more than `most`. A missing or zero error gives `most`.
int supportedDecimals(double standardError, int most);

/// A metric's value in the user's unit, without and with the unit symbol.
class MetricFormat {
public:
    MetricFormat(Metric metric, const DisplayUnits& units);

    double shown(double internal) const { return fromInternal(internal, m_unit); }
    double internal(double shownValue) const { return toInternal(shownValue, m_unit); }
    std::string number(double internal) const;
    std::string signedNumber(double internal) const;
    std::string withUnit(double internal) const;
    /// "2.9 to 9.9", both ends at this metric's decimals.
    std::string range(double low, double high) const;
    std::string unitText() const { return std::string(symbol(m_unit)); }
    /// The same unit with no more decimals than this standard error (internal units) supports.
    MetricFormat supportedBy(double standardError) const;
    int decimals() const { return m_decimals; }

private:
    Unit m_unit;
    int m_decimals;
};

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

/// "1 shot", "3 shots": a count with its noun in the right number.
std::string counted(std::size_t count, const std::string& singular, const std::string& plural = {});

} // namespace knot::record
