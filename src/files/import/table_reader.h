#pragma once

#include "files/import/shot_file.h"

#include <string>
#include <unordered_map>

namespace knot::files {

/// Where a table stands among the others of a file.
struct Place {
    bool sheetIsClub = false; ///< one of several sheets alike, each named after its club
    bool titleIsClub = false; ///< one of several tables in a sheet: its title may be its club
    bool isFurther = false;   ///< others were read before
};

/// The clubs met so far, by their names as they are looked up.
using ClubsByName = std::unordered_map<std::string, record::BuildAt>;

/// Adds the shots of one table, its columns and what is to be said of it; `file` names it in messages. An error where
/// something can't be understood, or the one who waited gave up.
Result<void> readTable(const std::string& file, const Sheet& sheet, const Place& place, const ReadOptions& options,
                       ImportedTest& imported, ClubsByName& clubs);

} // namespace knot::files
