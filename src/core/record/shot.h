#pragma once

#include "core/record/metric.h"
#include "core/record/position.h"
#include "core/record/text/moment.h"

#include <string>
#include <vector>

namespace knot::record {

enum class ShotStatus { counted, setAside, warmUp };

/// What changed just before a shot and cuts the record there: the club that struck it, the player
/// (stance, tuition, an interruption), or the day (wind, light, the balls).
enum class Mark { none, club, player, day };

/// What the player called a shot before its number showed. It counts all the same.
enum class Call { none, good, soSo, bad };

/// When a shot was set aside: not known, called before its number showed, by the card's rule, after
/// its number was seen, or after the reveal. The last two are late.
enum class SetAsideWhen { unknown, called, byRule, afterNumber, afterReveal };

/// One struck shot. Labels are as the file or the bay gave them; empty means "not given".
struct Shot {
    ShotId id = ShotId::none;
    BuildAt build;
    ShotStatus status = ShotStatus::counted;
    SetAsideWhen setAsideWhen = SetAsideWhen::unknown;
    Mark mark = Mark::none;
    bool handedOver = false; ///< the club was logged as handed over anew before this shot
    Call call = Call::none;
    int feel = 0; ///< 1–10; 0 when none was given
    Readings readings;
    std::string number, sitting, player, round, turn;
    std::string delivery, reason, note;
    Moment takenAt;                 ///< when it was struck
    std::string readId;             ///< its name at the source that read it, to know it again; empty by hand
    std::vector<std::string> extra; ///< one cell for each extra column of the test

    bool isSetAsideLate() const {
        return status == ShotStatus::setAside &&
               (setAsideWhen == SetAsideWhen::afterNumber || setAsideWhen == SetAsideWhen::afterReveal);
    }
    bool operator==(const Shot&) const = default;
};

} // namespace knot::record
