#pragma once

#include "core/record/course.h"
#include "core/record/declared.h"
#include "core/record/struck.h"

#include <string>
#include <vector>

namespace knot::record {

/// A change of the card after the first counted shot, or of shots after their numbers were seen.
struct Amendment {
    std::string at; ///< ISO 8601
    std::string text;
    std::vector<Shot> was; ///< shots that it changed, as they were before
    bool operator==(const Amendment&) const = default;
};

/// A whole test in its three parts, each with one owner: what is declared, how it goes, what was struck.
struct Test : Declared, Course, Struck {
    std::string id;        ///< UUID; empty until a logbook has kept it
    std::string repeats;   ///< the id of the first test of those that follow from each other; empty in that one
    std::string createdAt; ///< ISO 8601
    std::vector<Amendment> amendments; ///< the record's history: only ever added to

    /// The index of the baseline: the card's; else, where nothing was planned, the club that is called one's own ("own
    /// 7", "mine"), else the first that was struck; else the first. 0 when there are no builds.
    BuildAt baselineIndex() const;
    /// Adds players for the names in the shots that have none.
    void namePlayers();
    /// The place of a shot by its id, or nothing. Looks from the last shot back.
    std::optional<ShotAt> shotIndex(ShotId named) const;
    /// The id that the next shot gets: one more than any shot has.
    ShotId nextShotId() const;
    /// Gives ids to the shots that have none, or that of a shot before them, in their order.
    void nameShots();
    /// Gives ids to the clubs that have none, or that of a club before them: made of the first of the tests that follow
    /// from each other, and of the name, so that the same test comes by the same ids everywhere. What named a club by
    /// its name names it by its id from then on.
    void nameClubs();
    /// Metrics with at least one reading among the shots of any status, in canonical order.
    std::vector<Metric> metricsRead() const;

    bool operator==(const Test&) const = default;
};

/// The first test of those that follow from each other.
inline const std::string& firstOf(const Test& test) {
    return test.repeats.empty() ? test.id : test.repeats;
}

/// Calls `change` with everything in a test that names a club: what the sheet says of clubs, guesses, choices, the
/// decision, who left.
template<typename Change> void forEachClubNamed(Test& test, Change change) {
    change(test.card.baseline);
    for (std::string& club : test.card.expectedOrder)
        change(club);
    for (Target& target : test.card.targets)
        change(target.build);
    for (Guess& guess : test.guesses)
        change(guess.said);
    for (Said Choices::*member : {&Choices::byFeel, &Choices::own, &Choices::byNumbers})
        change((test.choices.*member).tag);
    change(test.decision.club);
    for (Standing& standing : test.standings)
        change(standing.club);
}

/// What names a club names it by its id from then on, where it has one; a tag stays.
void nameByIds(Test& test);
/// The same test with clubs named by their names, as files and people know them.
Test withNames(Test test);

} // namespace knot::record
