#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>
#include <vector>

// What a decision is made by, in words: the bet, what was expected, what was said, what was named blind.
namespace knot::words {

/// How often a club is the best in an outcome, and what choosing it costs on average if another was better.
struct BestLine {
    record::BuildAt build;
    double chance = 0;
    std::string cost; ///< "0.4 m", "12 %"
};

/// "Reed 53: best 61 times in 100; costs 0.4 m on average if another was better".
std::string betText(const judge::Reading& reading, const BestLine& line);

/// The clubs of one declared outcome, the likeliest best first.
struct BestPicture {
    record::Outcome outcome;
    std::vector<BestLine> lines;
    std::string further;    ///< what more laps would save; empty where that is nothing
    bool isSettled = false; ///< one is the best more than 99 times in 100
};

/// For each declared outcome with a direction, in their order.
std::vector<BestPicture> bestPictures(const judge::Reading& reading, const record::DisplayUnits& units);

/// "Named rightly: 1 of 3; luck does as well 67 times in 100." Empty where nothing was guessed.
std::string guessSentence(const judge::Reading& reading);

/// What the reveal proves: whether the published hash, the sealed text and today's clubs agree, and which differ. Empty
/// while nothing was revealed.
std::string sealSentence(const record::Test& test);

/// What was chosen before the tags came off, by the clubs that they turned out to be: "Preferred blind: Reed 53. …"
/// While the seal is closed by their tags.
std::vector<std::string> choiceSentences(const record::Test& test);

/// What became of each expectation: the number, what was said, and what was found.
struct ExpectedLine {
    std::string what, said, found;
    judge::Expected::Found result = judge::Expected::Found::notSettled;
};
std::vector<ExpectedLine> expectedLines(const judge::Reading& reading);

/// How fairly it was tested, in one line: laps and shots, order, who knew, set-asides, cautions.
std::string fairnessLine(const record::Test& test, const judge::Reading& reading);

/// What was found of one club in what was declared, a line each: "carries farther than Alder 62: 4.1 m (3.2 to 5.0),
/// real and enough". The club that others are held against has what was found of them.
std::vector<std::string> foundOf(const judge::Reading& reading, record::BuildAt build,
                                 const record::DisplayUnits& units);

/// Why one would take a club, drafted from what was found: "it carries 4.1 m farther than Alder 62". Empty where
/// nothing speaks for it.
std::string reasonFor(const record::Test& test, const judge::Reading& reading, record::BuildAt build,
                      const record::DisplayUnits& units);

/// Whether a club is among those to choose from: where nothing was planned, only what was hit and counts.
bool mayBeChosen(const record::Test& test, record::BuildAt build);

/// Whether such a course is about one of the clubs.
bool namesClub(record::Action action);

/// Whether what is decided rests on no finding: a screening, a sitting, or one run each. Without a reading the test's
/// kind alone says it.
bool isOnBet(const record::Test& test, const judge::Reading* reading);

/// "Change to Reed 53", "Keep Alder 62", "Not the club: the swing". Empty where nothing is decided.
std::string decisionText(const record::Test& test);

} // namespace knot::words
