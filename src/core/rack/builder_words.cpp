#include "core/rack/builder_words.h"

#include "core/rack/figures.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>

namespace knot::rack {

using record::Club;
using record::Piece;
using record::Quantity;
using record::Unit;

namespace {

// "D2", "C7.5": points above D0.
std::optional<double> swingWeightIn(const Piece& piece, record::DecimalMark mark) {
    const std::string& word = piece.text;
    if (piece.amount || word.size() < 2 || word[0] < 'A' || word[0] > 'G' || !record::isDigit(word[1]))
        return std::nullopt;
    const auto points = record::numberTyped(word.substr(1), mark);
    return points && *points >= 0 && *points < 10 ? std::optional(10.0 * (word[0] - 'D') + *points) : std::nullopt;
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

// A number and what a builder does by it.
bool takeBuilt(Club& club, const Piece& number, const std::string& how) {
    if (!number.amount || number.amount->value < 0)
        return false;
    const bool isBare = !number.amount->unit;
    const auto degrees = record::valueOf(number, Quantity::angle, Unit::deg);
    const auto mm = record::valueOf(number, Quantity::length, Unit::mm);
    if (degrees && (how == "weak" || how == "strong"))
        club.bentLoft = how == "weak" ? *degrees : -*degrees;
    else if (degrees && (how == "up" || how == "upright" || how == "flat"))
        club.bentLie = how == "flat" ? -*degrees : *degrees;
    else if (mm && !isBare && club.length && (how == "long" || how == "short"))
        *club.length += how == "long" ? *mm : -*mm;
    else
        return false;
    return true;
}

} // namespace

std::vector<Piece> built(Club& club, const std::vector<Piece>& pieces, record::DecimalMark mark) {
    std::vector<Piece> left;
    std::optional<double> points;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (i + 1 < pieces.size() && takeBuilt(club, pieces[i], record::lowerCase(pieces[i + 1].text)))
            ++i;
        else if (const auto swing = swingWeightIn(pieces[i], mark))
            points = swing;
        else
            left.push_back(pieces[i]);
    }
    if (points) // of the club as all else was said
        leadTo(club, *points);
    return left;
}

} // namespace knot::rack
