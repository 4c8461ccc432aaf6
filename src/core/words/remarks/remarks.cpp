#include "core/words/remarks/remarks.h"

#include "core/words/averages.h"
#include "core/words/ledger.h"
#include "core/words/linked_tests.h"
#include "core/words/remarks/remark_level.h"
#include "core/words/remarks/shot_remarks.h"

#include "core/record/text/number_text.h"
#include "core/words/along.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::words {
namespace {

using namespace judge;

using record::counted;
using record::DisplayUnits;
using record::MetricFormat;

class Remarks {
public:
    Remarks(const Reading& reading, const DisplayUnits& units)
        : m_reading(reading)
        , m_units(units) {}

    std::vector<Remark> all() {
        kinds();
        hangingOnOneShot();
        setAsides();
        drift();
        gettingUsed();
        equalStrike();
        trend();
        twoFactors();
        shapes();
        severalSettings();
        otherDays();
        targets();
        insideStints();
        forgiveness();
        guesses();
        bets();
        choosing();
        byPriority();
        return std::move(m_remarks);
    }

private:
    void add(const char* code, Severity severity, std::string text) {
        m_remarks.push_back({code, severity, std::move(text)});
    }

    // What decides face, windows, norms and what loft is worth, where nobody has said it.
    void kinds() {
        const KindRead& kind = m_reading.kind;
        if (!kind.areOne)
            return add("several_kinds", Severity::note,
                       "These are clubs of several kinds: steps of a bag, and no rivals of each other.");
        if (!kind.kind.empty() && kind.by == rack::ToldBy::shots)
            add("kind", Severity::note,
                "By what was hit these look like " + kind.kind + "s (" + timesIn100(kind.chance) +
                    " in 100); say it where they are something else.");
    }

    // What one kind of explanation says of all pairs that have it.
    std::vector<ModelEstimate> between(std::optional<ModelEstimate> AverageGap::*kind) const {
        std::vector<ModelEstimate> all;
        for (const AverageGap& row : m_reading.average)
            if (row.*kind)
                all.push_back(*(row.*kind));
        return all;
    }

    bool declared(Metric metric) const {
        return std::ranges::any_of(m_reading.card.primary, [&](const Outcome& o) {
            return o.metric == metric && o.kind == record::OutcomeKind::average;
        });
    }
    const std::string& name(BuildAt build) const { return m_reading.builds[build].name; }
    static const std::string& label(Metric metric) { return record::info(metric).label; }

    // A slope times `per` in the user's unit: "0.4 m/s".
    std::string slopeText(const ModelEstimate& e, double per) const { return sizeText(e, per, m_units); }
    std::string slopeRange(const ModelEstimate& e, double per) const { return sizeRange(e, per, m_units); }

    // Every claim of the reading with what it is about and whom.
    template<typename Use> void eachClaim(Use use) const {
        for (const AverageGap& row : m_reading.average)
            use(row.claim, record::outcomeLabel({.kind = row.kind, .metric = row.metric}), row.build, row.against);
        for (const SpreadRatio& row : m_reading.consistency)
            use(row.claim, record::info(row.metric).spreadLabel, row.build, row.against);
        for (const AreaRatio& row : m_reading.areas)
            use(row.claim, record::outcomeLabel({.kind = record::OutcomeKind::area}), row.build, row.against);
        for (const ShareGap& row : m_reading.shareGaps)
            use(row.gap.claim, "the share in " + row.shape, row.gap.build, row.gap.against);
    }

    void hangingOnOneShot() {
        // The first shot of each row is named; the number of such shots says how frail it is.
        eachClaim([this](const Claim& claim, const std::string& what, BuildAt build, BuildAt against) {
            if (claim.influence.empty() || claim.verdict == Verdict::open)
                return;
            add("hangs_on_one_shot", Severity::caution,
                "The verdict on " + what + ", " + name(build) + " against " + name(against) + ", hangs on " +
                    (claim.influence.size() == 1 ? "one shot, number " + std::to_string(claim.influence.front().number)
                                                 : "any one of " + counted(claim.influence.size(), "shot")) +
                    ": without it, it would be another.");
        });
    }

    void setAsides() {
        eachClaim([this](const Claim& claim, const std::string& what, BuildAt build, BuildAt against) {
            othersMatter(claim, what, build, against);
        });
    }

    void othersMatter(const Claim& claim, const std::string& what, BuildAt build, BuildAt against) {
        if (claim.role != Role::primary)
            return;
        const std::string gap = what + ", " + name(build) + " against " + name(against);
        auto would = [&](const std::optional<judge::OtherSide>& side) {
            return ", would be called “" + of(side->verdict) + "”.";
        };
        if (claim.otherSide && claim.otherSide->changes)
            add("set_asides_matter", Severity::caution,
                std::string(m_reading.fromAllRead ? "Without the set-aside shots, "
                                                  : "With the set-aside shots counted, ") +
                    gap + would(claim.otherSide));
        if (claim.withoutLate && claim.withoutLate->changes)
            add("late_changes_matter", Severity::caution,
                "Without what was put right after the numbers were seen, " + gap + would(claim.withoutLate));
    }

    void drift() {
        for (const ModelEstimate& e : m_reading.drift)
            if ((declared(e.metric) || e.metric == Metric::clubSpeed) && e.p < 0.05)
                add("drift", Severity::note,
                    label(e.metric) + (e.value > 0 ? " rose " : " fell ") + slopeText(e, 10) + " per 10 shots (" +
                        slopeRange(e, 10) + ")" + "; " + whatLapsDo(e.metric) + ".");
    }

    // What the laps do about a drift of a metric: only an order that changed takes it out.
    std::string whatLapsDo(Metric metric) const {
        if (m_reading.rounds < 2)
            return "with one lap it can't be taken out";
        if (std::ranges::find(m_reading.singleRuns, metric) != m_reading.singleRuns.end())
            return "there are no laps to take that out";
        const bool always = std::ranges::any_of(
            m_reading.average, [&](const AverageGap& row) { return row.metric == metric && row.sameOrder; });
        return always ? "the order was the same in nearly every lap, so the laps don't take that out"
                      : "the laps take that out";
    }

    void gettingUsed() {
        for (const ModelEstimate& e : between(&AverageGap::adaptation))
            if (declared(e.metric) && e.p <= m_level)
                add("getting_used", Severity::note,
                    name(e.value > 0 ? e.build : e.against) + " gains " + slopeText(e, 1) + " of " + label(e.metric) +
                        " a stint on " + name(e.value > 0 ? e.against : e.build) + " (" + slopeRange(e, 1) +
                        "): not settled in yet.");
    }

    void equalStrike() {
        for (const AverageGap& row : m_reading.average)
            if (row.equalStrike && declared(row.metric)) {
                const EqualStrike& e = *row.equalStrike;
                const MetricFormat format = MetricFormat(e.equal.metric, m_units).supportedBy(e.equal.se);
                std::string text = "At equal " + covariates() + ", the gap in " + label(e.equal.metric) + ", " +
                                   name(e.equal.build) + " against " + name(e.equal.against) + ", is " +
                                   format.withUnit(e.equal.value) + " (" +
                                   format.range(e.equal.ci95.low, e.equal.ci95.high) + ")";
                const std::size_t all = row.shotsBuild + row.shotsAgainst;
                if (e.n != all)
                    text += ", over the " + counted(e.n, "shot") + " of " + std::to_string(all) + " that have it";
                if (e.explainedInterval)
                    text += "; " + format.withUnit(e.explained) + " (" +
                            format.range(e.explainedInterval->low, e.explainedInterval->high) + ") of it as struck " +
                            (row.claim.verdict == Verdict::open || row.claim.verdict == Verdict::uncontrolled
                                 ? "would come from there"
                                 : "comes from there");
                add("equal_strike", Severity::note, text + ". The strike can itself be the club's doing.");
            }
    }

    std::string covariates() const {
        std::string text;
        for (const Metric metric : m_reading.card.covariates)
            text += (text.empty() ? "" : " and ") + label(metric);
        return text;
    }

    void trend() {
        for (const Trend& t : m_reading.trend)
            if (declared(t.slope.metric))
                add("trend", Severity::note, trendSentence(t, m_reading.card.trendColumn, m_units));
    }

    void twoFactors() {
        for (const ModelEstimate& e : interactionsSaid(m_reading))
            if (declared(e.metric))
                add("two_factors", Severity::note, interactionSentence(e, e.p <= m_level, m_reading, m_units));
    }

    void shapes() {
        for (const SpreadRatio& row : m_reading.consistency)
            if (row.shapesDiffer && row.claim.role == Role::primary)
                add("shapes_differ", Severity::caution,
                    "The shots of " + name(row.build) + " and " + name(row.against) + " have different shapes in " +
                        label(row.metric) + ": a few far ones in one of them make the comparison of spreads too sure.");
    }

    // Of each player and delivery by themselves.
    void targets() {
        if (m_reading.bySetting.empty())
            targetsOf(m_reading, {});
        for (const OfSetting& setting : m_reading.bySetting)
            targetsOf(setting.reading, setting.name + ": ");
    }

    void targetsOf(const Reading& reading, const std::string& whose) {
        for (const TargetResult& t : reading.targets) {
            const std::string judged = t.oneStint ? "was hit in one stint, so that nothing is judged"
                                       : t.verdict == AgainstTarget::inside ? "is inside the window"
                                       : t.verdict == AgainstTarget::below  ? "is short of the window"
                                       : t.verdict == AgainstTarget::above  ? "is beyond the window"
                                                                            : "is not settled against the window";
            add("target", Severity::note,
                whose + name(t.build) + " " + judged + " in " + label(t.metric) + "; " +
                    record::fixed(100 * t.share.share, 0) + " % of shots inside" + (t.oneStint ? ", as seen" : "") +
                    " (" + record::fixed(100 * t.share.ci95.low, 0) + " to " +
                    record::fixed(100 * t.share.ci95.high, 0) + ").");
        }
    }

    void severalSettings() {
        for (const AverageGap& row : m_reading.average) {
            if (!row.pooled)
                continue;
            const SittingsPooled& p = *row.pooled;
            const MetricFormat format = MetricFormat(row.metric, m_units).supportedBy(p.se);
            add("sittings", Severity::note,
                "Over " + std::to_string(p.sittings) + " " + key(p.over) + ", the gap in " + label(row.metric) + ", " +
                    name(row.build) + " against " + name(row.against) + ", is " + format.withUnit(p.pooled) + " (" +
                    format.range(p.ci95.low, p.ci95.high) + ")" + heldUpText(p) +
                    (p.fP < 0.1 ? std::string(", and the ") + key(p.over) + " disagree more than luck explains."
                                : "."));
        }
    }

    void otherDays() {
        for (std::string& sentence : heldSentences(m_reading, m_units))
            add("held", Severity::note, std::move(sentence));
    }

    std::string listed(const std::vector<BuildAt>& builds) const {
        std::string text;
        for (BuildAt i; i < builds.size(); ++i)
            text += (i == 0 ? "" : i + 1 == builds.size() ? " and " : ", ") + name(builds[i]);
        return text;
    }

    void insideStints() {
        for (const ModelEstimate& e : m_reading.settling)
            if (declared(e.metric) && e.p <= m_level)
                add("inside_stints", Severity::note,
                    label(e.metric) + (e.value > 0 ? " rises " : " falls ") + slopeText(e, 1) + " a shot inside " +
                        name(e.build) + "'s stints (" + slopeRange(e, 1) + ").");
        for (const ModelEstimate& e : between(&AverageGap::settling))
            if (declared(e.metric) && e.p <= m_level)
                add("inside_stints", Severity::note,
                    name(e.value > 0 ? e.build : e.against) + " gains " + slopeText(e, 1) + " of " + label(e.metric) +
                        " a shot on " + name(e.value > 0 ? e.against : e.build) + " inside the stint (" +
                        slopeRange(e, 1) + ").");
    }

    void forgiveness() {
        for (const ModelEstimate& e : between(&AverageGap::forgiveness))
            if (e.p <= m_level)
                add("forgiveness", Severity::note,
                    name(e.value > 0 ? e.build : e.against) + " loses " + slopeText(e, 1) + " more " + label(e.metric) +
                        " than " + name(e.value > 0 ? e.against : e.build) + " for each mm off its best strike (" +
                        slopeRange(e, 1) + ").");
    }

    void guesses() {
        if (!m_reading.guesses)
            return;
        const GuessScore& score = *m_reading.guesses;
        const std::string odds =
            score.p > 0.995 ? "luck always does that"
                            : "luck does that " + record::fixed(100 * score.p, score.p < 0.1 ? 1 : 0) + " times in 100";
        const bool couldTell = score.p < 0.05;
        add("guesses", couldTell ? Severity::caution : Severity::note,
            std::to_string(score.right) + " of " + counted(score.tries, "guess", "guesses") + " at the clubs " +
                (score.right == 1 ? "was" : "were") + " right; " + odds +
                (couldTell ? ". The player could tell them apart, and knowing may have moved the swing." : "."));
    }

    void byPriority() {
        if (m_reading.byPriority.empty())
            return;
        const auto likely = std::ranges::max_element(m_reading.byPriority, {}, &PriorityChoice::chanceBest);
        if (likely->chanceBest < 0.99)
            add("by_priority", Severity::note,
                "By the priorities in their order " + name(likely->build) + " comes first " +
                    record::fixed(100 * likely->chanceBest, 0) + " times in 100. That is a bet, not a finding.");
    }

    // A loss in the outcome's own unit; shares, spreads and areas in per cent.
    std::string lossText(const Outcome& outcome, double loss) const {
        if (outcome.kind != record::OutcomeKind::average)
            return record::fixed(100 * loss, 0) + " %";
        return MetricFormat(outcome.metric, m_units).withUnit(loss);
    }

    double worthALook(const Outcome& outcome) const {
        return outcome.kind == record::OutcomeKind::average ? 0.05 * m_reading.card.margin(outcome.metric) : 0.01;
    }

    std::string stintsOf(Metric metric) const {
        if (std::ranges::find(m_reading.ownStints, metric) != m_reading.ownStints.end())
            return "the player's own earlier stints";
        const plan::Level level = m_reading.steadiness;
        return std::string("the usual stints of ") + (level == plan::Level::steady ? "a steady player"
                                                      : level == plan::Level::club ? "a club player"
                                                                                   : "an occasional player");
    }

    // What the bet is about: the declared averages, else what people look at first.
    std::vector<Metric> betOn() const {
        std::vector<Metric> metrics;
        for (const Outcome& outcome : m_reading.card.primary)
            if (outcome.kind == record::OutcomeKind::average)
                metrics.push_back(outcome.metric);
        if (metrics.empty() && m_reading.card.primary.empty())
            metrics = {Metric::carry, Metric::ballSpeed};
        return metrics;
    }

    record::Want wantOf(Metric metric) const {
        return m_reading.card.want({.kind = record::OutcomeKind::average, .metric = metric, .shape = {}});
    }

    // The likeliest best in a metric; nothing without a wanted direction.
    std::optional<BestBet> likeliest(Metric metric) const {
        std::optional<BestBet> top;
        for (const BestBet& best : m_reading.bestBets)
            if (best.metric == metric && wantOf(metric).kind != record::Want::Kind::none &&
                (!top || best.chance > top->chance))
                top = best;
        return top;
    }

    // Who is ahead of whom by how much, as far as the verdicts have not said it already: a sentence for each number, of
    // many clubs with those left out that say least.
    void bets() {
        for (const Metric metric : betOn()) {
            std::vector<std::string> said;
            for (const BetOnPair& bet : m_reading.bets)
                if (bet.metric == metric && !isSettled(bet) && isWorthSaying(bet))
                    said.push_back(betText(bet));
            if (!said.empty())
                add("bet", Severity::note, betsText(metric, said));
        }
        for (const Metric metric : betOn())
            bestBet(metric);
    }

    std::string betsText(Metric metric, const std::vector<std::string>& said) const {
        std::string text = (said.size() == 1 ? "A bet on " : "Bets on ") + label(metric) + ": ";
        for (std::size_t i = 0; i < said.size(); ++i)
            text += (i == 0 ? "" : "; ") + said[i];
        const bool isOfRuns = std::ranges::find(m_reading.singleRuns, metric) != m_reading.singleRuns.end();
        text += std::string(". ") + (said.size() == 1 ? "It allows" : "They allow") + " for what a stint adds" +
                (isOfRuns ? " and for warming up" : "") + ", on " + stintsOf(metric);
        if (std::ranges::find(m_reading.ownGaps, metric) != m_reading.ownGaps.end())
            text += ", and for how far clubs lay apart in earlier tests of this kind";
        return text + ".";
    }

    // What the ledger calls real needs no bet on who is ahead.
    bool isSettled(const BetOnPair& bet) const {
        const AverageGap* row = m_reading.averageOf(bet.metric, bet.build, bet.against);
        const bool isReal =
            row != nullptr && (row->claim.verdict == Verdict::real || row->claim.verdict == Verdict::slight ||
                               row->claim.verdict == Verdict::realSizeOpen);
        return isReal && std::max(bet.ahead, 1 - bet.ahead) > 0.99;
    }

    // Of many pairs those with one's own club and those with the likeliest best.
    bool isWorthSaying(const BetOnPair& bet) const {
        const auto top = likeliest(bet.metric);
        return m_reading.builds.size() <= 3 || !top || bet.against == m_reading.baseline ||
               bet.build == m_reading.baseline || bet.build == top->build || bet.against == top->build;
    }

    // "Reed 53 is ahead of Alder 62 71 times in 100, by +1.2 (−0.6 to 3.0) m"
    std::string betText(const BetOnPair& bet) const {
        const bool near = wantOf(bet.metric).kind == record::Want::Kind::near;
        const bool flip = bet.ahead < 0.5;
        const MetricFormat format = MetricFormat(bet.metric, m_units).supportedBy(bet.sd);
        return name(flip ? bet.against : bet.build) + (near ? " is nearer than " : " is ahead of ") +
               name(flip ? bet.build : bet.against) + " " + timesIn100(std::max(bet.ahead, 1 - bet.ahead)) +
               " times in 100, by " + format.signedNumber(flip ? -bet.expected : bet.expected) + " (" +
               format.range(flip ? -bet.high80 : bet.low80, flip ? -bet.low80 : bet.high80) + ") " + format.unitText();
    }

    void bestBet(Metric metric) {
        std::vector<BestBet> own;
        std::ranges::copy_if(m_reading.bestBets, std::back_inserter(own),
                             [&](const BestBet& best) { return best.metric == metric; });
        if (own.size() < 3 || wantOf(metric).kind == record::Want::Kind::none)
            return;
        const auto likely = std::ranges::max_element(own, {}, &BestBet::chance);
        if (likely->chance > 0.99)
            return;
        add("best_bet", Severity::note,
            "If you must choose now by " + label(metric) + ": " + name(likely->build) + " is the best of " +
                counted(own.size(), "club") + " with a chance of " + record::fixed(100 * likely->chance, 0) +
                " in 100, and choosing it costs " + MetricFormat(metric, m_units).withUnit(likely->loss) +
                " on average. That is a bet, not a finding.");
    }

    // One alone is left by one-sided tests; it is called the best where two-sided claims say so of every other. Of two
    // the ledger has said it.
    void bestOne(const Outcome& outcome, BuildAt best) {
        std::size_t beaten = 0;
        const auto wins = [&](const Claim& claim, BuildAt build, BuildAt against) {
            if ((claim.verdict == Verdict::real || claim.verdict == Verdict::realSizeOpen ||
                 claim.verdict == Verdict::slight) &&
                (build == best || against == best))
                ++beaten;
        };
        for (const AverageGap& row : m_reading.average)
            if (Outcome{.kind = row.kind, .metric = row.metric, .shape = {}} == outcome)
                wins(row.claim, row.build, row.against);
        for (const SpreadRatio& row : m_reading.consistency)
            if (outcome.kind == record::OutcomeKind::spread && row.metric == outcome.metric)
                wins(row.claim, row.build, row.against);
        for (const AreaRatio& row : m_reading.areas)
            if (outcome.kind == record::OutcomeKind::area)
                wins(row.claim, row.build, row.against);
        if (m_reading.builds.size() > 2 && beaten + 1 == m_reading.builds.size())
            add("best_set", Severity::note, "Best in " + record::outcomeLabel(outcome) + ": " + name(best) + ".");
    }

    void choosing() {
        for (const BestOf& best : m_reading.best) {
            const std::string outcome = record::outcomeLabel(best.outcome);
            if (best.set.size() == 1)
                bestOne(best.outcome, best.set.front());
            else if (best.set.size() > 1)
                add("best_set", Severity::note,
                    "For the best in " + outcome + ", " + listed(best.set) + " can't be told apart.");
            if (best.choosing.empty() || best.outcome.kind == record::OutcomeKind::average)
                continue; // of averages the bet speaks
            const auto likely = std::ranges::max_element(best.choosing, {}, &BestOf::Choice::chanceBest);
            if (likely->chanceBest > 0.99)
                continue; // the verdicts have said it
            add("choosing", Severity::note,
                "If you must choose now by " + outcome + ": " + name(likely->build) + " is the best with a chance of " +
                    record::fixed(100 * likely->chanceBest, 0) + " %, and choosing it costs " +
                    lossText(best.outcome, likely->meanLoss) + " on average" +
                    (best.lossNow > worthALook(best.outcome)
                         ? "; " + counted(static_cast<std::size_t>(best.furtherLaps), "more lap") +
                               " would bring that to about " + lossText(best.outcome, best.lossAfter)
                         : "") +
                    ". That is a bet, not a finding.");
        }
    }

    const Reading& m_reading;
    const DisplayUnits& m_units;
    double m_level = remarkLevel(m_reading);
    std::vector<Remark> m_remarks;
};

} // namespace

std::vector<Remark> remarks(const Reading& reading, const DisplayUnits& units) {
    auto all = Remarks(reading, units).all();
    for (Remark& remark : all)
        remark.text = upperFirst(std::move(remark.text));
    std::ranges::copy_if(shotRemarks(reading, units), std::back_inserter(all),
                         [](const Remark& remark) { return remark.severity == Severity::caution; });
    return all;
}

} // namespace knot::words
