#include "core/words/decide.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/words/averages.h"
#include "core/words/ledger.h"
#include "core/words/tried.h"

#include "core/plan/seal.h"

#include <algorithm>
#include <cmath>

namespace knot::words {

using judge::Reading;
using record::BuildAt;
using record::MetricFormat;
using record::Outcome;
using record::OutcomeKind;
using record::Test;

namespace {

std::string costText(const Outcome& outcome, double loss, const record::DisplayUnits& units) {
    switch (outcome.kind) {
    case OutcomeKind::spread:
    case OutcomeKind::area:
    case OutcomeKind::share:
        return record::fixed(100 * loss, 0) + " %";
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        break;
    }
    return MetricFormat(outcome.metric, units).withUnit(loss);
}

// "Choosing Reed 53 leaves 0.4 m lying on average; 5 more laps: 0.2 m." Of averages by the bet, like the chances.
std::string furtherText(const Reading& reading, const judge::BestOf& best, const record::DisplayUnits& units) {
    double now = best.lossNow;
    double after = best.lossAfter;
    auto laps = static_cast<std::size_t>(best.furtherLaps);
    if (best.outcome.kind == OutcomeKind::average) {
        const auto bet = std::ranges::find(reading.furtherBets, best.outcome.metric, &judge::FurtherBet::metric);
        if (bet == reading.furtherBets.end())
            return {};
        now = bet->now;
        after = bet->after;
        laps = bet->laps;
    }
    const std::string left = costText(best.outcome, now, units);
    const std::string later = costText(best.outcome, after, units);
    return left == later ? std::string()
                         : "The likeliest leaves " + left + " of " + record::outcomeLabel(best.outcome) +
                               " lying on average; " + record::counted(laps, "more lap") + ": " + later + ".";
}

// Of averages the bet speaks, which allows for what a stint adds; of all else the choosing.
BestPicture pictureOf(const Reading& reading, const judge::BestOf& best, const record::DisplayUnits& units) {
    BestPicture picture{.outcome = best.outcome, .lines = {}, .further = {}};
    if (best.outcome.kind == OutcomeKind::average) {
        for (const judge::BestBet& bet : reading.bestBets)
            if (bet.metric == best.outcome.metric)
                picture.lines.push_back({bet.build, bet.chance, costText(best.outcome, bet.loss, units)});
    } else {
        for (const auto& choice : best.choosing)
            picture.lines.push_back({choice.build, choice.chanceBest, costText(best.outcome, choice.meanLoss, units)});
    }
    std::ranges::stable_sort(picture.lines, std::greater{}, &BestLine::chance);
    picture.isSettled = !picture.lines.empty() && picture.lines.front().chance > sure;
    if (!picture.isSettled)
        picture.further = furtherText(reading, best, units);
    return picture;
}

} // namespace

std::string betText(const Reading& reading, const BestLine& line) {
    return reading.builds[line.build].name + ": best " + record::fixed(100 * line.chance, 0) + " times in 100; costs " +
           line.cost + " on average if another was better";
}

std::vector<BestPicture> bestPictures(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<BestPicture> pictures;
    for (const judge::BestOf& best : reading.best) {
        auto picture = pictureOf(reading, best, units);
        if (picture.lines.size() > 1)
            pictures.push_back(std::move(picture));
    }
    return pictures;
}

std::string guessSentence(const Reading& reading) {
    if (!reading.guesses)
        return {};
    const judge::GuessScore& score = *reading.guesses;
    return "Named rightly: " + std::to_string(score.right) + " of " + std::to_string(score.tries) +
           "; luck does as well " + record::fixed(100 * score.p, 0) + " times in 100.";
}

std::string sealSentence(const Test& test) {
    using State = plan::Agreement::State;
    const plan::Agreement agreement = plan::agreementOf(test);
    const bool isBag = test.seal.isBag();
    const std::string published = "the published " + test.seal.commitment.substr(0, 8) + "…";
    switch (agreement.state) {
    case State::notSealed:
    case State::closed:
        return {};
    case State::byHand:
        return "The clubs were named by hand; no text agrees with " + published + ".";
    case State::bySight:
        return "The clubs kept the secret, and were named by looking at them. Nothing was published: who was not there "
               "can't check it.";
    case State::forged:
        return isBag ? "What was named when the clubs were looked at can't be read."
                     : "The sealed text does not have " + published + ": the assignment was changed.";
    case State::agrees:
        return "The sealed text and the clubs agree with " + published + ": nothing was switched.";
    case State::changed:
        break;
    }
    std::string text = isBag ? "Today's clubs are not those that were named when they were looked at."
                             : "The sealed text agrees with " + published + ", today's clubs do not.";
    for (const plan::Agreement::Since& one : agreement.since)
        text += " " + one.tag + (isBag ? " was named " : " was sealed as ") + one.sealedAs +
                (one.called.empty()           ? ", and no club has its tag."
                 : one.called == one.sealedAs ? ", with other parts since."
                                              : ", called " + one.called + " since.");
    return text;
}

std::vector<std::string> choiceSentences(const Test& test) {
    std::vector<std::string> sentences;
    const record::Choices& choices = test.choices;
    const bool isClosed = test.seal.isClosed();
    const bool wasSealed = test.seal.wasMade();
    if (!choices.byFeel.tag.empty())
        sentences.push_back((wasSealed ? "Preferred blind: " : "Preferred by feel: ") +
                            test.nameOf(choices.byFeel.tag) + ".");
    if (!choices.own.tag.empty()) {
        const std::string club = test.nameOf(choices.own.tag);
        const std::string own = test.card.baseline.empty() ? std::string() : test.nameOf(test.card.baseline);
        sentences.push_back("Taken for one's own: " + club +
                            (isClosed || own.empty() ? "."
                             : club == own           ? ", rightly."
                                                     : "; one's own was " + own + "."));
    }
    if (!choices.byNumbers.tag.empty())
        sentences.push_back("Chosen by the numbers: " + test.nameOf(choices.byNumbers.tag) + ".");
    return sentences;
}

std::vector<ExpectedLine> expectedLines(const Reading& reading) {
    using Found = judge::Expected::Found;
    std::vector<ExpectedLine> lines;
    for (const judge::Expected& one : reading.expected) {
        const std::string pair = reading.builds.size() > 2 ? ", " + reading.builds[one.build].name : "";
        lines.push_back({.what = record::info(one.metric).label + pair,
                         .said = one.said == record::Expectation::up     ? "up"
                                 : one.said == record::Expectation::down ? "down"
                                                                         : "no change",
                         .found = one.found == Found::asExpected           ? "found as expected"
                                  : one.found == Found::otherWay           ? "the other way"
                                  : one.found == Found::nothingThatMatters ? "no gap that matters"
                                                                           : "not settled",
                         .result = one.found});
    }
    return lines;
}

std::string fairnessLine(const Test& test, const Reading& reading) {
    std::size_t counted = 0;
    std::size_t setAside = 0;
    for (const judge::BuildCount& build : reading.builds) {
        counted += build.counted;
        setAside += build.setAside;
    }
    const bool isRuns = reading.roundsDone < 2;
    const auto struck = static_cast<std::size_t>(
        std::ranges::count_if(reading.builds, [](const judge::BuildCount& build) { return build.counted > 0; }));
    const bool isAgain =
        std::ranges::any_of(reading.builds, [](const judge::BuildCount& one) { return one.turns > 1; });
    std::string text = record::counted(counted, "shot") + " with " +
                       record::counted(test.turns.empty() ? std::min(struck, reading.clubs) : reading.clubs, "club");
    text += isRuns ? std::string(isAgain ? ", hit as it came" : ", one run each") + ": a bet, not a finding"
                   : " in " + record::counted(reading.roundsDone, "lap");
    if (!test.turns.empty())
        text += ", the order drawn beforehand";
    switch (test.card.blinding) {
    case record::Blinding::open:
        text += "; the player knew which was which";
        break;
    case record::Blinding::readingBlind:
        text += "; read on tags";
        break;
    case record::Blinding::playerBlind:
        text += "; the player did not know which was which";
        break;
    case record::Blinding::bothBlind:
        text += "; nobody knew which was which";
        break;
    }
    if (setAside > 0)
        text += "; " + std::to_string(setAside) + " set aside";
    const auto cautions = static_cast<std::size_t>(std::ranges::count_if(
        reading.checks, [](const judge::Check& check) { return check.severity != judge::Severity::note; }));
    if (cautions > 0)
        text += "; " + record::counted(cautions, "caution");
    return record::upperFirst(text) + ".";
}

namespace {

std::string shortVerdict(const LedgerLine& line) {
    switch (line.verdict) {
    case Verdict::real:
        return ", real and enough";
    case Verdict::realSizeOpen:
        return ", real, its size open";
    case Verdict::slight:
        return ", real but too small";
    case Verdict::same:
        return ", no gap that matters";
    case Verdict::open:
        return ", not settled";
    case Verdict::uncontrolled:
        break;
    }
    return ", a bet only";
}

bool differs(Verdict verdict) {
    return verdict == Verdict::real || verdict == Verdict::realSizeOpen || verdict == Verdict::slight;
}

} // namespace

std::vector<std::string> foundOf(const Reading& reading, BuildAt build, const record::DisplayUnits& units) {
    std::vector<std::string> own;
    std::vector<std::string> ofOthers;
    for (const LedgerLine& line : ledger(reading, units)) {
        if (line.role != Role::primary || (line.build != build && line.against != build))
            continue;
        const std::string size = line.value + " (" + line.interval + ")";
        if (line.build == build)
            own.push_back(upperFirst(line.finding) +
                          (differs(line.verdict) ? " than " + reading.builds[line.against].name
                           : reading.builds.size() > 2 && reading.card.comparison == record::Comparison::whichOfThese
                               ? " against " + reading.builds[line.against].name
                               : "") +
                          ": " + size + shortVerdict(line));
        else if (differs(line.verdict))
            ofOthers.push_back(reading.builds[line.build].name + " " + line.finding + ": " + size + shortVerdict(line));
    }
    own.insert(own.end(), ofOthers.begin(), ofOthers.end());
    return own;
}

std::string reasonFor(const Test& test, const Reading& reading, BuildAt build, const record::DisplayUnits& units) {
    if (const std::string seen = isOnBet(test, &reading) ? tradeOff(test, reading, build, units) : std::string();
        !seen.empty())
        return "it is " + seen;
    const auto lines = ledger(reading, units);
    const auto pictures = bestPictures(reading, units);
    for (const BestPicture& picture : pictures) {
        if (picture.lines.empty() || picture.lines.front().build != build)
            continue;
        for (const LedgerLine& line : lines) {
            if (line.role != Role::primary || line.outcome != picture.outcome || line.verdict != Verdict::real)
                continue;
            if (line.build == build)
                return "it " + line.finding + " than " + reading.builds[line.against].name + ", by " + line.value;
            if (line.against == build) // the club that others are held against
                return "it is ahead of " + reading.builds[line.build].name + " in " +
                       record::outcomeLabel(picture.outcome) + ", by " + line.value;
        }
    }
    for (const BestPicture& picture : pictures)
        for (const BestLine& line : picture.lines)
            if (line.build == build && line.chance >= 1.0 / static_cast<double>(picture.lines.size()))
                return "it is the best in " + record::outcomeLabel(picture.outcome) + " " + timesIn100(line.chance) +
                       " times in 100";
    return {};
}

bool mayBeChosen(const Test& test, BuildAt build) {
    return !test.turns.empty() || test.shots.empty() || std::ranges::any_of(test.shots, [&](const record::Shot& shot) {
        return shot.build == build && shot.status == record::ShotStatus::counted;
    });
}

bool namesClub(record::Action action) {
    return action == record::Action::keep || action == record::Action::change || action == record::Action::adjust;
}

bool isOnBet(const Test& test, const Reading* reading) {
    return test.stage != record::Stage::test || (reading != nullptr && reading->roundsDone < 2);
}

std::string decisionText(const Test& test) {
    const std::string& club = test.decision.club;
    const std::string named = club.empty() ? "" : " " + test.nameOf(club);
    switch (test.decision.what) {
    case record::Action::none:
        return {};
    case record::Action::keep:
        return "Keep" + (named.empty() ? " what is in the bag" : named);
    case record::Action::change:
        return "Change to" + (named.empty() ? " another" : named);
    case record::Action::adjust:
        return "Adjust" + named;
    case record::Action::mix:
        return "Mix: both have their place";
    case record::Action::notTheClub:
        return "Not the club: the swing";
    case record::Action::testFurther:
        return "Test further";
    }
    return {};
}

} // namespace knot::words
