#include "app/session/earlier_tests.h"

#include "app/session/background.h"
#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "core/plan/worth.h"
#include "core/record/text/names.h"

#include <algorithm>

namespace knot::app {
namespace {

std::string covariatesText(const record::Card& card) {
    std::string text;
    for (const record::Metric metric : card.covariates)
        text += '/' + record::info(metric).key;
    return text;
}

constexpr std::size_t mostTests = 100; // the newest: a player of years ago is another one

judge::Earlier learn(const std::string& path, const std::vector<std::string>& ids, const record::Test& inHand) {
    std::vector<record::Test> tests;
    if (auto book = logbook::Logbook::read(path))
        for (const auto& id : ids)
            if (auto kept = book->load(id))
                tests.push_back(std::move(*kept));
    return judge::learntFrom(std::move(tests), inHand);
}

} // namespace

void EarlierTests::forget() {
    m_learnt = {};
    m_of.clear();
}

void EarlierTests::refresh() {
    if (!m_hand.isKept() || !m_book.isOpen())
        return;
    const record::Test& test = m_hand.test();
    const std::string of = test.id + '/' + test.repeats + '/' + test.firstPlayer().id + '/' +
                           std::string(record::nameOf(record::kindNames, test.card.kind)) + covariatesText(test.card);
    if (of == m_of)
        return;
    m_of = of;
    std::vector<std::string> ids;
    for (const auto& entry : m_book.tests())
        if (entry.counted > 0 && entry.id != test.id && ids.size() < mostTests)
            ids.push_back(entry.id);
    if (!test.repeats.empty() && std::ranges::find(ids, test.repeats) == ids.end())
        ids.push_back(test.repeats); // however old
    record::Test head;               // of the test in hand, what others are compared by
    head.id = test.id;
    head.repeats = test.repeats;
    head.card.kind = test.card.kind;
    head.card.covariates = test.card.covariates;
    head.players = test.players;
    inBackground(
        this, [path = m_book.path().toStdString(), ids, head] { return learn(path, ids, head); },
        [this, of](std::optional<judge::Earlier> learnt) {
            if (of != m_of || !learnt)
                return;
            m_learnt = std::move(*learnt);
            emit changed();
        });
}

plan::Spreads EarlierTests::spreads(const record::Outcome& outcome) const {
    return spreads(outcome, std::nullopt);
}

plan::Spreads EarlierTests::spreads(const record::Outcome& outcome, std::optional<plan::Level> usual) const {
    const bool isEqual = outcome.kind == record::OutcomeKind::equal;
    if (isEqual && !usual)
        if (const auto equal = m_learnt.equal.find(outcome.metric); equal != m_learnt.equal.end())
            return equal->second;
    const auto own = m_learnt.own.find(outcome.metric);
    const plan::Spreads struck = !usual && own != m_learnt.own.end()
                                     ? own->second
                                     : plan::usualSpreads(outcome.metric, usual.value_or(plan::Level::club));
    return isEqual ? plan::atEqualDelivery(struck) : struck;
}

std::optional<double> EarlierTests::gapScale(record::Metric metric) const {
    const auto at = m_learnt.gapScales.find(metric);
    return at == m_learnt.gapScales.end() ? std::nullopt : std::optional(at->second);
}

std::vector<plan::Takes> EarlierTests::takesOf(const record::Test& test) const {
    return plan::takesOf(
        test, [this](const record::Outcome& outcome) { return spreads(outcome); },
        [&](const record::Outcome& outcome) { return plan::scaleOf(test, outcome, gapScale(outcome.metric)); });
}

} // namespace knot::app
