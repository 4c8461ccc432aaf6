#include "core/rack/figures.h"
#include "core/rack/said_words.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>

namespace knot::rack {

using record::Club;

namespace {

// "D2", "C7.5": points above D0.
std::optional<double> swingWeightIn(std::string_view word) {
    if (word.size() < 2 || word[0] < 'A' || word[0] > 'G')
        return std::nullopt;
    const auto points = record::numberIn(std::string(word.substr(1)));
    return points && *points >= 0 && *points < 10 && word.find_first_not_of("0123456789.", 1) == std::string_view::npos
               ? std::optional(10.0 * (word[0] - 'D') + *points)
               : std::nullopt;
}

// The lead that brings a club to a swing weight, where that can be reckoned and takes no metal away.
void leadTo(Club& club, double points) {
    Club bare = club;
    bare.lead = 0;
    Club leaded = club;
    leaded.lead = 10;
    const auto without = figuresOf(bare).swingWeight;
    const auto with = figuresOf(leaded).swingWeight;
    if (without && with && *with > *without)
        club.lead = std::max(0.0, 10 * (points - *without) / (*with - *without));
}

// A number and what a builder does by it: takes both words out.
bool takeBuilt(Club& club, const std::string& number, const std::string& how) {
    const auto degrees = bareIn(number);
    const auto length = quantityIn(number);
    const bool isLength = length && (length->what == Measured::length || length->what == Measured::inches);
    const double mm = isLength ? length->value * (length->what == Measured::inches ? millimetres : 1) : 0;
    if (degrees && (how == "weak" || how == "strong"))
        club.bentLoft = how == "weak" ? *degrees : -*degrees;
    else if (degrees && (how == "up" || how == "upright" || how == "flat"))
        club.bentLie = how == "flat" ? -*degrees : *degrees;
    else if (isLength && club.length && (how == "long" || how == "short"))
        *club.length += how == "long" ? mm : -mm;
    else
        return false;
    return true;
}

} // namespace

std::vector<std::string> built(Club& club, const std::vector<std::string>& words) {
    std::vector<std::string> left;
    std::optional<double> points;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (i + 1 < words.size() && takeBuilt(club, words[i], record::lowerCase(words[i + 1])))
            ++i;
        else if (const auto swing = swingWeightIn(words[i]))
            points = swing;
        else
            left.push_back(words[i]);
    }
    if (points) // of the club as all else was said
        leadTo(club, *points);
    return left;
}

} // namespace knot::rack
