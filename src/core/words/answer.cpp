#include "core/words/answer.h"

#include "core/record/text/number_text.h"
#include "core/words/averages.h"
#include "core/words/ledger.h"

#include <algorithm>
#include <array>
#include <optional>

namespace knot::words {
namespace {

using judge::BestBet;
using judge::BestOf;
using judge::Metric;
using record::OutcomeKind;
using record::Want;

bool isDifference(Verdict verdict) {
    return verdict == Verdict::real || verdict == Verdict::realSizeOpen || verdict == Verdict::slight;
}

class Answering {
public:
    Answering(const Reading& reading, const record::DisplayUnits& units)
        : m_reading(reading)
        , m_lines(ledger(reading, units)) {
        for (BuildAt b; b < reading.builds.size(); ++b)
            m_clubs += reading.builds[b].counted > 0 ? 1 : 0;
    }

    std::vector<Answer> all() const {
        std::vector<Answer> answers;
        if (m_clubs < 2)
            return answers;
        for (const Outcome& outcome : m_reading.card.primary)
            if (auto answer = asked(outcome))
                answers.push_back(std::move(*answer));
        if (m_reading.card.primary.empty() && m_reading.kind.areOne) // a bag is no contest
            for (const Metric metric : {Metric::carry, Metric::ballSpeed})
                if (auto answer = unasked(metric))
                    answers.push_back(std::move(*answer));
        return answers;
    }

private:
    /// Who is likely the best, and how often.
    struct Best {
        BuildAt build;
        double chance = 0;
    };

    const std::string& name(BuildAt build) const { return m_reading.builds[build].name; }

    static std::string label(const Outcome& outcome) { return upperFirst(record::outcomeLabel(outcome)); }

    std::optional<Best> best(const Outcome& outcome) const {
        std::optional<Best> top;
        auto add = [&](BuildAt build, double chance) {
            if (!top || chance > top->chance)
                top = Best{build, chance};
        };
        if (outcome.kind == OutcomeKind::average)
            for (const BestBet& bet : m_reading.bestBets) {
                if (bet.metric == outcome.metric)
                    add(bet.build, bet.chance);
            }
        else
            for (const BestOf& of : m_reading.best)
                if (of.outcome == outcome)
                    for (const BestOf::Choice& choice : of.choosing)
                        add(choice.build, choice.chanceBest);
        return top;
    }

    // "it is best 71 in 100": how sure, where something is wanted of it.
    std::string betText(const Outcome& outcome) const {
        const auto top = best(outcome);
        if (!top || m_reading.card.want(outcome).kind == Want::Kind::none)
            return {};
        return name(top->build) + (m_clubs == 2 ? " is ahead " : " is the best ") + timesIn100(top->chance) + " in 100";
    }

    std::vector<const LedgerLine*> linesOf(const Outcome& outcome) const {
        std::vector<const LedgerLine*> lines;
        for (const LedgerLine& line : m_lines)
            if (line.outcome == outcome && line.role == Role::primary)
                lines.push_back(&line);
        return lines;
    }

    std::optional<Answer> asked(const Outcome& outcome) const {
        const auto lines = linesOf(outcome);
        if (lines.empty())
            return std::nullopt;
        Answer answer{.outcome = outcome, .verdict = lines.front()->verdict, .text = {}};
        const LedgerLine& surest = surestOf(lines, outcome);
        answer.verdict = surest.verdict;
        if (isDifference(surest.verdict))
            answer.text = lines.size() == 1 ? ofTwo(surest) : ofSeveral(surest, outcome);
        else if (std::ranges::all_of(lines, [](const auto* line) { return line->verdict == Verdict::same; }))
            answer.text = label(outcome) + ": no gap that matters between " +
                          (lines.size() == 1 ? name(surest.build) + " and " + name(surest.against) : "any of them") +
                          ".";
        else
            answer.text = unsettled(surest, outcome);
        return answer;
    }

    // What is real and matters before what is real, and of those the likeliest best's before others'.
    const LedgerLine& surestOf(const std::vector<const LedgerLine*>& lines, const Outcome& outcome) const {
        constexpr std::array order = {Verdict::real, Verdict::realSizeOpen, Verdict::slight,
                                      Verdict::open, Verdict::uncontrolled, Verdict::same};
        const auto top = best(outcome);
        return **std::ranges::min_element(lines, {}, [&](const LedgerLine* line) {
            const bool isOfBest = top && (line->build == top->build || line->against == top->build);
            return std::pair(std::ranges::find(order, line->verdict) - order.begin(), !isOfBest);
        });
    }

    static std::string howSure(const LedgerLine& line) {
        return line.verdict == Verdict::real     ? line.value + ", real and enough."
               : line.verdict == Verdict::slight ? line.value + ", real but too little to matter."
                                                 : "real, how much is open.";
    }

    // From the better one's side, where something is wanted of it.
    std::string ofTwo(const LedgerLine& line) const {
        const auto top = best(line.outcome);
        if (top && top->build == line.against && m_reading.card.want(line.outcome).kind != Want::Kind::none)
            return name(line.against) + " is ahead of " + name(line.build) + " in " +
                   record::outcomeLabel(line.outcome) + ": " + howSure(line);
        return name(line.build) + " " + line.finding + " than " + name(line.against) + ": " + howSure(line);
    }

    // Of several the finding in hand, and who is likely the best where that is not said by it.
    std::string ofSeveral(const LedgerLine& surest, const Outcome& outcome) const {
        const auto top = best(outcome);
        if (!top || m_reading.card.want(outcome).kind == Want::Kind::none ||
            ((top->build == surest.build || top->build == surest.against) && top->chance > sure))
            return ofTwo(surest);
        std::string text = ofTwo(surest);
        text.pop_back();
        return text + "; " +
               (top->build == surest.build || top->build == surest.against ? "the best"
                                                                           : "likely best " + name(top->build) + ",") +
               " " + timesIn100(top->chance) + " in 100.";
    }

    std::string unsettled(const LedgerLine& line, const Outcome& outcome) const {
        const std::string bet = betText(outcome);
        return label(outcome) + (line.verdict == Verdict::uncontrolled ? ": a bet only" : ": not settled") +
               (bet.empty() ? "." : "; " + bet + ".");
    }

    std::optional<Answer> unasked(Metric metric) const {
        const Outcome outcome{.metric = metric, .shape = {}};
        const auto top = best(outcome);
        if (!top)
            return std::nullopt;
        const bool isRun = m_reading.roundsDone < 2;
        const bool isAgain =
            std::ranges::any_of(m_reading.builds, [](const judge::BuildCount& one) { return one.turns > 1; });
        return Answer{.outcome = outcome,
                      .verdict = isRun ? Verdict::uncontrolled : Verdict::open,
                      .isAsked = false,
                      .text = label(outcome) + ", unasked: " + name(top->build) +
                              (m_clubs == 2 ? " is ahead " : " has the most ") + timesIn100(top->chance) +
                              " in 100, on " +
                              (isRun ? isAgain ? "shots as they came." : "one run each."
                                     : record::counted(m_reading.roundsDone, "lap") + ".")};
    }

    const Reading& m_reading;
    std::vector<LedgerLine> m_lines;
    std::size_t m_clubs = 0;
};

} // namespace

std::vector<Answer> answersOf(const Reading& reading, const record::DisplayUnits& units) {
    return Answering(reading, units).all();
}

} // namespace knot::words
