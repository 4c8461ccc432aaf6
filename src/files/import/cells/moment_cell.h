#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace knot::files {

/// Which part of a date that is written in figures comes first.
enum class DateOrder { yearFirst, dayFirst, monthFirst };

/// A date, a time of day, or both, as a cell writes them.
struct MomentCell {
    std::string date; ///< "2031-05-04"; empty where the cell has none
    std::string time; ///< "14:05:09.5", with a zone where the cell has one; empty where it has none
};

/// "2031-05-04T14:05:09+02:00", "4.5.2031 14.05", "5/4/31 2:05 PM", "4 May 2031", "14:05:09", a
/// spreadsheet's "20310504", "20310504T140509", seconds or milliseconds since 1970 (in UTC), a spreadsheet's bare day
/// number "45123.59". Nothing where the cell is none of these.
std::optional<MomentCell> momentOfCell(std::string_view cell, DateOrder order);

/// A spreadsheet's day number, counted from 1900 or 1904, as ISO 8601: the day alone, a time of day alone, or both;
/// empty where it is none.
std::string momentOfSerial(double serial, bool from1904);

/// Whether a cell is written as a date, and the calendar has no such day: "31/02/2026".
bool isNoDay(std::string_view cell);

/// The order that a date in figures tells: the year in front, or a number that no month has.
std::optional<DateOrder> dateOrderTold(std::string_view cell);

} // namespace knot::files
