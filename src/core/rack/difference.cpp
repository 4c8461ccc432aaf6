#include "core/rack/difference.h"

#include "core/rack/club_line.h"
#include "core/rack/figures.h"
#include "core/record/text/names.h"
#include "core/record/text/number_text.h"
#include "core/record/text/table.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <string_view>

namespace knot::embedded {
extern const std::string_view differenceTable; // data/differences.csv
}

namespace knot::rack {
namespace {

using record::Build;
using record::TestKind;

// One row of the table.
struct Property {
    std::string key, label, unit;
    int decimals = 0;
    double noticed = 0, large = 0;
    std::string moves, factors;
};

std::vector<Property> readTable() {
    std::vector<Property> properties;
    for (const auto& row : record::tableRows(embedded::differenceTable, 8))
        properties.push_back({row[0], row[1], row[2], static_cast<int>(record::tableNumber(row[3])),
                              record::tableNumber(row[4]), record::tableNumber(row[5]), row[6], row[7]});
    return properties;
}

const std::vector<Property>& properties() {
    static const std::vector<Property> rows = readTable();
    return rows;
}

std::optional<double> valueOf(const std::string& key, const Build& build, const Figures& f) {
    const auto& club = build.club;
    if (key == "length")
        return f.length;
    if (key == "loft")
        return f.loft;
    if (key == "lie")
        return f.lie;
    if (key == "face")
        return f.face;
    if (key == "mass")
        return f.mass;
    if (key == "balance")
        return f.balance;
    if (key == "swing_weight")
        return f.swingWeight;
    if (key == "inertia")
        return f.inertia ? std::optional(*f.inertia * 1000) : std::nullopt;
    if (key == "head_mass")
        return club.head.mass;
    if (key == "head_volume")
        return club.head.volume;
    if (key == "shaft_mass")
        return club.shaft.mass;
    return key == "grip_mass" ? club.grip.mass : std::nullopt;
}

// The property that is the factor itself.
bool isFactor(const std::string& key, TestKind kind) {
    switch (kind) {
    case TestKind::shaft:
        return key == "shaft_mass";
    case TestKind::head:
        return key == "head_mass" || key == "head_volume";
    case TestKind::loft:
        return key == "loft";
    case TestKind::length:
        return key == "length";
    case TestKind::lie:
        return key == "lie";
    case TestKind::grip:
        return key == "grip_mass";
    default:
        return false;
    }
}

bool follows(const Property& property, TestKind kind) {
    if (kind == TestKind::wholeClubs)
        return true;
    const std::string word = kind == TestKind::loft ? "sleeve" : nameOf(record::kindNames, kind);
    return (" " + property.factors + " ").find(" " + word + " ") != std::string::npos;
}

std::string remedyFor(const std::string& key, const std::vector<Build>& builds, std::size_t low, std::size_t high,
                      record::LengthUnit unit) {
    const auto& light = builds[low];
    const auto& heavy = builds[high];
    if (key == "swing_weight") {
        const auto lead = leadToEven(light.club, heavy.club);
        const auto length = lengthToEven(light.club, heavy.club);
        if (!lead || !length)
            return {};
        return record::fixed(*lead, 1) + " g of lead at the head of " + light.name + ", or " +
               lengthText(*length, unit) + " at its butt, makes it as heavy to swing as " + heavy.name;
    }
    if (key == "mass" && heavy.club.grip.mass && light.club.grip.mass)
        return record::fixed(*figuresOf(heavy.club).mass - *figuresOf(light.club).mass, 0) + " g in the grip of " +
               light.name + " evens the total, and lowers its swing weight";
    if (key == "length")
        return "grip down " + lengthText(*figuresOf(heavy.club).length - *figuresOf(light.club).length, unit) + " on " +
               heavy.name;
    if (key == "loft" || key == "lie")
        return "another sleeve setting, or a bend within the maker's limit by a qualified builder";
    if (key == "grip_mass")
        return "the same grip on each";
    return {};
}

std::optional<Difference> inNumbers(const Property& property, const std::vector<Build>& builds,
                                    const std::vector<Figures>& figures, TestKind kind, record::LengthUnit lengths) {
    const bool isInches = property.unit == "mm" && lengths == record::LengthUnit::in;
    const auto unit = isInches ? record::Unit::in : record::Unit::mm;
    const int decimals = property.decimals + (isInches ? 2 : 0);
    Difference row{.what = property.label, .unit = isInches ? "in" : property.unit, .moves = property.moves};
    std::optional<std::size_t> low;
    std::optional<std::size_t> high;
    std::vector<std::optional<double>> values;
    for (record::BuildAt b; b < builds.size(); ++b) {
        const auto value = valueOf(property.key, builds[b], figures[b]);
        values.push_back(value);
        const bool points = property.key == "swing_weight";
        row.values.push_back(!value ? "–"
                             : points
                                 ? swingWeightText(*value)
                                 : record::fixed(isInches ? record::fromInternal(*value, unit) : *value, decimals));
        if (!value)
            continue;
        if (!low || *value < *values[*low])
            low = b;
        if (!high || *value > *values[*high])
            high = b;
    }
    if (!low || *low == *high)
        return std::nullopt;
    row.spread = *values[*high] - *values[*low];
    if (row.spread < 0.5 * std::pow(10, -property.decimals))
        return std::nullopt;
    row.weight = row.spread >= property.large     ? Weight::large
                 : row.spread >= property.noticed ? Weight::noticed
                                                  : Weight::slight;
    row.follows = follows(property, kind);
    row.remedy = remedyFor(property.key, builds, *low, *high, lengths);
    if (isInches)
        row.spread = record::fromInternal(row.spread, unit);
    return row;
}

std::optional<Difference> inWords(const char* what, const char* moves, const std::vector<Build>& builds,
                                  const std::function<std::string(const Build&)>& word) {
    Difference row{.what = what, .weight = Weight::noticed, .moves = moves};
    std::string first;
    for (const Build& build : builds) {
        const std::string own = word(build);
        row.values.push_back(own.empty() ? "–" : own);
        if (own.empty())
            continue;
        if (first.empty())
            first = own;
        row.spread += own != first ? 1 : 0;
    }
    return row.spread > 0 ? std::optional(row) : std::nullopt;
}

} // namespace

std::vector<Difference> differenceSheet(const std::vector<Build>& builds, TestKind kind,
                                        const record::DisplayUnits& units) {
    std::vector<Figures> figures;
    figures.reserve(builds.size());
    for (const Build& build : builds)
        figures.push_back(figuresOf(build.club));
    std::vector<Difference> sheet;
    for (const Property& property : properties())
        if (!isFactor(property.key, kind))
            if (auto row = inNumbers(property, builds, figures, kind, units.length))
                sheet.push_back(std::move(*row));
    auto words = [&](TestKind own, const char* what, const char* moves, auto word) {
        if (kind != own)
            if (auto row = inWords(what, moves, builds, word)) {
                row->follows = kind == TestKind::wholeClubs;
                sheet.push_back(std::move(*row));
            }
    };
    words(TestKind::shaft, "shaft", "speed, flight and feel", [](const Build& b) { return b.club.shaft.name; });
    words(TestKind::shaft, "shaft material", "feel", [](const Build& b) { return b.club.shaft.material; });
    words(TestKind::shaft, "flex", "feel and delivery", [](const Build& b) { return b.club.shaft.flex; });
    words(TestKind::head, "head", "launch, spin and look", [](const Build& b) { return b.club.head.name; });
    words(TestKind::grip, "grip", "feel", [](const Build& b) { return b.club.grip.name; });
    words(TestKind::ball, "ball", "spin, more than most shafts", [](const Build& b) { return b.club.ball; });
    std::ranges::stable_sort(sheet, [](const Difference& a, const Difference& b) {
        return std::pair(a.follows, -static_cast<int>(a.weight)) < std::pair(b.follows, -static_cast<int>(b.weight));
    });
    return sheet;
}

std::vector<std::string> unknowns(const std::vector<Build>& builds) {
    std::vector<std::string> all;
    for (const Build& build : builds)
        for (const std::string& what : figuresOf(build.club).missing)
            all.push_back(what + " of " + build.name);
    return all;
}

} // namespace knot::rack
