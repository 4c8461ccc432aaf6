#include "core/record/text/moment.h"

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <chrono>
#include <string_view>

namespace knot::record {
namespace {

struct Read {
    double local = 0;
    std::optional<double> offset;
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

std::optional<Read> momentIn(std::string_view text) {
    if (text.size() < 19 || text[4] != '-' || text[7] != '-' || text[10] != 'T' || text[13] != ':' || text[16] != ':')
        return std::nullopt;
    Read moment;
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

Moment::Moment(std::string text)
    : m_text(std::move(text)) {
    if (const auto read = momentIn(m_text)) {
        m_local = read->local;
        m_offset = read->offset;
    }
}

std::optional<double> Moment::seconds() const {
    return m_local ? std::optional(*m_local - m_offset.value_or(0)) : std::nullopt;
}

std::string Moment::shown() const {
    return m_local ? m_text.substr(0, 10) + ' ' + m_text.substr(11, 5) : m_text;
}

std::optional<double> secondsBetween(const Moment& from, const Moment& to) {
    if (!from.m_local || !to.m_local)
        return std::nullopt;
    const double first = from.m_offset.value_or(to.m_offset.value_or(0));
    const double second = to.m_offset.value_or(first);
    return (*to.m_local - second) - (*from.m_local - first);
}

bool isEarlier(const Moment& moment, const Moment& other) {
    const auto apart = secondsBetween(moment, other);
    return apart && *apart > 0;
}

} // namespace knot::record
