#include "core/rack/ties.h"

#include "core/rack/measures.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <array>
#include <map>
#include <string_view>

namespace knot::rack {

using record::Build;
using record::Club;
using record::TestKind;

namespace {

std::string number(const char* key, const Club& club) {
    const Measure* measure = measureCalled(key);
    const auto value = measure->of(club);
    if (!value)
        return {};
    const bool isAngle = measure->unit == "°";
    const bool isPoints = measure->unit.empty();
    return record::fixed(*value, isAngle || isPoints ? 1 : 0) + (isAngle || isPoints ? "" : " ") +
           std::string(measure->unit);
}

std::string loftAndLie(const Club& club) {
    const std::string loft = number("club:loft_deg", club);
    const std::string lie = number("club:lie_deg", club);
    return loft.empty() ? lie : lie.empty() ? loft : loft + ", " + lie;
}

std::string named(const std::string& name, const std::string& mass) {
    return name.empty() ? mass : mass.empty() ? name : name + ", " + mass;
}

struct Held {
    std::string_view words;
    std::string (*of)(const Club& club);
    TestKind factor;           ///< the kind of test that it comes with
    const char* key = nullptr; ///< where it is one number: the measure
};

// The words of data/held.csv that the Rack can tell of.
const std::array<Held, 8> held = {{
    {"the same head", [](const Club& c) { return named(c.head.name, number("club:head_g", c)); }, TestKind::head},
    {"the same shaft", [](const Club& c) { return named(c.shaft.name, number("club:shaft_g", c)); }, TestKind::shaft},
    {"the same length", [](const Club& c) { return number("club:length_mm", c); }, TestKind::length, "club:length_mm"},
    {"the same loft and lie", loftAndLie, TestKind::loft},
    {"the same grip", [](const Club& c) { return named(c.grip.name, number("club:grip_g", c)); }, TestKind::grip},
    {"the same weight", [](const Club& c) { return number("club:mass_g", c); }, TestKind::shaft, "club:mass_g"},
    {"the same swing weight", [](const Club& c) { return number("club:swing_weight", c); }, TestKind::own,
     "club:swing_weight"},
    {"the same ball", [](const Club& c) { return c.ball; }, TestKind::ball},
}};

// "317 to 339 g": what a number goes from and to.
std::string rangeOf(const char* key, const std::vector<Build>& builds) {
    const Measure* measure = measureCalled(key);
    std::optional<Club> least;
    std::optional<Club> most;
    for (const Build& build : builds)
        if (const auto value = measure->of(build.club); value) {
            if (!least || *value < *measure->of(*least))
                least = build.club;
            if (!most || *value > *measure->of(*most))
                most = build.club;
        }
    const std::string low = number(key, *least);
    const std::string unit =
        measure->unit.empty() ? "" : (measure->unit == "°" ? "" : " ") + std::string(measure->unit);
    return low.substr(0, low.size() - unit.size()) + " to " + number(key, *most);
}

// "46 g with Reed 53, else 50 g" where one differs, else all that there are.
std::string differing(std::vector<std::pair<std::string, std::string>> byClub) {
    // A name that all share says nothing here.
    const auto nameIn = [](const std::string& text) { return text.substr(0, text.find(", ")); };
    if (std::ranges::all_of(byClub, [&](const auto& one) {
            return one.second.find(", ") != std::string::npos && nameIn(one.second) == nameIn(byClub.front().second);
        }))
        for (auto& [club, text] : byClub)
            text = text.substr(text.find(", ") + 2);
    std::map<std::string, std::vector<std::string>> clubsOf;
    for (const auto& [club, text] : byClub)
        clubsOf[text].push_back(club);
    if (clubsOf.size() == 2) {
        const auto& first = *clubsOf.begin();
        const auto& last = *clubsOf.rbegin();
        const auto& odd = first.second.size() <= last.second.size() ? first : last;
        const auto& rest = &odd == &first ? last : first;
        if (odd.second.size() == 1 && rest.second.size() > 1)
            return odd.first + " with " + odd.second.front() + ", else " + rest.first;
    }
    std::string text;
    for (const auto& [club, own] : byClub)
        text += (text.empty() ? "" : ", ") + own + " with " + club;
    return text;
}

} // namespace

Tie tieOf(const std::string& words, const std::vector<Build>& builds, TestKind kind) {
    const auto* const what = std::ranges::find(held, words, &Held::words);
    if (what == held.end())
        return {};
    std::vector<std::pair<std::string, std::string>> known;
    for (const Build& build : builds)
        if (const std::string text = what->of(build.club); !text.empty())
            known.emplace_back(build.name, text);
    if (known.empty())
        return {.state = Tie::State::unknown, .text = {}};
    const bool isSame = std::ranges::all_of(known, [&](const auto& one) { return one.second == known.front().second; });
    if (isSame)
        return {.state = known.size() == builds.size() ? Tie::State::same : Tie::State::unknown,
                .text = known.front().second};
    const bool comes = kind == TestKind::wholeClubs || kind == what->factor;
    return {.state = comes ? Tie::State::factor : Tie::State::differs,
            .text = comes && what->key != nullptr ? rangeOf(what->key, builds) : differing(known)};
}

} // namespace knot::rack
