#pragma once

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"
#include "core/record/units.h"

#include <optional>
#include <string_view>
#include <tl/expected.hpp>

namespace knot::files {

/// A reading as a cell has it: "12.3", "−4", "12.3 L", "R 4", "155 yd", "12.3°", "148 %".
struct CellNumber {
    double value = 0;                 ///< left and the like negative; a percentage as its share of one
    std::optional<record::Unit> unit; ///< where the cell itself says it
    bool isSided = false;             ///< the cell itself says to which side
    bool isHinged = false;            ///< by the letter O or C, open or closed: of a face alone
};

/// The number in a cell (without white space around it), read with this decimal mark.
tl::expected<CellNumber, record::NumberFault> numberOfCell(std::string_view cell, record::DecimalMark mark);

/// What a cell's number tells of the decimal mark of its column; nothing where it tells nothing.
std::optional<record::DecimalMark> decimalMarkOfCell(std::string_view cell);

} // namespace knot::files
