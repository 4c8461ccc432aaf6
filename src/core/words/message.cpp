#include "core/words/message.h"

#include "core/record/text/moment.h"
#include "core/words/averages.h"
#include "core/words/decide.h"
#include "core/words/ledger.h"
#include "core/words/linked_tests.h"
#include "core/words/tried.h"

#include <algorithm>

namespace knot::words {

namespace {

constexpr std::size_t mostBesides = 6;

class Lines {
public:
    void add(const std::string& line) { m_text += line + "\n"; }
    void part(const std::string& heading, const std::vector<std::string>& sentences) {
        if (sentences.empty())
            return;
        m_text += "\n" + heading + "\n";
        for (const std::string& sentence : sentences)
            add("- " + sentence);
    }
    const std::string& text() const { return m_text; }

private:
    std::string m_text;
};

} // namespace

Found foundOf(const judge::Reading& reading, const record::DisplayUnits& units) {
    Found found;
    found.runs = oneRunEach(reading, units);
    if (!found.runs.empty())
        return found;
    for (const LedgerLine& line : ledger(reading, units)) {
        const bool isOpen = line.verdict == Verdict::open || line.verdict == Verdict::uncontrolled;
        if (line.role == Role::primary)
            (isOpen ? found.open : found.settled).push_back(line.sentence);
        else if (line.role == Role::exploratory && line.verdict == Verdict::real && found.besides.size() < mostBesides)
            found.besides.push_back(line.sentence);
    }
    found.held = heldSentences(reading, units);
    return found;
}

std::string message(const record::Test& test, const judge::Reading& reading, const record::DisplayUnits& units) {
    Lines lines;
    lines.add(test.title);
    std::string who = test.playerNames();
    if (!test.createdAt.empty())
        who += (who.empty() ? "" : ", ") + record::Moment(test.createdAt).shown();
    if (!who.empty())
        lines.add(who);
    lines.add(fairnessLine(test, reading));
    const Found found = foundOf(reading, units);
    if (test.turns.empty() && !test.seal.isClosed()) {
        std::vector<std::string> clubs;
        for (const Tried& one : tried(test, units))
            clubs.push_back(sentenceOf(one));
        lines.part("Tried, in this order:", clubs);
    }
    lines.part("One run each:", found.runs);
    lines.part("Found:", found.settled);
    lines.part("Not settled by these shots:", found.open);
    lines.part("On another day:", found.held);
    lines.part("Also seen, without having been asked:", found.besides);
    for (const BestPicture& picture : bestPictures(reading, units)) {
        if (picture.isSettled || picture.lines.empty())
            continue;
        std::vector<std::string> bets;
        for (const BestLine& line : picture.lines)
            bets.push_back(betText(reading, line));
        lines.part("A bet, not a finding, by " + record::outcomeLabel(picture.outcome) + ":", bets);
    }
    std::vector<std::string> decided{decisionText(test)};
    for (const auto& [what, said] : {std::pair("Because", test.decision.reason),
                                     {"Price", test.decision.price},
                                     {"To watch", test.decision.watch}})
        if (!said.empty())
            decided.push_back(std::string(what) + ": " + said);
    if (!decided.front().empty())
        lines.part("Decided:", decided);
    return lines.text();
}

} // namespace knot::words
