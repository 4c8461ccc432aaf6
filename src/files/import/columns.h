#pragma once

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"
#include "files/base/error.h"
#include "files/import/cells/moment_cell.h"
#include "files/import/forms/sheet.h"
#include "files/import/headings/vocabulary.h"

#include <map>
#include <string>
#include <vector>

namespace knot::files {

struct TableAt;

/// Headings by hand: the heading in the file → a canonical name such as `carry_yd` or `build`, or
/// nothing to keep it as text.
using HeadingMap = std::map<std::string, std::string>;

/// What a column was taken for, and how that is known.
struct ColumnTaken {
    ColumnMeaning meaning;
    std::string sample;               ///< one of its values
    std::string why;                  ///< where the heading alone does not say it: "mph by the values"
    std::string question;             ///< asked where two answers are possible; empty where none is
    std::vector<std::string> choices; ///< canonical names, the first as it was taken; "" is text
    Error unanswered;                 ///< what is said where nobody can be asked
    record::DecimalMark mark = record::DecimalMark::open; ///< of its numbers
    DateOrder order = DateOrder::yearFirst;               ///< of its dates
    std::optional<std::size_t> sides;                     ///< the column beside it that says left and right
    std::optional<std::size_t> sideSpin;                  ///< of back spin: the column of the side spin
    bool isByHand = false;
    bool isOfValues = false; ///< what is asked hangs on what stands in this file, and says nothing of the next one

    bool isAsked() const { return !question.empty(); }
};

/// A heading of the test's own text as our files write it: with " (text)" behind it where it could be read
/// as something else.
std::string asTextHeading(const std::string& heading);

/// Decides what the columns of a table are: by their headings, by their values where the headings leave
/// it open, and by each other. `place` names the file for what is said of a column.
std::vector<ColumnTaken> understandColumns(const Sheet& sheet, const TableAt& table, const HeadingMap& map,
                                           const std::string& file);

} // namespace knot::files
