#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>

namespace knot::words {

/// What a number goes along, in words.
struct Along {
    std::string what; ///< "shaft weight", "tip trim"
    std::string unit; ///< " g", "°", or empty
    double step = 10; ///< what people count it in
    /// "10 g of shaft weight", "1° of loft".
    std::string stepText() const;
};

/// Of a measure of clubs, else of a file's column: "tip_trim_mm" is tip trim in mm.
Along alongOf(const std::string& name);

/// "Each further 10 g of shaft weight: carry less by 2.1 m (0.8 to 3.4). …"
std::string trendSentence(const judge::Trend& trend, const std::string& along, const record::DisplayUnits& units);

/// "The gap in carry, Fern against Slate, is 4.1 m larger at “high” (0.9 to 7.3).", or where it is not there for sure
/// that this is not settled.
std::string interactionSentence(const judge::ModelEstimate& estimate, bool isThere, const judge::Reading& reading,
                                const record::DisplayUnits& units);

/// The size of an estimate, `per` as large, and its interval turned so that it reads with the size.
std::string sizeText(const judge::ModelEstimate& estimate, double per, const record::DisplayUnits& units);
std::string sizeRange(const judge::ModelEstimate& estimate, double per, const record::DisplayUnits& units);

} // namespace knot::words
