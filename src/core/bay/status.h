#pragma once

#include "core/record/test.h"

#include <tl/expected.hpp>

#include <cstddef>
#include <string>

namespace knot::bay {

/// What each change in the bay gives: the first shot that is no longer as it was, or the number of
/// shots where none changed.
using From = std::size_t;

/// When a shot is set aside or counted again: before its number showed, after it, or after the reveal.
enum class Moment { beforeNumber, afterNumber, afterReveal };
Moment momentOf(const record::Test& test, bool numberSeen);

/// Why the status of a shot stays as it is.
enum class WhyNot {
    noSuchShot,
    warmUp,      ///< a warm-up swing never counts, so there is nothing to set aside
    sheetKeeps,  ///< the sheet keeps every shot
    alreadyThat, ///< it has that status
    notByHand,   ///< only the bay makes a shot a warm-up swing
    seen         ///< its number was seen, so nobody can call it any more
};

/// The one way in which the status of a shot changes: by a table of what it is, what it becomes and
/// when. Setting aside keeps the moment and the reason with the shot; counting again clears both.
/// Under a rule by numbers one after the number is by that rule.
tl::expected<From, WhyNot> changeStatus(record::Test& test, record::ShotId id, record::ShotStatus to, Moment moment,
                                        const std::string& reason = {});

/// The player calls a shot good, so-so or bad, or takes that back (`none`), before its number shows; it goes
/// on counting as it did. `words` say more of it, and stand as its note.
tl::expected<From, WhyNot> callShot(record::Test& test, record::ShotId id, record::Call call, Moment moment,
                                    const std::string& words = {});

} // namespace knot::bay
