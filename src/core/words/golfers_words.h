#pragma once

#include "core/record/card.h"

#include <tl/expected.hpp>

#include <array>
#include <optional>
#include <string>
#include <vector>

// What players call the numbers: "dispersion", "straighter", "landing angle".
namespace knot::words {

/// What is meant, and which way it is better or goes.
struct Meant {
    record::Outcome outcome;
    record::Want::Kind want = record::Want::Kind::none;
    bool operator==(const Meant&) const = default;
};

/// What a golfer's word means (data/words.csv); nothing where it is none.
std::optional<Meant> golfersWord(const std::string& words);
/// The same, or a number with "more" or "less" before it; nothing where it is none.
std::optional<Meant> meantBy(const std::string& words);

/// Numbers that people ask for first.
inline constexpr std::array asked = {record::Metric::carry,  record::Metric::ballSpeed, record::Metric::spin,
                                     record::Metric::launch, record::Metric::side,      record::Metric::descent,
                                     record::Metric::apex,   record::Metric::total,     record::Metric::smash};

/// In lower case, without what stands between them.
std::vector<std::string> wordsOf(const std::string& text);

/// Words that mean an outcome wanted in this way, one after another; for finding it by its letters.
std::string wordsFor(const Meant& meant);

/// A number by its label, by what shot files call it (data/headings.csv), or by the first letters of either.
std::optional<record::Metric> numberMeant(const std::string& words);

/// Several numbers, "carry, height and spin": each once, in that order. Why not, as a sentence.
tl::expected<std::vector<record::Metric>, std::string> numbersIn(const std::string& text);

/// What is expected of a club, "higher, more spin": one at least. Why not, as a sentence.
tl::expected<std::vector<Meant>, std::string> expectedIn(const std::string& text);

} // namespace knot::words
