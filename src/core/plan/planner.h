#pragma once

#include "core/plan/power.h"
#include "core/record/course.h"
#include "core/record/plan.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace knot::plan {

/// What people hit by hand: so many shots with each club, in one run.
inline constexpr int shotsByHand = 3;
/// The chance of seeing a gap that a plan is asked to have.
inline constexpr double wantedPower = 0.8;

/// How long things take and how often the player rests.
struct Pace {
    double changeSeconds = 90, shotSeconds = 30;
    int warmUp = 0, restEvery = 0;
    double restSeconds = 180;
};

/// As a plan has it.
Pace paceOf(const record::Plan& plan);

/// What is asked: the spread of turns and shots in the outcome, its worthwhile gap, the number of
/// builds, and the level of one comparison (α divided by the declared outcomes × comparisons).
struct Question {
    double sdTurn = 0, sdShot = 1, gap = 1, alpha = 0.05;
    std::size_t builds = 2;
};

/// A number of rounds of equal turns, and what it can do.
struct Option {
    int rounds = 2, turnLength = 1;
    int shots = 0;
    double minutes = 0;
    double power = 0;       ///< to see the gap
    double powerSame = 0;   ///< to say "no gap that matters" when there is none
    double smallestGap = 0; ///< seen 80 times in 100
};

/// Swings with every build, rests and changes included; warm-up swings too.
double minutesFor(const Question& question, const Pace& pace, int rounds, int turnLength);

/// Shots of a turn under a plan's schedule: one when it goes shot by shot.
int shotsATurn(const record::Plan& plan);

/// The minutes of turns as planned, change by change, at the pace of a plan.
double minutesOf(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns);
/// Swings of the turns as planned, each player's warm-up included.
int swingsOf(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns);

/// Rounds of equal turns on a question, two builds of it.
PairPlan pairOf(const Question& question, int rounds, int turnLength);

Option optionOf(const Question& question, const Pace& pace, int rounds, int turnLength);

/// What can be seen in the time: the rounds and turn length (1 to 12) with the most power to see the
/// gap, the fewer swings where two are alike. Nothing when two rounds do not fit.
std::optional<Option> bestIn(double minutes, const Question& question, const Pace& pace);

/// The fewest rounds of this turn length with 80 % power to see the gap; nothing above `most`.
std::optional<Option> toSee(const Question& question, const Pace& pace, int turnLength, int most = 60);

/// The fewest rounds that call none "no gap that matters" 80 times in 100 when there is none.
std::optional<Option> toSaySame(const Question& question, const Pace& pace, int turnLength, int most = 60);

/// The chance that one run of `shots` with each sees the gap by a t at the question's level, with what a turn adds in
/// its error: what nobody knows who hits one run.
double powerOfRuns(const Question& question, int shots);

/// How often plain t-tests at 5 % of the first club's run against each other one say that one differs where none does:
/// they take no account of what a turn adds. As if the tests were independent.
double falseAlarmsOfRuns(const Question& question, int shots);

/// The gap that a run of `shots` each sees 80 times in 100 at the question's level, with what a turn adds in its error.
double gapSeenByRuns(const Question& question, int shots);

/// What a turn of `shots` each must differ in spread to be seen 80 times in 100: a ratio of SDs.
double spreadSeenByRuns(int shots, double alpha = 0.05);

/// The ratio of SDs seen 80 times in 100 by a plan, from F with ν − 3; nothing when ν is not above 3.
std::optional<double> spreadSeen(int rounds, int turnLength, double alpha);
/// The ratio of landing areas; nothing under four turns.
std::optional<double> areaSeen(int rounds, int turnLength, double alpha);

} // namespace knot::plan
