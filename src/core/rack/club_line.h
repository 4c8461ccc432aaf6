#pragma once

#include "core/record/card.h"
#include "core/record/test.h"
#include "core/record/typed/amount.h"

#include <tl/expected.hpp>

#include <string>

// Clubs and parts in a line, as people say them: "Reed 53, 53 g graphite A", "Tarn 5 18° 58.5° 218 g".
namespace knot::rack {

/// A part in words: its name, then what is known of it with its unit. Mass in g, a head's loft and lie in °, its volume
/// in cm³, a length in mm, a shaft's material and flex as words.
std::string partText(const record::Part& part);

/// A part as a text says it: numbers with their unit (g, °, mm, in or ", cm³ or cc; a head's first angle is its loft,
/// the next its lie), a shaft's material and flex, and what is left is the name. What it does not say stays as it was.
/// Else a sentence that says what can't be read.
tl::expected<record::Part, std::string> partSaid(record::Part part, const std::string& text,
                                                 const record::Typing& typing);

/// What differs of a club in a test of this kind: its shaft, its loft, its length; of whole clubs the head and the
/// shaft.
std::string differsText(const record::Build& build, record::TestKind kind);

/// A club in a line: its name, a comma, and what differs. Where the name is the part's own it is said once.
std::string clubLine(const record::Build& build, record::TestKind kind);

/// The length of a club in the user's unit: "1073 mm", "42¼ in" to the nearest eighth.
std::string lengthText(double mm, record::LengthUnit unit);

/// A club as such a line says it. A builder's words say what is done to it, from how its head stands: "1 weak", "2
/// strong" (loft by bending), "1 up", "1 flat" (lie), "½ in long", "10 mm short", and a swing weight such as "D2" the
/// lead that brings it there. An angle beside such words is the head's before it was bent; alone it is what the club
/// has in all. Without a comma the numbers with units are what differs, and the rest is the name. Else a sentence that
/// says what can't be read.
tl::expected<record::Build, std::string> clubSaid(record::Build build, const std::string& line, record::TestKind kind,
                                                  const record::Typing& typing);

} // namespace knot::rack
