#include "core/words/remarks/shot_remarks.h"

#include "core/record/text/number_text.h"
#include "core/record/text/table.h"
#include "core/record/text/text.h"
#include "core/words/averages.h"
#include "core/words/remarks/feels.h"
#include "core/words/remarks/remark_level.h"

#include <algorithm>
#include <cmath>
#include <string_view>

namespace knot::embedded {
extern const std::string_view stepTable; // data/steps.csv
}

namespace knot::words {
namespace {

using namespace judge;

using record::counted;
using record::DisplayUnits;
using record::MetricFormat;

constexpr double usually = 0.05;

// What lies between one club of a bag and the next, m, where the shorter one carries so far: data/steps.csv.
double carryStep(double carry) {
    static const auto rows = record::tableRows(embedded::stepTable, 2);
    double step = record::tableNumber(rows.front()[1]);
    for (const auto& row : rows)
        if (carry >= record::tableNumber(row[0]))
            step = record::tableNumber(row[1]);
    return step;
}

std::string percent(double share) {
    return record::fixed(100 * share, 0);
}

std::string percentRange(const Interval& interval) {
    return percent(interval.low) + " to " + percent(interval.high);
}

std::string inputWord(const std::string& key) {
    if (const auto metric = record::metricFromKey(key))
        return record::info(*metric).label;
    std::string word = key;
    std::ranges::replace(word, '_', ' ');
    return word;
}

class ShotRemarks {
public:
    ShotRemarks(const Reading& reading, const DisplayUnits& units, double level)
        : m_reading(reading)
        , m_units(units)
        , m_level(level) {}

    std::vector<Remark> all() {
        unread();
        if (m_reading.bySetting.empty())
            ofShots();
        for (const OfSetting& setting : m_reading.bySetting)
            for (Remark remark : ShotRemarks(setting.reading, m_units, m_level).ofOne()) {
                remark.text = setting.name + ": " + remark.text;
                m_remarks.push_back(std::move(remark));
            }
        changedAlone();
        speedInCarry();
        usualNumbers();
        equalElsewhere();
        mishits();
        scatter();
        parts();
        weightOrder();
        tails();
        landings();
        findings();
        std::ranges::move(saidRemarks(m_reading, m_level), std::back_inserter(m_remarks));
        return std::move(m_remarks);
    }

private:
    // Of a club alone what a change did; of several the page of single runs says it.
    void changedAlone() {
        if (m_reading.singleRuns.empty())
            for (const Metric metric : {Metric::carry, Metric::ballSpeed})
                for (const std::string& text : againText(m_reading, metric, m_units))
                    add("changed", Severity::note, text);
    }

    // What is said of shots is said of each player and delivery by themselves.
    std::vector<Remark> ofOne() {
        ofShots();
        return std::move(m_remarks);
    }

    void ofShots() {
        extremes();
        beats();
        called();
        misses();
        setAsideShares();
    }

    void extremes() {
        for (const Summary& one : m_reading.summary) {
            if (!isLookedAt(one.metric) || one.n < 2)
                continue;
            const MetricFormat format(one.metric, m_units);
            add("extremes", Severity::note,
                label(one.metric) + " with " + name(one.build) + ": from " + format.number(one.min) + " (shot " +
                    std::to_string(one.minShot) + ") to " + format.withUnit(one.max) + " (shot " +
                    std::to_string(one.maxShot) + "); without the fifth at either end on average " +
                    format.withUnit(one.trimmedMean) + ".");
        }
    }

    void weightOrder() {
        const auto& order = m_reading.weightOrder;
        if (!order || order->numbers == 0)
            return;
        add("weight_order", Severity::note,
            "In " + std::to_string(order->numbers) + " of " + counted(order->of, "number") +
                " the clubs' order is that of their weight, one way or the other; luck does that " +
                (order->p > 0.995 ? "always." : percent(order->p) + " times in 100."));
    }

    void speedInCarry() {
        if (!m_reading.carryPerBallSpeed || !(isLookedAt(Metric::carry) || isLookedAt(Metric::ballSpeed)))
            return;
        const MetricFormat speed(Metric::ballSpeed, m_units);
        const MetricFormat carry(Metric::carry, m_units);
        const double one = speed.internal(1);
        const Interval& within = m_reading.carryPerBallSpeedWithin;
        add("speed_in_carry", Severity::note,
            "Inside stints 1 " + speed.unitText() + " of ball speed went with " +
                carry.withUnit(*m_reading.carryPerBallSpeed * one) + " of carry (" +
                carry.range(within.low * one, within.high * one) + ").");
    }

    void add(const char* code, Severity severity, std::string text) {
        m_remarks.push_back({code, severity, record::upperFirst(std::move(text))});
    }
    const std::string& name(BuildAt build) const { return m_reading.builds[build].name; }
    static const std::string& label(Metric metric) { return record::info(metric).label; }
    bool isDeclared(Metric metric) const {
        return std::ranges::any_of(m_reading.card.primary, [&](const Outcome& o) {
            return o.kind != record::OutcomeKind::area && o.kind != record::OutcomeKind::share && o.metric == metric;
        });
    }
    // The declared numbers, else what people look at first.
    bool isLookedAt(Metric metric) const {
        return isDeclared(metric) || (m_reading.card.primary.empty() && metric == Metric::carry);
    }
    std::string pair(BuildAt build, BuildAt against) const { return name(build) + " against " + name(against); }
    MetricFormat formatOf(Metric metric, double error) const {
        return MetricFormat(metric, m_units).supportedBy(error);
    }

    void unread() {
        for (const Unread& row : m_reading.unread) {
            if (row.p >= usually)
                continue;
            const std::size_t struck = row.ofBuild.struck + row.ofAgainst.struck;
            const std::size_t off = row.ofBuild.offMiddle + row.ofAgainst.offMiddle;
            std::string text = label(row.metric) + " is missing on " + std::to_string(row.ofBuild.unread) + " of " +
                               std::to_string(row.ofBuild.n) + " shots with " + name(row.build) + " and on " +
                               std::to_string(row.ofAgainst.unread) + " of " + std::to_string(row.ofAgainst.n) +
                               " with " + name(row.against);
            if (struck > 0 && off == struck)
                text += ", all of them off the middle";
            else if (struck > 0)
                text += ", " + std::to_string(off) + " of " + std::to_string(struck) + " off the middle";
            add("unread_differs", Severity::caution, text + ": the gap may be in which shots were read.");
        }
    }

    // Both the average as struck and at equal delivery stand in the reading; one of them decides.
    void equalElsewhere() {
        for (const AverageGap& row : m_reading.average) {
            if (row.kind != record::OutcomeKind::equal)
                continue;
            const AverageGap* struck = m_reading.averageOf(row.metric, row.build, row.against);
            if (struck == nullptr || !row.se)
                continue;
            std::string held;
            for (const Metric metric : m_reading.card.covariates)
                held += (held.empty() ? "" : " and ") + label(metric);
            const MetricFormat format = formatOf(row.metric, *row.se);
            add("equal_delivery", Severity::note,
                "With the same " + held + ", the gap in " + label(row.metric) + ", " + pair(row.build, row.against) +
                    ", is " + format.withUnit(row.gap) + "; as struck it is " + format.withUnit(struck->gap) +
                    ". That is another question, and what was declared decides.");
        }
    }

    void mishits() {
        for (const AverageGap& row : m_reading.average)
            if (const auto& own = row.details.mishitsBuild, &other = row.details.mishitsAgainst;
                own && other && own->hits + other->hits > 0)
                add("mishits", Severity::note,
                    "Far from its typical " + label(row.metric) + ", on the wrong side: " + std::to_string(own->hits) +
                        " of " + std::to_string(own->n) + " with " + name(row.build) + ", " +
                        std::to_string(other->hits) + " of " + std::to_string(other->n) + " with " + name(row.against) +
                        ". The typical shot does not excuse them.");
    }

    void usualNumbers() {
        for (const UsualNumber& usual : m_reading.usual) {
            const double off = usual.first - usual.usual;
            if (!usual.outside()) {
                if (isLookedAt(usual.metric))
                    add("like_usual", Severity::note,
                        "The first stint with " + name(usual.build) + " lies where the player's usual " +
                            label(usual.metric) + " lets it: " + MetricFormat(usual.metric, m_units).signedNumber(off) +
                            " " + MetricFormat(usual.metric, m_units).unitText() + " off it.");
                continue;
            }
            add("unlike_usual", Severity::caution,
                "The first stint with " + name(usual.build) + " is " +
                    MetricFormat(usual.metric, m_units).withUnit(std::fabs(off)) + " of " + label(usual.metric) +
                    (off < 0 ? " under" : " over") +
                    " what is usual for the player: cold, another ball, another device?");
        }
        for (const UsualBet& bet : m_reading.usualBets)
            if (isLookedAt(bet.metric))
                add("usual_bet", Severity::note, usualBetText(bet));
    }

    std::string usualBetText(const UsualBet& bet) const {
        const bool near =
            m_reading.card.want({.kind = record::OutcomeKind::average, .metric = bet.metric, .shape = {}}).kind ==
            record::Want::Kind::near;
        const MetricFormat format = MetricFormat(bet.metric, m_units).supportedBy(bet.sd);
        return name(bet.against) + " was not hit. Against what is usual of it (" + format.withUnit(bet.usual) + " of " +
               label(bet.metric) + ", " +
               (bet.sittings == 0 ? "as noted" : "from " + counted(bet.sittings, "earlier sitting")) + ") " +
               name(bet.build) + (near ? " is nearer " : " is ahead ") + record::fixed(100 * bet.ahead, 0) +
               " times in 100, by " + format.signedNumber(bet.expected) + " (" + format.range(bet.low80, bet.high80) +
               ") " + format.unitText() + ". Another day is no fair comparison: a bet, never a finding.";
    }

    // What comes with the factor in weight, and what that could do by itself.
    void weights(const PartsOfGap::OfMass& of, Metric metric) {
        const MetricFormat format(metric, m_units);
        if (of.head && of.value && of.ballSpeed)
            add("parts_of_head_mass", Severity::note,
                "The " + record::fixed(std::fabs(*of.head), 0) + " g " + (*of.head > 0 ? "more" : "less") +
                    " at the head alone would be about " +
                    MetricFormat(Metric::ballSpeed, m_units).signedNumber(*of.ballSpeed) + " " +
                    MetricFormat(Metric::ballSpeed, m_units).unitText() + " of ball speed and " +
                    format.signedNumber(*of.value) + " " + format.unitText() + " of " + label(metric) +
                    " at the same club speed, by a model of the impact.");
        std::string text;
        if (of.swingWeight)
            text = record::fixed(std::fabs(*of.swingWeight), 1) + " points " + (*of.swingWeight > 0 ? "more" : "less") +
                   " swing weight";
        if (of.whole)
            text += (text.empty() ? "" : " and ") + record::fixed(std::fabs(*of.whole), 0) + " g " +
                    (*of.whole > 0 ? "more" : "less") + " club";
        if (!text.empty())
            add("parts_of_weight", Severity::note,
                "With it come " + text +
                    ": by the models nothing at the same club speed; what they do to the swing, only "
                    "the shots can show.");
    }

    static bool isFound(Verdict verdict) {
        return verdict == Verdict::real || verdict == Verdict::realSizeOpen || verdict == Verdict::slight;
    }

    // A gap of fewer shots than the ledger's own says so.
    static std::string overShots(const PartsOfGap& row, const AverageGap* gap) {
        return gap == nullptr || row.n == gap->shotsBuild + gap->shotsAgainst
                   ? ""
                   : ", over the " + counted(row.n, "shot") + " that have all of it";
    }

    void parts() {
        for (const PartsOfGap& row : m_reading.parts) {
            if (!isLookedAt(row.metric))
                continue;
            const double margin = m_reading.card.margin(row.metric);
            if (row.ofMass && std::fabs(row.ofMass->value.value_or(row.measured)) >= 0.25 * margin)
                weights(*row.ofMass, row.metric);
            if (std::fabs(row.measured) < 0.5 * margin)
                continue;
            const MetricFormat format(row.metric, m_units);
            auto sized = [&](double value, const std::optional<Interval>& within) {
                return format.signedNumber(value) +
                       (within ? " (" + format.range(within->low, within->high) + ")" : "");
            };
            std::string text;
            for (const PartsOfGap::Part& part : row.parts)
                text += (text.empty() ? "" : ", ") + inputWord(part.input) + " " + sized(part.value, part.ci95);
            const AverageGap* gap = m_reading.averageOf(row.metric, row.build, row.against);
            const bool isThere = gap != nullptr && isFound(gap->claim.verdict);
            add("parts", Severity::note,
                "Where the gap in " + label(row.metric) + (isThere ? " comes from, " : " would come from, ") +
                    pair(row.build, row.against) + ", by a model of flight: " + text + ", not explained " +
                    sized(row.rest, row.restInterval) + "; in all " + format.signedNumber(row.measured) + " " +
                    format.unitText() + overShots(row, gap) + ".");
            if (row.ofLoft)
                add("parts_of_loft", Severity::note,
                    "The " + record::fixed(std::fabs(row.ofLoft->loft), 1) + "° " +
                        (row.ofLoft->loft > 0 ? "more" : "less") + " loft alone would be about " +
                        MetricFormat(Metric::launch, m_units).signedNumber(row.ofLoft->launch) + "° of launch, " +
                        MetricFormat(Metric::spin, m_units).signedNumber(row.ofLoft->spin) + " " +
                        MetricFormat(Metric::spin, m_units).unitText() + " and " +
                        format.signedNumber(row.ofLoft->value) + " " + format.unitText() + " of " + label(row.metric) +
                        ", by a model of the impact.");
        }
    }

    // A gap beside what the player's shots scatter by anyway.
    void scatter() {
        for (const AverageGap& row : m_reading.average) {
            const Summary* summary = m_reading.summaryOf(row.metric, row.against);
            if (row.kind != record::OutcomeKind::average || !isLookedAt(row.metric) || summary == nullptr ||
                !summary->withinTurnSd || !(*summary->withinTurnSd > 0))
                continue;
            const double share = std::fabs(row.gap) / *summary->withinTurnSd;
            const double clubs = row.metric == Metric::carry
                                     ? std::fabs(row.gap) / m_reading.bagStep.value_or(carryStep(summary->mean))
                                     : 0;
            add("beside_scatter", Severity::note,
                "The gap in " + label(row.metric) + ", " + pair(row.build, row.against) + ", is " +
                    record::fixed(share, share < 1.95 ? 1 : 0) + " times what shots inside a stint vary by" +
                    (clubs >= 0.25 ? ", and " + record::fixed(clubs, 1) +
                                         (m_reading.bagStep ? " of the step between clubs of their own bag."
                                                            : " of the step from club to club.")
                                   : "."));
        }
    }

    void beats() {
        for (const Beats& row : m_reading.beats)
            if (isLookedAt(row.metric))
                add("beats", Severity::note,
                    "A shot with " + name(row.build) + " passes one with " + name(row.against) + " in " +
                        label(row.metric) + " " + timesIn100(row.chance) + " times in 100" +
                        (row.ci95 ? " (" + percentRange(*row.ci95) + ")." : "."));
        for (const TenShots& row : m_reading.tenShots)
            if (row.metric == Metric::ballSpeed && m_reading.carryPerBallSpeed && *m_reading.carryPerBallSpeed > 0) {
                const double carry = row.range * *m_reading.carryPerBallSpeed;
                add("ten_shots_in_carry", Severity::note,
                    "Of ten shots with " + name(row.build) + ", ball speed alone spreads carry over about " +
                        formatOf(Metric::carry, carry / 10).withUnit(carry) + ".");
            } else if (isLookedAt(row.metric))
                add("ten_shots", Severity::note,
                    "From the longest to the shortest of ten shots with " + name(row.build) + ": about " +
                        formatOf(row.metric, row.range / 10).withUnit(row.range) + " of " + label(row.metric) +
                        (row.metric == Metric::carry ? inClubs(row) : "") + ".");
    }

    // A range of carry as steps between the clubs of a bag.
    std::string inClubs(const TenShots& row) const {
        const Summary* summary = m_reading.summaryOf(row.metric, row.build);
        if (summary == nullptr)
            return {};
        return ", " + record::fixed(row.range / m_reading.bagStep.value_or(carryStep(summary->mean)), 1) +
               " times the step from club to club";
    }

    void tails() {
        auto said = [&](const AverageGap& row, const WorstFifth& fifth, const char* code, const char* what) {
            if (fifth.p > m_level)
                return;
            const MetricFormat format = formatOf(row.metric, (fifth.ci95.high - fifth.ci95.low) / 4);
            add(code, Severity::note,
                std::string(what) + " in " + label(row.metric) + " differs, " + pair(row.build, row.against) + ": " +
                    format.signedNumber(fifth.gap) + " (" + format.range(fifth.ci95.low, fifth.ci95.high) + ") " +
                    format.unitText() + "; rough, never a verdict.");
        };
        for (const AverageGap& row : m_reading.average) {
            if (row.worstFifth)
                said(row, *row.worstFifth, "worst_fifth", "Where the worst fifth begins");
            if (row.longestFifth)
                said(row, *row.longestFifth, "longest_fifth", "Where the longest fifth begins");
        }
    }

    void called() {
        for (const Called& one : m_reading.called)
            add("called", Severity::note,
                name(one.build) + ": " + std::to_string(one.bad.hits) + " of " + counted(one.bad.n, "called shot") +
                    " bad (" + percentRange(one.bad.ci95) + " %), " + std::to_string(one.soSo) + " so-so, " +
                    std::to_string(one.good) + " good.");
        for (const CalledGap& gap : m_reading.calledGaps) {
            const MetricFormat format(gap.metric, m_units);
            const bool bad = gap.call == record::Call::bad;
            add("called_gap", Severity::note,
                std::string("On the ") + (bad ? "bad" : "good") + " ones alone the gap in " + label(gap.metric) + ", " +
                    pair(gap.build, gap.against) + ", is " + format.signedNumber(gap.gap) +
                    (gap.ci95 ? " (" + format.range(gap.ci95->low, gap.ci95->high) + ")" : "") + " " +
                    format.unitText() + "; " + std::to_string(gap.past) + " of " + std::to_string(gap.nBuild) +
                    " are above the average of " + name(gap.against) + ".");
        }
        if (const auto& agreement = m_reading.callAgreement) {
            auto strength = [](double tau) {
                return tau > 0.4 ? "goes well with" : tau > 0.15 ? "goes somewhat with" : "hardly goes with";
            };
            if (agreement->withSmash)
                add("call_agreement", Severity::note,
                    std::string("What the player called a shot ") + strength(*agreement->withSmash) +
                        " its smash factor.");
            if (agreement->withStrike)
                add("call_agreement", Severity::note,
                    std::string("What the player called a shot ") + strength(*agreement->withStrike) +
                        " how near the middle it was struck.");
        }
    }

    void misses() {
        for (const Misses& one : m_reading.misses) {
            if (one.bothWaysP && *one.bothWaysP <= m_level)
                add("both_ways", Severity::note,
                    name(one.build) + " misses both ways: " + std::to_string(one.left) + " to the left and " +
                        std::to_string(one.right) + " to the right, neither under a quarter.");
            if (const auto p = byLuck(one); p && *p <= m_level)
                add("one_way", Severity::note,
                    name(one.build) + " misses one way: " + std::to_string(one.oneWay->count) + " of " +
                        std::to_string(one.oneWay->of) + " misses to the " +
                        (one.oneWay->side == record::Side::left ? "left." : "right."));
            if (one.flyers && one.flyers->hits > 0)
                add("flyers", Severity::note,
                    counted(one.flyers->hits, "flyer") + " among " + std::to_string(one.flyers->n) + " shots with " +
                        name(one.build) + " (" + percentRange(one.flyers->ci95) +
                        " %): much less spin at no less ball speed.");
        }
    }

    void landings() {
        auto areaOf = [&](BuildAt build) { return std::ranges::find(m_reading.landing, build, &LandingArea::build); };
        for (const AreaRatio& row : m_reading.areas) {
            const auto own = areaOf(row.build);
            const auto other = areaOf(row.against);
            if (own == m_reading.landing.end() || other == m_reading.landing.end())
                continue;
            if (row.centreP && *row.centreP <= m_level) {
                const MetricFormat side(Metric::side, m_units);
                const MetricFormat carry(Metric::carry, m_units);
                const double right = own->centreSide - other->centreSide;
                const double far = own->centreCarry - other->centreCarry;
                add("centre", Severity::note,
                    "The middle of where " + name(row.build) + " lands lies " + side.withUnit(std::fabs(right)) +
                        (right < 0 ? " left of and " : " right of and ") + carry.withUnit(std::fabs(far)) +
                        (far < 0 ? " short of" : " beyond") + " that of " + name(row.against) + ".");
            }
        }
    }

    void setAsideShares() {
        bool any = false;
        std::string text;
        for (std::size_t b = 0; b < m_reading.setAsideShares.size(); ++b) {
            const Share& share = m_reading.setAsideShares[b];
            if (share.n == 0)
                continue;
            any = any || share.hits > 0;
            text += (text.empty() ? "" : ", ") + m_reading.builds[b].name + " " + std::to_string(share.hits) + " of " +
                    std::to_string(share.n) + " (" + percentRange(share.ci95) + " %)";
        }
        if (any)
            add("set_aside_shares", Severity::note, "Set aside: " + text + ".");
    }

    void findings() {
        for (const auto& finding : m_reading.findings) {
            std::string text;
            for (std::size_t i = 0; i < finding.size(); ++i)
                text += (i == 0 ? "" : i + 1 == finding.size() ? " and " : ", ") + record::outcomeLabel(finding[i]);
            if (finding.size() > 1)
                add("one_story", Severity::note, text + " move together from shot to shot: they tell one story.");
        }
    }

    const Reading& m_reading;
    const DisplayUnits& m_units;
    double m_level;
    std::vector<Remark> m_remarks;
};

} // namespace

std::vector<Remark> shotRemarks(const Reading& reading, const DisplayUnits& units) {
    return ShotRemarks(reading, units, remarkLevel(reading)).all();
}

} // namespace knot::words
