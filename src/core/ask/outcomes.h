#pragma once

#include "core/ask/answers.h"
#include "core/words/golfers_words.h"

#include <array>

// What choosing and typing share.
namespace knot::ask {

using record::mostOutcomes;

/// How a club is delivered, as far as it can be the player's doing.
inline constexpr std::array causes = {record::Metric::clubSpeed, record::Metric::strikeHigh, record::Metric::strikeToe,
                                      record::Metric::attack,    record::Metric::path,       record::Metric::face};

using words::asked;
using words::wordsOf;

/// Declares an outcome in a place, or moves one that is declared already there.
void setOutcome(record::Card& card, std::size_t at, const record::Outcome& outcome, const record::Want& want);

/// Another player in a place, or one more.
Edit putPlayer(std::size_t at, const record::Player& player);

/// Puts a shape where another one stood; what is declared about it stays so. Why not, as a sentence, where the same
/// shape is there already; else nothing.
std::string moveShape(record::Card& card, std::size_t at, record::Shape shape, const record::DisplayUnits& units);

} // namespace knot::ask
