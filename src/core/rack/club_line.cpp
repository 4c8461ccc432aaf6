#include "core/rack/club_line.h"

#include "core/rack/builder_words.h"
#include "core/rack/figures.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <string_view>
#include <vector>

namespace knot::rack {

using record::Build;
using record::Club;
using record::DecimalMark;
using record::Part;
using record::PartKind;
using record::Piece;
using record::TestKind;
using record::Typing;
using record::Unit;

namespace {

constexpr double millimetres = 25.4; // of an inch

constexpr std::array<std::string_view, 3> materials = {"graphite", "steel", "composite"};
constexpr std::array<std::string_view, 10> flexes = {"L", "A", "R", "R2", "SR", "S", "X", "TX", "M", "R+"};

std::string angle(double degrees) {
    return record::fixed(degrees, 1) + "°";
}

tl::unexpected<std::string> unread(const Piece& piece) {
    return tl::unexpected(record::whyNoNumber(piece.text, piece.fault.value_or(record::NumberFault::notANumber)));
}

std::string joined(const std::vector<Piece>& pieces) {
    std::string text;
    for (const Piece& piece : pieces)
        text += (text.empty() ? "" : " ") + piece.text;
    return text;
}

// Whether a piece is a number with a unit that clubs have.
bool isMeasured(const Piece& piece) {
    constexpr std::array units = {Unit::g, Unit::deg, Unit::mm, Unit::cm, Unit::in, Unit::cm3};
    return piece.amount && piece.amount->unit && std::ranges::find(units, *piece.amount->unit) != units.end();
}

// Takes what it can of a part, and gives back what is left. A letter is a flex only where the name is said: "Club A,
// 53 g A".
std::vector<Piece> takeFrom(Part& part, const std::vector<Piece>& pieces, bool isNamed) {
    std::vector<Piece> left;
    int angles = 0;
    for (const Piece& piece : pieces) {
        const bool isAmount = isMeasured(piece);
        isNamed = isNamed || isAmount;
        const bool isShaft = isNamed && part.kind == PartKind::shaft;
        const std::string& word = piece.text;
        if (!isAmount && isShaft && std::ranges::find(materials, record::lowerCase(word)) != materials.end())
            part.material = record::lowerCase(word);
        else if (!isAmount && isShaft && std::ranges::find(flexes, word) != flexes.end())
            part.flex = word;
        else if (!isAmount)
            left.push_back(piece);
        else if (piece.amount->unit == Unit::g)
            part.mass = piece.amount->value;
        else if (piece.amount->unit == Unit::cm3)
            part.volume = piece.amount->value;
        else if (piece.amount->unit == Unit::deg)
            (angles++ == 0 ? part.loft : part.lie) = piece.amount->value;
        else
            part.length = record::toInternal(piece.amount->value, *piece.amount->unit);
    }
    return left;
}

// The loft or lie of a club, with what a sleeve and a bend add or before it is bent: the head's own angle gives way.
enum class Bend { within, after };
void setAngle(Club& club, bool isLoft, double degrees, Bend bend) {
    const double sleeve = isLoft ? club.sleeve.loft : club.sleeve.lie;
    const double bent = bend == Bend::after ? 0 : isLoft ? club.bentLoft : club.bentLie;
    (isLoft ? club.head.loft : club.head.lie) = degrees - sleeve - bent;
}

Part* partOf(Club& club, TestKind kind) {
    switch (kind) {
    case TestKind::shaft:
        return &club.shaft;
    case TestKind::head:
    case TestKind::wholeClubs:
        return &club.head;
    case TestKind::grip:
        return &club.grip;
    default:
        return nullptr;
    }
}

// What a line says of what differs; gives back what is left for the part's name.
tl::expected<std::vector<Piece>, std::string> sayDiffering(Build& build, const std::vector<Piece>& said, TestKind kind,
                                                           bool isNamed, const Typing& typing) {
    for (const Piece& piece : said)
        if (piece.fault)
            return unread(piece);
    Club& club = build.club;
    const auto pieces = built(club, said, typing.mark);
    if (Part* part = partOf(club, kind))
        return takeFrom(*part, pieces, isNamed);
    if (kind == TestKind::ball) {
        club.ball = joined(pieces);
        return std::vector<Piece>();
    }
    const bool isAngle = kind == TestKind::loft || kind == TestKind::lie;
    if (!isAngle && kind != TestKind::length) {
        build.note = joined(pieces);
        return std::vector<Piece>();
    }
    const bool isBent = pieces.size() < said.size();
    int angles = 0;
    std::vector<Piece> left;
    for (const Piece& piece : pieces) {
        if (!piece.amount) {
            left.push_back(piece);
            continue;
        }
        const auto value = isAngle
                               ? record::valueOf(piece, record::Quantity::angle, Unit::deg)
                               : record::valueOf(piece, record::Quantity::length,
                                                 typing.units.length == record::LengthUnit::in ? Unit::in : Unit::mm);
        if (!value)
            return tl::unexpected(value.error());
        if (isAngle) // the one that is tested, then the other
            setAngle(club, (kind == TestKind::loft) == (angles++ == 0), *value, isBent ? Bend::after : Bend::within);
        else
            club.length = *value + club.grippedDown;
    }
    return left;
}

// Whether all of it is a builder's words.
bool isBuilder(const std::vector<Piece>& pieces, DecimalMark mark) {
    Club any;
    any.length = 1000;
    return !pieces.empty() && built(any, pieces, mark).empty();
}

} // namespace

std::string lengthText(double mm, record::LengthUnit unit) {
    if (unit == record::LengthUnit::mm)
        return record::fixed(mm, 0) + " mm";
    constexpr std::array<const char*, 8> eighths = {"", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"};
    const auto parts = static_cast<int>(std::lround(8 * mm / millimetres));
    return std::to_string(parts / 8) + eighths[static_cast<std::size_t>(parts % 8)] + " in";
}

std::string partText(const Part& part) {
    std::vector<std::string> words;
    if (!part.name.empty())
        words.push_back(part.name);
    if (part.loft)
        words.push_back(angle(*part.loft));
    if (part.lie)
        words.push_back(angle(*part.lie));
    if (part.mass)
        words.push_back(record::fixed(*part.mass, 0) + " g");
    if (part.volume)
        words.push_back(record::fixed(*part.volume, 0) + " cm³");
    if (!part.material.empty())
        words.push_back(part.material);
    if (!part.flex.empty())
        words.push_back(part.flex);
    std::string text;
    for (const std::string& word : words)
        text += (text.empty() ? "" : " · ") + word;
    return text;
}

tl::expected<Part, std::string> partSaid(Part part, const std::string& text, const Typing& typing) {
    const auto pieces = record::piecesIn(text, typing.mark);
    for (const Piece& piece : pieces)
        if (piece.fault)
            return unread(piece);
    const auto left = takeFrom(part, pieces, false);
    if (!left.empty())
        part.name = joined(left);
    return part;
}

std::string differsText(const Build& build, TestKind kind) {
    const Figures figures = figuresOf(build.club);
    Club club = build.club;
    if (Part* part = partOf(club, kind)) {
        if (part->name == build.name)
            part->name.clear();
        return partText(*part);
    }
    switch (kind) {
    case TestKind::loft:
        return figures.loft ? angle(*figures.loft) : "";
    case TestKind::lie:
        return figures.lie ? angle(*figures.lie) : "";
    case TestKind::length:
        return figures.length ? record::fixed(*figures.length, 0) + " mm" : "";
    case TestKind::ball:
        return build.club.ball == build.name ? "" : build.club.ball;
    default:
        return build.note;
    }
}

std::string clubLine(const Build& build, TestKind kind) {
    const std::string differs = differsText(build, kind);
    return differs.empty() ? build.name : build.name + ", " + differs;
}

namespace {

// What stands before the comma that parts a club's name from what differs, and the pieces behind it.
struct NameAndRest {
    std::string name;
    std::vector<Piece> rest;
};

std::optional<NameAndRest> parted(const std::string& line, const std::vector<Piece>& pieces) {
    const auto first = std::ranges::find(pieces, true, &Piece::begins);
    if (first == pieces.end())
        return std::nullopt;
    const auto comma = line.find_last_of(",;", first->place - 1);
    return NameAndRest{std::string(record::trimmed(line.substr(0, comma))), {first, pieces.end()}};
}

} // namespace

tl::expected<Build, std::string> clubSaid(Build build, const std::string& line, TestKind kind, const Typing& typing) {
    const std::string before = build.name;
    Part* part = partOf(build.club, kind);
    const bool followsName = part != nullptr && (part->name.empty() || part->name == before);
    const auto pieces = record::piecesIn(line, typing.mark);
    const auto halves = parted(line, pieces);
    const bool isPlain = std::ranges::none_of(pieces, isMeasured) &&
                         std::ranges::none_of(pieces, [](const Piece& piece) { return piece.fault.has_value(); }) &&
                         !(halves && isBuilder(halves->rest, typing.mark));
    if (halves && !isPlain) {
        build.name = halves->name;
        const auto left = sayDiffering(build, halves->rest, kind, true, typing);
        if (!left)
            return tl::unexpected(left.error());
        if (part == nullptr && !left->empty())
            return tl::unexpected("“" + joined(*left) + "” says nothing of what differs in this test.");
        if (part != nullptr && !left->empty())
            part->name = joined(*left);
        else if (followsName)
            part->name = build.name;
        return build;
    }
    if (isPlain) { // all of it is the name, commas too
        build.name = std::string(record::trimmed(line));
    } else {
        const auto left = sayDiffering(build, pieces, kind, false, typing);
        if (!left)
            return tl::unexpected(left.error());
        build.name = joined(*left);
    }
    if (build.name.empty())
        build.name = before;
    if (followsName)
        part->name = build.name;
    if (kind == TestKind::ball && build.club.ball.empty())
        build.club.ball = build.name;
    return build;
}

} // namespace knot::rack
