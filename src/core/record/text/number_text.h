#pragma once

#include "core/record/units.h"

#include <string>

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

/// "1 shot", "3 shots": a count with its noun in the right number.
std::string counted(std::size_t count, const std::string& singular, const std::string& plural = {});

} // namespace knot::record
