#pragma once

#include "files/import/table.h"

#include <string>
#include <vector>

namespace knot::files {

/// What a row under the headings is.
enum class RowKind {
    shot,
    blank,    ///< nothing, or lines of dashes
    summary,  ///< averages and the like: by their name in any of nine languages, or because the figures are those of
              ///< the rows around
    headings, ///< the headings once more
    group,    ///< a club's name by itself, for the rows under it
    remark    ///< text without a reading: a footer, a club that nothing was measured of
};

/// What the rows from `table.first` on are; `columns` says where a shot's club and place stand.
/// A row whose readings are all something else than numbers is a remark, or a shot to be refused.
enum class Unread { isRemark, isShot };
std::vector<RowKind> rowKinds(const Sheet& sheet, const TableAt& table, const std::vector<ColumnTaken>& columns,
                              Unread unread = Unread::isRemark);

} // namespace knot::files
