#include "core/record/text/moment.h"

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <chrono>
#include <string_view>

namespace knot::record {
namespace {

struct Moment {
    double local = 0;             ///< seconds from 1970 by the clock on the wall
    std::optional<double> offset; ///< seconds that the wall's clock is ahead of UTC
};

// "Z", "+02:00", "-04:00".
std::optional<double> offsetIn(std::string_view text) {
    if (text == "Z")
        return 0;
    if (text.size() != 6 || text[3] != ':')
        return std::nullopt;
    const auto hours = wholeIn(text.substr(1, 2));
    const auto minutes = wholeIn(text.substr(4, 2));
    if (!hours || !minutes || *hours > 18 || *minutes > 59)
        return std::nullopt;
    return (text[0] == '-' ? -1 : 1) * (*hours * 3600.0 + *minutes * 60.0);
}

std::optional<Moment> momentIn(std::string_view text) {
    if (text.size() < 19 || text[4] != '-' || text[7] != '-' || text[10] != 'T' || text[13] != ':' || text[16] != ':')
        return std::nullopt;
    Moment moment;
    if (const auto zone = text.find_first_of("Z+-", 19); zone != std::string_view::npos) {
        moment.offset = offsetIn(text.substr(zone));
        if (!moment.offset)
            return std::nullopt;
        text = text.substr(0, zone);
    }
    const auto year = wholeIn(text.substr(0, 4));
    const auto month = wholeIn(text.substr(5, 2));
    const auto date = wholeIn(text.substr(8, 2));
    const auto hours = wholeIn(text.substr(11, 2));
    const auto minutes = wholeIn(text.substr(14, 2));
    const auto seconds = numberIn(text.substr(17));
    const bool endsInDigit = text.back() >= '0' && text.back() <= '9';
    if (!year || !month || !date || !hours || !minutes || !seconds || !endsInDigit)
        return std::nullopt;
    using namespace std::chrono;
    const year_month_day day(std::chrono::year(*year), std::chrono::month(static_cast<unsigned>(*month)),
                             std::chrono::day(static_cast<unsigned>(*date)));
    if (!day.ok() || *hours > 23 || *minutes > 59 || !(*seconds >= 0 && *seconds < 61))
        return std::nullopt;
    const auto days = sys_days(day).time_since_epoch().count();
    moment.local = static_cast<double>(days) * 86400.0 + *hours * 3600.0 + *minutes * 60.0 + *seconds;
    return moment;
}

} // namespace

std::optional<double> secondsOf(const std::string& isoTime) {
    const auto moment = momentIn(isoTime);
    return moment ? std::optional(moment->local - moment->offset.value_or(0)) : std::nullopt;
}

std::optional<double> secondsBetween(const std::string& from, const std::string& to) {
    const auto first = momentIn(from);
    const auto second = momentIn(to);
    if (!first || !second)
        return std::nullopt;
    const double firstOffset = first->offset.value_or(second->offset.value_or(0));
    const double secondOffset = second->offset.value_or(firstOffset);
    return (second->local - secondOffset) - (first->local - firstOffset);
}

bool isEarlier(const std::string& moment, const std::string& other) {
    const auto apart = secondsBetween(moment, other);
    return apart && *apart > 0;
}

std::string momentShown(const std::string& isoTime) {
    return momentIn(isoTime) ? isoTime.substr(0, 10) + ' ' + isoTime.substr(11, 5) : isoTime;
}

} // namespace knot::record
