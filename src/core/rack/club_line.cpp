#include "core/rack/club_line.h"

#include "core/rack/figures.h"
#include "core/rack/said_words.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <string_view>
#include <vector>

namespace knot::rack {

using record::Build;
using record::Club;
using record::Part;
using record::PartKind;
using record::TestKind;

namespace {

constexpr std::array<std::string_view, 3> materials = {"graphite", "steel", "composite"};
constexpr std::array<std::string_view, 10> flexes = {"L", "A", "R", "R2", "SR", "S", "X", "TX", "M", "R+"};

std::string angle(double degrees) {
    return record::fixed(degrees, 1) + "°";
}

// Takes what it can of a part, and gives back the words that are left. A letter is a flex only where the name is said:
// "Club A, 53 g A".
std::vector<std::string> takeFrom(Part& part, const std::vector<std::string>& words, bool isNamed) {
    std::vector<std::string> left;
    int angles = 0;
    for (const std::string& word : words) {
        const auto quantity = quantityIn(word);
        isNamed = isNamed || quantity;
        const bool isShaft = isNamed && part.kind == PartKind::shaft;
        if (!quantity && isShaft && std::ranges::find(materials, record::lowerCase(word)) != materials.end())
            part.material = record::lowerCase(word);
        else if (!quantity && isShaft && std::ranges::find(flexes, word) != flexes.end())
            part.flex = word;
        else if (!quantity)
            left.push_back(word);
        else if (quantity->what == Measured::mass)
            part.mass = quantity->value;
        else if (quantity->what == Measured::volume)
            part.volume = quantity->value;
        else if (quantity->what == Measured::angle)
            (angles++ == 0 ? part.loft : part.lie) = quantity->value;
        else
            part.length = quantity->value * (quantity->what == Measured::inches ? millimetres : 1);
    }
    return left;
}

// The one number that a kind of test is about, from a line's words.
std::optional<double> firstOf(const std::vector<std::string>& words, Measured what) {
    for (const std::string& word : words)
        if (const auto quantity = quantityIn(word)) {
            if (quantity->what == what)
                return quantity->value;
            if (what == Measured::length && quantity->what == Measured::inches)
                return quantity->value * millimetres;
        } else if (const auto bare = record::numberIn(word)) {
            return *bare;
        }
    return std::nullopt;
}

// What a sleeve and a bend add is left as it is: the head's own angle gives way.
void setLoft(Club& club, double degrees) {
    club.head.loft = degrees - club.sleeve.loft - club.bentLoft;
}
void setLie(Club& club, double degrees) {
    club.head.lie = degrees - club.sleeve.lie - club.bentLie;
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

std::vector<std::string> sayDiffering(Build& build, const std::vector<std::string>& said, TestKind kind, bool isNamed) {
    Club& club = build.club;
    const auto words = built(club, said);
    if (Part* part = partOf(club, kind))
        return takeFrom(*part, words, isNamed);
    if (kind == TestKind::loft || kind == TestKind::lie) {
        if (const auto degrees = firstOf(words, Measured::angle))
            kind == TestKind::loft ? setLoft(club, *degrees) : setLie(club, *degrees);
    } else if (kind == TestKind::length) {
        if (const auto length = firstOf(words, Measured::length))
            club.length = *length + club.grippedDown;
    } else if (kind == TestKind::ball) {
        club.ball = joined(words);
    }
    return {};
}

// Whether all of it is a builder's words.
bool isBuilder(const std::string& text) {
    Club any;
    any.length = 1000;
    const auto words = wordsOf(text);
    return !words.empty() && built(any, words).empty();
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

void sayPart(Part& part, const std::string& text) {
    const auto left = takeFrom(part, wordsOf(text), false);
    if (!left.empty())
        part.name = joined(left);
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

void sayClub(Build& build, const std::string& line, TestKind kind) {
    const std::string before = build.name;
    Part* part = partOf(build.club, kind);
    const bool followsName = part != nullptr && (part->name.empty() || part->name == before);
    const auto comma = line.find(',');
    const auto words = wordsOf(line);
    const bool hasUnits =
        std::ranges::any_of(words, [](const std::string& word) { return quantityIn(word).has_value(); });
    const bool isPlain = !hasUnits && (comma == std::string::npos || !isBuilder(line.substr(comma + 1)));
    if (comma != std::string::npos && !isPlain) {
        build.name = std::string(record::trimmed(line.substr(0, comma)));
        const auto left = sayDiffering(build, wordsOf(line.substr(comma + 1)), kind, true);
        if (part != nullptr && !left.empty())
            part->name = joined(left);
        else if (followsName)
            part->name = build.name;
        return;
    }
    // Without units all of it is the name, commas too.
    build.name = isPlain ? std::string(record::trimmed(line)) : joined(sayDiffering(build, words, kind, false));
    if (!isPlain && part == nullptr) {
        std::vector<std::string> name;
        for (const std::string& word : words)
            if (!quantityIn(word))
                name.push_back(word);
        build.name = joined(name);
    }
    if (build.name.empty())
        build.name = before;
    if (followsName)
        part->name = build.name;
    if (kind == TestKind::ball && build.club.ball.empty())
        build.club.ball = build.name;
}

} // namespace knot::rack
