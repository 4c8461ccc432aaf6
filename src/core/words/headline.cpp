#include "core/words/headline.h"

#include "core/bay/stand.h"
#include "core/record/text/number_text.h"
#include "core/words/ledger.h"

#include <algorithm>
#include <array>

namespace knot::words {

// Of a reading that nothing was asked of, what was seen: one of many, and so no finding.
Headline seenUnasked(const Reading& reading, const std::vector<LedgerLine>& lines) {
    for (const auto& line : lines)
        if (line.verdict == Verdict::real || line.verdict == Verdict::realSizeOpen)
            return {Verdict::open, "seen, unasked: " + reading.builds[line.build].name + " " + line.finding};
    return {lines.empty() ? Verdict::uncontrolled : Verdict::open,
            lines.empty() ? "nothing to compare" : "nothing settled yet"};
}

Headline headlineOf(const Reading& reading, const record::DisplayUnits& units) {
    const auto lines = ledger(reading, units);
    // The surest first: what is real and matters, what is real, what makes no difference.
    constexpr std::array order = {Verdict::real, Verdict::realSizeOpen, Verdict::slight, Verdict::same};
    if (std::ranges::find(lines, Role::primary, &LedgerLine::role) == lines.end())
        return seenUnasked(reading, lines);
    for (const Verdict wanted : order)
        for (const auto& line : lines) {
            if (line.verdict != wanted || line.role != Role::primary)
                continue;
            const std::string club = reading.builds[line.build].name;
            switch (wanted) {
            case Verdict::real:
                return {wanted, club + " " + line.finding + ": real"};
            case Verdict::realSizeOpen:
                return {wanted, club + " " + line.finding + ": real, its size open"};
            case Verdict::slight:
                return {wanted, club + " " + line.finding + ": real, but too small"};
            default:
                return {wanted, upperFirst(line.finding) + ": no gap that matters"};
            }
        }
    return {Verdict::open, "nothing settled yet"};
}

bool isToldByReading(const record::Test& test) {
    return test.stage == record::Stage::test && !test.shots.empty() && bay::standOf(test).stint() == nullptr;
}

std::string withheldSentences(const judge::Withheld& laps) {
    return "Laps done: " + std::to_string(laps.done) + " of " + std::to_string(laps.planned) +
           ". The sheet says that nobody sees a comparison before the last. Who looks now is noted, and each lap "
           "counts "
           "as a look from here on: claims need more then.";
}

Standing standingOf(const record::Test& test, const judge::Reading* reading, const record::DisplayUnits& units) {
    if (test.shots.empty())
        return {{}, "not struck yet"};
    if (reading != nullptr && isToldByReading(test)) {
        auto headline = headlineOf(*reading, units);
        return {headline.verdict, std::move(headline.text)};
    }
    const auto stand = bay::standOf(test);
    if (const auto* stint = stand.stint())
        return {{}, "lap " + std::to_string(stint->round) + " of " + std::to_string(stand.rounds) + ": go on"};
    switch (test.stage) {
    case record::Stage::openSitting:
        return {{}, "an open sitting"};
    case record::Stage::screening:
        return {{}, "a screening"};
    case record::Stage::test:
        break;
    }
    return {{}, record::counted(test.shots.size(), "shot")};
}

} // namespace knot::words
