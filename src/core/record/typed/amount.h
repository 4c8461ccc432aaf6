#pragma once

#include "core/record/player.h"
#include "core/record/typed/number_in.h"
#include "core/record/units.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

// The one reader of what a person types: numbers with their sign, their unit and their side.
namespace knot::record {

/// How people type where this is: the units they are shown, and the mark of decimals of their locale (open where that
/// is not known). The mark only decides what would otherwise be read in two ways: "2,400" and, with a comma, "2.400".
struct Typing {
    DisplayUnits units = {};
    DecimalMark mark = DecimalMark::open;
};

/// A number with what stands beside it.
struct Amount {
    double value = 0; ///< as typed; what is said to lie left is negative
    std::optional<Unit> unit = {};
    Side side = Side::notSaid;
};

/// A word of a line, or an amount; `fault` where figures are no number.
struct Piece {
    std::string text; ///< as it was typed
    std::optional<Amount> amount = {};
    std::optional<NumberFault> fault = {};
    bool begins = false;   ///< a comma or a semicolon stands before it
    std::size_t place = 0; ///< of its text in the line
};

/// The number that lies on this side: left is negative; nothing where its sign says otherwise than its word ("-5 R").
std::optional<double> onSide(double value, Side side);

/// Whether "L", "left" and the like behind a number say on which side it lies.
enum class Sides { words, read };

/// The words and amounts of a line, between spaces, commas, semicolons and middle dots. A comma with figures right on
/// both sides belongs to a number. A unit may stand behind a space; "½", "1/4" and "42 1/4" are fractions, 5'11" is
/// feet and inches. What begins with figures and ends in other letters is a word: "7i", "2nd".
std::vector<Piece> piecesIn(std::string_view text, DecimalMark mark, Sides sides = Sides::words);

/// The amount in internal units; without a unit it is in the usual one. Else a sentence that says what it can't be.
tl::expected<double, std::string> valueOf(const Piece& piece, Quantity quantity, Unit usual);

/// What is asked for: a quantity, the unit in which it is typed where none is said, and whether it lies to a side.
struct Wanted {
    Quantity quantity = Quantity::ratio;
    Unit usual = Unit::one;
    Sides sides = Sides::words;
    bool hasThousands = true; ///< else the one mark of a number is its decimals, as in a smash of 1,405
};
/// A metric as the user is shown it; of what lies to a side, left is negative.
Wanted wantedOf(Metric metric, const DisplayUnits& units);

/// The value of a text that is one amount from end to end, in internal units, or why not as a sentence.
tl::expected<double, std::string> valueTyped(std::string_view text, const Wanted& wanted, DecimalMark mark);
tl::expected<double, std::string> valueTyped(std::string_view text, Metric metric, const Typing& typing);

/// A number alone, in no unit.
tl::expected<double, std::string> numberTyped(std::string_view text, DecimalMark mark);

/// Why a text is no number, as a sentence.
std::string whyNoNumber(std::string_view text, NumberFault fault);

/// The unit that a word or a sign is, in either case: "yd", "yards", "″".
std::optional<Unit> unitTyped(std::string_view word);

} // namespace knot::record
