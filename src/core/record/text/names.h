#pragma once

#include "core/record/test.h"

#include <array>
#include <optional>
#include <string_view>

namespace knot::record {

/// The written forms of the record's enumerations, in the order of their values. Files and the
/// logbook use these words; they stay as they are once written.
inline constexpr std::array statusNames = {"counted", "set_aside", "warm_up"};
inline constexpr std::array setAsideWhenNames = {"unknown", "called", "by_rule", "after_number", "after_reveal"};
inline constexpr std::array markNames = {"none", "club", "player", "day"};
inline constexpr std::array callNames = {"none", "good", "so_so", "bad"};
inline constexpr std::array versusNames = {"not_said", "better", "worse", "same"};
inline constexpr std::array sideNames = {"not_said", "left", "right"};
inline constexpr std::array wantNames = {"none", "more", "less", "near"};
inline constexpr std::array shapeNames = {"fairway", "ellipse", "rectangle", "beyond_left", "beyond_right"};
inline constexpr std::array ruleNames = {"keep_all", "called", "until_good", "by_numbers", "best_and_worst"};
inline constexpr std::array comparisonNames = {"against_baseline", "which_of_these"};
inline constexpr std::array kindNames = {"own", "shaft", "head", "loft",     "length",
                                         "lie", "grip",  "ball", "delivery", "whole_clubs"};
inline constexpr std::array looksNames = {"none", "each_round"};
inline constexpr std::array actionNames = {"none", "keep", "change", "adjust", "mix", "not_the_club", "test_further"};
inline constexpr std::array expectationNames = {"no_change", "up", "down"};
inline constexpr std::array blindingNames = {"open", "reading_blind", "player_blind", "both_blind"};
inline constexpr std::array seesNames = {"nobody", "fitter", "everyone"};

inline constexpr std::array feelNames = {"liveliness", "weight", "harshness", "control",   "look",
                                         "confidence", "sound",  "effort",    "discomfort"};
inline constexpr std::array placeNames = {"not_said", "indoors", "outdoors"};
inline constexpr std::array eventNames = {"note", "rest", "stop", "flag"};
inline constexpr std::array stageNames = {"test", "screening", "open_sitting"};
inline constexpr std::array partNames = {"head", "shaft", "grip", "ball"};
inline constexpr std::array standingNames = {"struck_off", "left_out", "put_back"};
inline constexpr std::array scheduleNames = {"rotated", "sandwich", "shot_by_shot", "one_run_each", "striking_off"};

template<std::size_t N, typename Value>
constexpr const char* nameOf(const std::array<const char*, N>& names, Value value) {
    return names[static_cast<std::size_t>(value)];
}

/// The value that a word stands for, or nothing.
template<typename Value, std::size_t N>
constexpr std::optional<Value> valueNamed(const std::array<const char*, N>& names, std::string_view word) {
    for (std::size_t i = 0; i < N; ++i)
        if (word == names[i])
            return static_cast<Value>(i);
    return std::nullopt;
}

} // namespace knot::record
