#pragma once

#include "core/ask/sentence.h"
#include "core/record/typed/amount.h"
#include "core/record/typed/number_in.h"

#include <tl/expected.hpp>

#include <functional>
#include <string>
#include <vector>

namespace knot::ask {

/// A change of what is declared.
using Edit = std::function<void(record::Declared&)>;

/// One thing that a chip may hold: what it says, and what choosing it changes.
struct Answer {
    std::string text;
    Edit edit;
    std::string also = {}; ///< other words that find it: "dispersion tighter"
};

/// What is known outside the test.
struct Known {
    record::DisplayUnits units;
    std::vector<record::Player> players;                  ///< of the logbook
    record::DecimalMark mark = record::DecimalMark::open; ///< of the decimals where this is
    std::optional<double> changeSeconds = {};             ///< what a change took in earlier tests

    record::Typing typing() const { return {units, mark}; }
};

/// Why something typed is not taken.
inline tl::unexpected<std::string> refused(std::string why) {
    return tl::unexpected<std::string>(std::move(why));
}

/// What a chip may hold, the likeliest first; nothing where only typing says it.
std::vector<Answer> answersFor(const Chip& chip, const record::Test& test, const Known& known);

/// The answers that some letters find: each word typed begins a word of the answer, in either case. Those first whose
/// words follow each other as they were typed ("less sp": less spin before less left–right spread), else in their
/// order.
std::vector<Answer> found(const std::vector<Answer>& answers, const std::string& letters);

/// What typing a text into a chip and leaving it changes: the first answer that it finds, else what it says by itself
/// (a gap, names of clubs, a shape, an aim, a window). Nothing typed takes a clause back. Else a sentence that says
/// what is not understood.
tl::expected<Edit, std::string> taken(const Chip& chip, const std::string& text, const record::Test& test,
                                      const Known& known);

/// Whether a chip is one of the plan's sentence (plan_sentence.h).
bool isOfPlan(Part part);

/// A wanted window in words: "launch 12 to 15", "d 42 48 for Reed", "carry 150 yd to 160 yd". A letter or more of the
/// number, one value or two in the user's unit or another that is typed, and a club where it is not wanted of all.
tl::expected<record::Target, std::string> windowFromText(const std::string& text, const record::Test& test,
                                                         const record::Typing& typing);
/// What it would have to be typed as.
std::string windowText(const record::Target& target, const record::Declared& of, const record::DisplayUnits& units);

} // namespace knot::ask
