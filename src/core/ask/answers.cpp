#include "core/ask/answers.h"

#include "core/ask/outcomes.h"
#include "core/ask/plan_sentence.h"
#include "core/ask/usual_outcomes.h"
#include "core/judge/causes/along.h"
#include "core/record/text/text.h"
#include "core/words/along.h"

#include <algorithm>

namespace knot::ask {

using record::Build;
using record::Card;
using record::Comparison;
using record::Declared;
using record::Metric;
using record::Outcome;
using record::OutcomeKind;
using record::Test;
using record::TestKind;
using record::Want;

namespace {

constexpr std::array kinds = {std::pair{TestKind::shaft, "another shaft"},
                              std::pair{TestKind::head, "another head"},
                              std::pair{TestKind::loft, "another loft"},
                              std::pair{TestKind::length, "another length"},
                              std::pair{TestKind::lie, "another lie"},
                              std::pair{TestKind::grip, "another grip"},
                              std::pair{TestKind::ball, "another ball"},
                              std::pair{TestKind::delivery, "another delivery"},
                              std::pair{TestKind::wholeClubs, "another club, knowingly"}};

// Every outcome with what may be wanted of it, the usual ones first.
std::vector<std::pair<Outcome, Want>> everyOutcome(const Card& card) {
    std::vector<std::pair<Outcome, Want>> all;
    auto add = [&](const Outcome& outcome, Want::Kind kind) {
        if (std::ranges::find(all, std::pair(outcome, Want{kind, 0})) == all.end())
            all.emplace_back(outcome, Want{kind, 0});
    };
    auto average = [](Metric metric) { return Outcome{.metric = metric, .shape = {}}; };
    auto of = [](OutcomeKind kind, Metric metric) { return Outcome{.kind = kind, .metric = metric, .shape = {}}; };
    for (const auto& one : usualOutcomes(card.kind))
        if (one.second.kind != Want::Kind::near)
            add(one.first, one.second.kind);
    for (const Metric metric : asked)
        add(average(metric), metric == Metric::spin ? Want::Kind::less : Want::Kind::more);
    for (const Metric metric : {Metric::side, Metric::carry, Metric::ballSpeed, Metric::spin, Metric::launch})
        add(of(OutcomeKind::spread, metric), Want::Kind::less);
    add({.kind = OutcomeKind::area, .shape = {}}, Want::Kind::less);
    for (const record::Shape& shape : card.shapes)
        add({.kind = OutcomeKind::share, .shape = shape.name}, shape.isBeyond() ? Want::Kind::less : Want::Kind::more);
    for (const Metric metric : {Metric::carry, Metric::ballSpeed, Metric::spin}) {
        const auto kind = metric == Metric::spin ? Want::Kind::less : Want::Kind::more;
        add(of(OutcomeKind::equal, metric), kind);
        add(of(OutcomeKind::typical, metric), kind);
    }
    for (const Metric metric : record::allMetrics())
        if (!record::isStrike(metric))
            for (const Want::Kind kind : {Want::Kind::more, Want::Kind::less, Want::Kind::none})
                add(average(metric), kind);
    for (const Metric metric : {Metric::side, Metric::carry, Metric::ballSpeed})
        add(of(OutcomeKind::spread, metric), Want::Kind::more);
    return all;
}

class Answers {
public:
    Answers(const Chip& chip, const Test& test, const Known& known)
        : m_chip(chip)
        , m_test(test)
        , m_card(test.card)
        , m_known(known) {}

    std::vector<Answer> all() {
        switch (m_chip.part) {
        case Part::against:
            against();
            break;
        case Part::tested:
            for (const auto& [kind, text] : kinds)
                add(text, [kind = kind](Declared& test) { setKind(test.card, kind); });
            break;
        case Part::player:
            for (const record::Player& player : m_known.players)
                add(player.name, putPlayer(m_chip.at, player));
            break;
        case Part::outcome:
            outcomes("", m_chip.at);
            break;
        case Part::causes:
            for (const Metric metric : causes) {
                const bool isOut = std::ranges::find(m_card.covariates, metric) != m_card.covariates.end();
                add((isOut ? "leave in " : "and ") + record::info(metric).label, toggle(metric));
            }
            break;
        case Part::along:
            along("");
            break;
        case Part::factor:
            factors("");
            break;
        case Part::another:
            another();
            break;
        default:
            break; // said by typing alone
        }
        return std::move(m_answers);
    }

private:
    void add(const std::string& text, Edit edit, std::string also = {}) {
        m_answers.push_back({text, std::move(edit), std::move(also)});
    }

    void against() {
        const bool isOne = m_card.comparison == Comparison::againstBaseline;
        auto which = [&] {
            add("Which of several", [](Declared& test) { test.card.comparison = Comparison::whichOfThese; });
        };
        if (!isOne)
            which();
        for (const Build& build : m_test.seal.isClosed() ? std::vector<Build>() : m_test.builds)
            add(isOne ? build.name : "Against " + build.name, [who = build.who()](Declared& test) {
                test.card.comparison = Comparison::againstBaseline;
                test.card.baseline = who;
            });
        if (isOne)
            which();
    }

    void outcomes(const std::string& before, std::size_t at) {
        for (const auto& [outcome, want] : everyOutcome(m_card))
            add(
                before + wantedText(outcome, want, m_known.units),
                [outcome = outcome, want = want, at](Declared& test) { setOutcome(test.card, at, outcome, want); },
                words::wordsFor({outcome, want.kind}));
    }

    static Edit toggle(Metric metric) {
        return [metric](Declared& test) {
            if (std::erase(test.card.covariates, metric) == 0)
                test.card.covariates.push_back(metric);
        };
    }

    void along(const std::string& before) {
        for (const std::string& name : judge::alongWhat(m_test))
            add(before + words::alongOf(name).what, [name](Declared& test) { test.card.trendColumn = name; });
    }

    void factors(const std::string& before) {
        std::vector<std::string> names{"delivery", "player"};
        names.insert(names.end(), m_test.extraColumns.begin(), m_test.extraColumns.end());
        for (const std::string& name : names)
            add(before + name, [name](Declared& test) { test.card.factorColumn = name; });
    }

    // The clauses that are not there yet, each by what it begins with.
    void another() {
        if (m_card.primary.size() < mostOutcomes)
            outcomes("and ", m_card.primary.size());
        if (m_card.covariates.empty())
            for (const Metric metric : causes)
                add("with less luck: take out " + record::info(metric).label, toggle(metric));
        if (m_card.trendColumn.empty())
            along("along ");
        if (m_card.factorColumn.empty())
            factors("by ");
    }

    const Chip& m_chip;
    const Test& m_test;
    const Card& m_card;
    const Known& m_known;
    std::vector<Answer> m_answers;
};

} // namespace

std::vector<Answer> answersFor(const Chip& chip, const Test& test, const Known& known) {
    return isOfPlan(chip.part) ? planAnswers(chip, test, known) : Answers(chip, test, known).all();
}

bool isOfPlan(Part part) {
    return part >= Part::minutes && part <= Part::looks;
}

std::vector<Answer> found(const std::vector<Answer>& answers, const std::string& letters) {
    const auto typed = wordsOf(letters);
    if (typed.empty()) // nothing typed finds all, a mark finds nothing
        return record::trimmed(letters).empty() ? answers : std::vector<Answer>();
    // With how many words were passed over between those meant, and whether the answer goes on behind them.
    std::vector<std::pair<std::pair<std::size_t, bool>, Answer>> found;
    for (const Answer& answer : answers) {
        auto words = wordsOf(answer.text);
        const std::size_t own = words.size();
        for (const std::string& other : wordsOf(answer.also))
            words.push_back(other);
        std::size_t at = 0;
        std::size_t passed = 0;
        bool isWhole = true; // each word to its last letter
        const bool isFound = std::ranges::all_of(typed, [&](const std::string& begun) {
            const bool isFirst = &begun == &typed.front();
            for (; at < words.size() && !words[at].starts_with(begun); ++at)
                passed += isFirst ? 0 : 1;
            isWhole = isWhole && at < words.size() && words[at] == begun;
            return at++ < words.size();
        });
        if (isFound) // what another word finds comes behind
            found.emplace_back(std::pair(passed + (at > own ? 100 : 0), isWhole && at < own), answer);
    }
    std::ranges::stable_sort(found, {}, [](const auto& one) { return one.first; });
    std::vector<Answer> inOrder;
    inOrder.reserve(found.size());
    for (auto& [passed, answer] : found)
        inOrder.push_back(std::move(answer));
    return inOrder;
}

} // namespace knot::ask
