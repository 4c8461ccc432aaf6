#include "core/record/moment.h"

#include "core/record/number_text.h"

#include <charconv>
#include <chrono>

namespace knot::record {

std::optional<double> secondsOf(const std::string& text) {
    if (text.size() < 19 || text[4] != '-' || text[7] != '-' || text[10] != 'T' || text[13] != ':' || text[16] != ':')
        return std::nullopt;
    bool sound = true;
    auto whole = [&](std::size_t at, std::size_t length) {
        int value = 0;
        const char* const end = text.data() + at + length;
        const auto read = std::from_chars(text.data() + at, end, value);
        sound = sound && read.ec == std::errc() && read.ptr == end && value >= 0;
        return value;
    };
    using namespace std::chrono;
    const year_month_day day(year(whole(0, 4)), month(static_cast<unsigned>(whole(5, 2))),
                             std::chrono::day(static_cast<unsigned>(whole(8, 2))));
    const int hours = whole(11, 2);
    const int minutes = whole(14, 2);
    const auto seconds = numberIn(text.substr(17));
    if (!sound || !day.ok() || hours > 23 || minutes > 59 || !seconds || !(*seconds >= 0 && *seconds < 61))
        return std::nullopt;
    const auto days = sys_days(day).time_since_epoch().count();
    return static_cast<double>(days) * 86400.0 + hours * 3600.0 + minutes * 60.0 + *seconds;
}

} // namespace knot::record
