#include "core/rack/measures.h"

#include "core/rack/figures.h"

#include <algorithm>

namespace knot::rack {

using record::Club;

const std::array<Measure, 9>& measures() {
    static constexpr std::array<Measure, 9> all = {{
        {"club:shaft_g", "shaft weight", "g", 10, [](const Club& club) { return club.shaft.mass; }},
        {"club:head_g", "head weight", "g", 5, [](const Club& club) { return club.head.mass; }},
        {"club:grip_g", "grip weight", "g", 5, [](const Club& club) { return club.grip.mass; }},
        {"club:mass_g", "whole weight", "g", 10, [](const Club& club) { return figuresOf(club).mass; }},
        {"club:swing_weight", "swing weight", "", 1, [](const Club& club) { return figuresOf(club).swingWeight; }},
        {"club:length_mm", "length", "mm", 10, [](const Club& club) { return figuresOf(club).length; }},
        {"club:loft_deg", "loft", "°", 1, [](const Club& club) { return figuresOf(club).loft; }},
        {"club:lie_deg", "lie", "°", 1, [](const Club& club) { return figuresOf(club).lie; }},
        {"club:balance_mm", "balance point", "mm", 10, [](const Club& club) { return figuresOf(club).balance; }},
    }};
    return all;
}

const Measure* measureCalled(std::string_view key) {
    const auto* const at = std::ranges::find(measures(), key, &Measure::key);
    return at == measures().end() ? nullptr : &*at;
}

} // namespace knot::rack
