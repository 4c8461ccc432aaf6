#include "core/words/swing_remarks.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>

namespace knot::words {
namespace {

using namespace judge;

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
    return record::fixed(100 * std::max(share, 0.0), 0);
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

} // namespace

bool swingDiffers(const Reading& reading, BuildAt build, BuildAt against) {
    return std::ranges::any_of(reading.sameSwing, [&](const SameSwing& row) {
        return row.build == build && row.against == against && row.verdict == SameSwing::Verdict::differs;
    });
}

std::vector<Remark> sameSwing(const Reading& reading) {
    std::vector<std::pair<BuildAt, BuildAt>> pairs;
    for (const SameSwing& row : reading.sameSwing)
        if (std::ranges::find(pairs, std::pair(row.build, row.against)) == pairs.end())
            pairs.emplace_back(row.build, row.against);
    std::vector<Remark> said;
    for (const auto& [build, against] : pairs) {
        auto in = [&, build = build, against = against](SameSwing::Verdict verdict) {
            std::vector<std::string> words;
            for (const SameSwing& row : reading.sameSwing)
                if (row.build == build && row.against == against && row.verdict == verdict)
                    words.push_back(record::info(row.metric).label);
            return words;
        };
        const auto differs = in(SameSwing::Verdict::differs);
        const auto same = in(SameSwing::Verdict::same);
        const std::string pair = reading.builds[build].name + " against " + reading.builds[against].name;
        if (!differs.empty())
            said.push_back({"swing_differs", Severity::caution,
                            "The swing differed, " + pair + ": in " + listed(differs) +
                                ". What the ball did may be the swing's doing."});
        if (!same.empty())
            said.push_back({"swing_same", Severity::note, "Delivered alike, " + pair + ": in " + listed(same) + "."});
        if (differs.empty() && same.empty())
            said.push_back(
                {"swing_open", Severity::note, "Whether they were delivered alike is not settled, " + pair + "."});
    }
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
