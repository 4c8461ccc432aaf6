#include "core/words/remarks/feels.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/words/remarks/remark_level.h"

namespace knot::words {

const char* feelWord(record::FeelScale scale) {
    switch (scale) {
    case record::FeelScale::liveliness:
        return "liveliness";
    case record::FeelScale::weight:
        return "weight in the head";
    case record::FeelScale::harshness:
        return "harshness";
    case record::FeelScale::control:
        return "control";
    case record::FeelScale::look:
        return "look";
    case record::FeelScale::confidence:
        return "confidence";
    case record::FeelScale::sound:
        return "sound";
    case record::FeelScale::effort:
        return "effort";
    case record::FeelScale::discomfort:
        return "discomfort";
    }
    return "";
}

std::string feelText(const record::Feel& feel) {
    std::string text;
    auto add = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
    if (!feel.words.empty())
        add("“" + feel.words + "”");
    if (!feel.expected.empty())
        add("expected: " + feel.expected);
    for (std::size_t i = 0; i < record::feelScaleCount; ++i)
        if (feel.scores[i] > 0)
            add(std::string(feelWord(static_cast<record::FeelScale>(i))) + " " + std::to_string(feel.scores[i]));
    switch (feel.versus) {
    case record::Versus::notSaid:
        break;
    case record::Versus::better:
        add("better than the one before");
        break;
    case record::Versus::worse:
        add("worse than the one before");
        break;
    case record::Versus::same:
        add("can't tell from the one before");
        break;
    }
    return text;
}

namespace {

using namespace judge;
using record::counted;

constexpr std::size_t fewestCompared = 3; // of fewer luck has nothing to say

class Said {
public:
    Said(const Reading& reading, double level)
        : m_reading(reading)
        , m_level(level) {}

    std::vector<Remark> all() {
        feels();
        versus();
        expected();
        return std::move(m_remarks);
    }

private:
    void add(const char* code, Severity severity, std::string text) {
        m_remarks.push_back({code, severity, record::upperFirst(std::move(text))});
    }
    const std::string& name(BuildAt build) const { return m_reading.builds[build].name; }
    static const std::string& label(Metric metric) { return record::info(metric).label; }
    std::string pair(BuildAt build, BuildAt against) const { return name(build) + " against " + name(against); }

    void feels() {
        for (const FeelGap& gap : m_reading.feelGaps)
            if (gap.p && *gap.p <= m_level)
                add("feel_gap", Severity::note,
                    "In " + std::string(feelWord(gap.scale)) + " " + name(gap.build) + " was marked " +
                        record::fixed(std::fabs(gap.gap), 1) + (gap.gap > 0 ? " higher than " : " lower than ") +
                        name(gap.against) + " over " + counted(gap.stints, "stint") + ".");
        for (const FeelLikeness& one : m_reading.feelLikeness)
            add("feel_likeness", Severity::note,
                "Blind, " + std::string(feelWord(one.scale)) + " was marked " +
                    (one.icc > 0.6   ? "alike for the same club again"
                     : one.icc > 0.3 ? "somewhat alike for the same club again"
                                     : "no more alike for the same club than for another") +
                    " (" + counted(one.stints, "stint") + ").");
        for (const FeelRank& rank : m_reading.feelRanks)
            if (rank.p && *rank.p <= m_level)
                add("feel_rank", Severity::note,
                    std::string(feelWord(rank.scale)) + (rank.rho > 0 ? " rises with " : " falls with ") +
                        label(rank.metric) + " from stint to stint (rank correlation " + record::fixed(rank.rho, 2) +
                        ", " + counted(rank.stints, "stint") + ").");
    }

    void versus() {
        for (const VersusCount& count : m_reading.versus)
            add("versus", Severity::note,
                name(count.build) + " was called better than " + name(count.against) + " " +
                    counted(count.better, "time") + ", worse " + counted(count.worse, "time") +
                    (count.same > 0 ? ", and " + counted(count.same, "time") + " nobody could tell" : "") +
                    (count.better + count.worse < fewestCompared
                         ? "."
                         : "; luck does that " + record::fixed(100 * count.p, 0) + " times in 100."));
    }

    void expected() {
        for (const Expected& one : m_reading.expected) {
            const char* said = one.said == record::Expectation::up     ? "more"
                               : one.said == record::Expectation::down ? "less"
                                                                       : "no change";
            const char* found = one.found == Expected::Found::asExpected           ? "found as expected"
                                : one.found == Expected::Found::otherWay           ? "it was the other way"
                                : one.found == Expected::Found::nothingThatMatters ? "nothing that matters was there"
                                                                                   : "not settled";
            add("expected", Severity::note,
                "Expected of " + label(one.metric) + ", " + pair(one.build, one.against) + ": " + said + "; " + found +
                    ".");
        }
        if (const auto& order = m_reading.expectedOrder)
            add("expected_order", Severity::note, expectedOrderText(*order));
    }

    std::string expectedOrderText(const ExpectedOrder& order) const {
        std::string said;
        for (const BuildAt build : order.said)
            said += (said.empty() ? "" : ", then ") + name(build);
        std::string found;
        auto part = [&](std::size_t pairs, const char* what) {
            if (pairs > 0)
                found += (found.empty() ? "" : ", ") + std::to_string(pairs) + " " + what;
        };
        part(order.asExpected, "found as expected");
        part(order.otherWay, "the other way");
        part(order.nothingThatMatters, "without a gap that matters");
        part(order.notSettled, "not settled");
        const std::string& by = m_reading.card.expectedBy;
        return "Expected " + (by.empty() ? "" : "by " + by + " ") + "in " + record::outcomeLabel(order.outcome) + ": " +
               said + ". Of the pairs that were compared: " + (found.empty() ? "none" : found) + ".";
    }

    const Reading& m_reading;
    double m_level;
    std::vector<Remark> m_remarks;
};

} // namespace

std::vector<Remark> saidRemarks(const Reading& reading, double level) {
    return Said(reading, level).all();
}

} // namespace knot::words
