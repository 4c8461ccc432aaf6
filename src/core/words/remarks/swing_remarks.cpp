#include "core/words/remarks/swing_remarks.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/words/remarks/remark_level.h"

#include <algorithm>
#include <cmath>

namespace knot::words {
namespace {

using namespace judge;
using record::DisplayUnits;
using record::MetricFormat;

// "a", "a and b", "a, b and c"
std::string listed(const std::vector<std::string>& words) {
    std::string text;
    for (std::size_t i = 0; i < words.size(); ++i)
        text += (i == 0 ? "" : i + 1 == words.size() ? " and " : ", ") + words[i];
    return text;
}

std::string causeWord(const std::string& key) {
    if (key == "build")
        return "the club";
    const auto metric = record::metricFromKey(key);
    return metric ? record::info(*metric).label : key;
}

std::string whole(double share) {
    return record::fixed(100 * std::clamp(share, 0.0, 1.0), 0);
}

std::string inPercent(double share) {
    return whole(share) + " %";
}

bool isLookedAt(const Reading& reading, Metric metric) {
    const auto& primary = reading.card.primary;
    return primary.empty() ? metric == Metric::carry : std::ranges::any_of(primary, [&](const Outcome& outcome) {
        return outcome.kind != record::OutcomeKind::area && outcome.kind != record::OutcomeKind::share &&
               outcome.metric == metric;
    });
}

bool isOf(const SameSwing& row, BuildAt build, BuildAt against, SameSwing::Verdict verdict) {
    return row.build == build && row.against == against && row.verdict == verdict;
}

// A difference that may be said: of its own group and of all remarks.
bool differsIn(const SameSwing& row, BuildAt build, BuildAt against, double level) {
    return isOf(row, build, against, SameSwing::Verdict::differs) && row.p.value_or(1) <= level;
}

// What a difference in delivery is put down to, and with what right.
const char* saidOf(SameSwing::Doing doing) {
    switch (doing) {
    case SameSwing::Doing::club:
        return "its doing, by way of the swing.";
    case SameSwing::Doing::clubOrKnowing:
        return "its doing, or of knowing which it was.";
    case SameSwing::Doing::clubOrMoment:
        return "the club or the moment; these laps can't tell. What the ball did may be the swing's doing.";
    case SameSwing::Doing::asSeen:
        break;
    }
    return "as seen. What the ball did may be the swing's doing.";
}

// "has more club speed by 2.1 m/s (2.0 to 2.2)"
std::string differenceText(const SameSwing& row, const DisplayUnits& units) {
    const auto& info = record::info(row.metric);
    const MetricFormat format(row.metric, units);
    std::string text = (row.gap > 0 ? info.more : info.less) + " by " + format.withUnit(std::fabs(row.gap));
    if (row.ci90)
        text += " (" +
                (row.gap > 0 ? format.range(row.ci90->low, row.ci90->high)
                             : format.range(-row.ci90->high, -row.ci90->low)) +
                ")";
    if (row.builtIn)
        text += row.metric == Metric::dynamicLoft ? " than its own loft accounts for" : " than its sleeve accounts for";
    return text;
}

// Of a gap in what the ball did the part that swinging faster or slower makes, where it is sure to have one.
std::string bySpeed(const Reading& reading, const AverageGap& gap, const DisplayUnits& units) {
    const auto at = std::ranges::find_if(reading.parts, [&](const PartsOfGap& row) {
        return row.metric == gap.metric && row.build == gap.build && row.against == gap.against;
    });
    if (at == reading.parts.end())
        return {};
    const auto part = std::ranges::find(at->parts, "club_speed", &PartsOfGap::Part::input);
    if (part == at->parts.end() || !part->ci95 || part->ci95->contains(0) || (part->value > 0) != (gap.gap > 0))
        return {};
    const double level = remarkLevel(reading);
    const auto speed = std::ranges::find_if(reading.sameSwing, [&](const SameSwing& row) {
        return row.metric == Metric::clubSpeed && differsIn(row, gap.build, gap.against, level);
    });
    if (speed == reading.sameSwing.end())
        return {};
    const MetricFormat format = MetricFormat(gap.metric, units).supportedBy(gap.se.value_or(0));
    return ", " + format.withUnit(std::fabs(part->value)) + " of it by swinging " +
           (speed->gap > 0 ? "faster" : "slower");
}

} // namespace

std::string throughSwing(const Reading& reading, const AverageGap& gap, const DisplayUnits& units) {
    const auto differs = std::ranges::find_if(reading.sameSwing, [&](const SameSwing& row) {
        return isOf(row, gap.build, gap.against, SameSwing::Verdict::differs);
    });
    if (differs == reading.sameSwing.end())
        return {};
    const double level = remarkLevel(reading);
    if (std::ranges::none_of(reading.sameSwing,
                             [&](const SameSwing& row) { return differsIn(row, gap.build, gap.against, level); }))
        return {};
    const bool isItsDoing =
        differs->doing == SameSwing::Doing::club || differs->doing == SameSwing::Doing::clubOrKnowing;
    return isItsDoing ? "by way of the swing" + bySpeed(reading, gap, units) : "the swing differed too";
}

std::vector<Remark> sameSwing(const Reading& reading, const DisplayUnits& units) {
    std::vector<std::pair<BuildAt, BuildAt>> pairs;
    for (const SameSwing& row : reading.sameSwing)
        if (std::ranges::find(pairs, std::pair(row.build, row.against)) == pairs.end())
            pairs.emplace_back(row.build, row.against);
    std::vector<Remark> said;
    std::vector<std::string> open;
    const double level = remarkLevel(reading);
    for (const auto& [build, against] : pairs) {
        std::vector<std::string> differs;
        std::vector<std::string> same;
        SameSwing::Doing doing = SameSwing::Doing::asSeen;
        for (const SameSwing& row : reading.sameSwing)
            if (differsIn(row, build, against, level)) {
                differs.push_back(differenceText(row, units));
                doing = row.doing;
            } else if (isOf(row, build, against, SameSwing::Verdict::same)) {
                same.push_back(record::info(row.metric).label);
            }
        const std::string& own = reading.builds[build].name;
        const std::string& other = reading.builds[against].name;
        const std::string pair = own + " against " + other;
        if (!differs.empty())
            said.push_back({"swing_differs", doing == SameSwing::Doing::club ? Severity::note : Severity::caution,
                            "Against " + other + ", " + own + " " + listed(differs) + ": " + saidOf(doing)});
        if (!same.empty())
            said.push_back({"swing_same", Severity::note, "Delivered alike, " + pair + ": in " + listed(same) + "."});
        if (differs.empty() && same.empty())
            open.push_back(pair);
    }
    if (!open.empty())
        said.push_back({"swing_open", Severity::note,
                        "Whether they were delivered alike is not settled" +
                            (open.size() == pairs.size() && open.size() > 1 ? "." : ", " + listed(open) + ".")});
    return said;
}

std::vector<Remark> whoseDoing(const Reading& reading, std::optional<Metric> only) {
    std::vector<Remark> said;
    for (const WhoseDoing& whose : reading.whoseDoing) {
        if (only ? whose.metric != *only : !isLookedAt(reading, whose.metric))
            continue;
        std::vector<std::string> parts;
        parts.reserve(whose.shares.size() + 1);
        for (const WhoseDoing::Part& part : whose.shares)
            parts.push_back(causeWord(part.cause) + " " + inPercent(part.share) +
                            (part.ci95 ? " (" + whole(part.ci95->low) + " to " + whole(part.ci95->high) + ")" : ""));
        parts.push_back("not explained " + inPercent(whose.rest));
        std::string text = "What moves " + record::info(whose.metric).label + " from shot to shot: " + listed(parts) +
                           ", over " + record::counted(whose.n, "shot");
        std::vector<std::string> missing;
        missing.reserve(whose.leftOut.size());
        for (const Metric metric : whose.leftOut)
            missing.push_back(record::info(metric).label);
        if (!missing.empty())
            text += "; " + listed(missing) + (missing.size() == 1 ? " was" : " were") + " not read often enough";
        said.push_back({"whose_doing", Severity::note, text + "."});
    }
    return said;
}

} // namespace knot::words
