#pragma once

#include <string>

namespace knot::record {

/// What was said before the tags came off: which club (its tag where it has one) and when. Said once, and not changed
/// after.
struct Said {
    std::string tag, at; ///< empty: not said
    bool operator==(const Said&) const = default;
};

/// Which would be kept by feel, which is taken for the player's own, and which goes by the numbers.
struct Choices {
    Said byFeel, own, byNumbers;
    bool operator==(const Choices&) const = default;
};

/// What is done after a test: kept as it was, changed for another, adjusted, both in the bag by turns, the swing and
/// not the club, or tested further.
enum class Action { none, keep, change, adjust, mix, notTheClub, testFurther };

struct Decision {
    Action what = Action::none;
    std::string club; ///< which one, as `Build::who` gives it; empty where none is chosen
    std::string reason, price, watch;
    std::string at; ///< ISO 8601, of the last word
    bool operator==(const Decision&) const = default;
};

} // namespace knot::record
