#pragma once

#include "core/record/shot.h"

#include <span>
#include <string>
#include <string_view>

namespace knot::record {

/// One field of a shot beside its club, its readings and the test's own columns. Shot files, JSON,
/// the logbook and dialogs go through this one table.
struct ShotField {
    enum class Kind { text, word, flag, score };
    /// Where it is kept in a shot file: with what places the shot, or with what became of it; `never`
    /// for what only this program's own files hold.
    enum class InShotFiles { before, after, never };

    std::string_view key;   ///< heading, JSON member and column
    std::string_view label; ///< in a sentence: "the place in the sitting"
    Kind kind = Kind::text;
    InShotFiles inShotFiles = InShotFiles::after;
    /// As it is written; empty where the shot has what a shot has that says nothing.
    std::string (*text)(const Shot& shot) = nullptr;
    /// Takes what is written; false, and no change, where it is none of the field's words.
    bool (*take)(Shot& shot, std::string_view text) = nullptr;
    std::string_view refused;  ///< "unknown status": how a refusal begins
    std::string_view expected; ///< "counted, set_aside, warm_up or nothing"
};

/// All of them, in the order in which a shot file has them.
std::span<const ShotField> shotFields();
/// The field of a key, or nullptr.
const ShotField* shotFieldNamed(std::string_view key);

} // namespace knot::record
