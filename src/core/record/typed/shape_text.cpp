#include "core/record/typed/shape_text.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <string_view>
#include <vector>

namespace knot::record {
namespace {

constexpr const char* examples = "Say a shape as “strip 20”, “circle 12 at 150”, “box 20 x 12 at 150” or “left 15”.";

struct Word {
    std::string_view word;
    Shape::Kind kind;
    std::size_t sizes; ///< how many numbers say how large it is
};

constexpr std::array<Word, 9> words = {{{"strip", Shape::Kind::fairway, 1},
                                        {"fairway", Shape::Kind::fairway, 1},
                                        {"circle", Shape::Kind::ellipse, 1},
                                        {"oval", Shape::Kind::ellipse, 2},
                                        {"ellipse", Shape::Kind::ellipse, 2},
                                        {"box", Shape::Kind::rectangle, 2},
                                        {"rectangle", Shape::Kind::rectangle, 2},
                                        {"left", Shape::Kind::beyondLeft, 1},
                                        {"right", Shape::Kind::beyondRight, 1}}};

// The sizes and the places of a shape, in m.
struct Extent {
    std::vector<double> sizes, places;
};

tl::expected<Extent, std::string> figuresIn(const std::vector<Piece>& pieces, const Typing& typing) {
    Extent extent;
    auto* into = &extent.sizes;
    for (const Piece& piece : pieces) {
        const std::string word = lowerCase(piece.text);
        if (word == "at") {
            into = &extent.places;
        } else if (word != "x" && word != "×" && word != "by" && word != "and") {
            const auto value = valueOf(piece, Quantity::distance, displayUnit(Quantity::distance, typing.units));
            if (!value)
                return tl::unexpected(value.error());
            into->push_back(*value);
        }
    }
    return extent;
}

} // namespace

tl::expected<Shape, std::string> shapeFromText(const std::string& text, const Typing& typing) {
    auto pieces = piecesIn(text, typing.mark, Sides::read);
    const auto* const word = std::ranges::find_if(
        words, [&](const Word& one) { return !pieces.empty() && lowerCase(pieces.front().text) == one.word; });
    if (word == words.end())
        return tl::unexpected(std::string(examples));
    pieces.erase(pieces.begin());
    const auto extent = figuresIn(pieces, typing);
    if (!extent)
        return tl::unexpected(extent.error());
    const auto& [sizes, places] = *extent;
    if (sizes.size() != word->sizes || std::ranges::any_of(sizes, [](double size) { return !(size > 0); }))
        return tl::unexpected(word->sizes == 1 ? "A " + std::string(word->word) + " needs one size above 0. " + examples
                                               : "A " + std::string(word->word) +
                                                     " needs two sizes above 0, across and along. " + examples);
    Shape shape{.kind = word->kind, .name = {}};
    const std::size_t mostPlaces = shape.isBeyond() ? 0 : shape.kind == Shape::Kind::fairway ? 1 : 2;
    if (places.size() > mostPlaces)
        return tl::unexpected("A " + std::string(word->word) + " has no more than " + counted(mostPlaces, "place") +
                              " behind “at”. " + examples);
    if (shape.isBeyond()) {
        shape.side = shape.kind == Shape::Kind::beyondLeft ? -sizes.front() : sizes.front();
    } else if (shape.kind == Shape::Kind::fairway) {
        shape.width = sizes.front();
        shape.side = places.empty() ? 0 : places.front();
    } else {
        if (places.empty())
            return tl::unexpected("A " + std::string(word->word) + " needs how far out its middle is. " + examples);
        shape.width = sizes.front();
        shape.depth = sizes.back();
        shape.carry = places.front();
        shape.side = places.size() > 1 ? places[1] : 0;
    }
    shape.name = shapeText(shape, typing.units);
    return shape;
}

std::string shapeText(const Shape& shape, const DisplayUnits& units) {
    const MetricFormat format(Metric::carry, units);
    auto number = [&](double metres) {
        const double shown = format.shown(metres);
        return fixed(shown, std::fabs(shown - std::round(shown)) < 0.05 ? 0 : 1);
    };
    const std::string out = " at " + number(shape.carry) + (shape.side == 0 ? "" : ", " + number(shape.side));
    switch (shape.kind) {
    case Shape::Kind::fairway:
        return "strip " + number(shape.width) + (shape.side == 0 ? "" : " at " + number(shape.side));
    case Shape::Kind::ellipse:
        return (shape.width == shape.depth ? "circle " + number(shape.width)
                                           : "oval " + number(shape.width) + " x " + number(shape.depth)) +
               out;
    case Shape::Kind::rectangle:
        return "box " + number(shape.width) + " x " + number(shape.depth) + out;
    case Shape::Kind::beyondLeft:
        return "left " + number(-shape.side);
    case Shape::Kind::beyondRight:
        return "right " + number(shape.side);
    }
    return {};
}

} // namespace knot::record
