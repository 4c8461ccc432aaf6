#pragma once

#include "app/bay_page/now_view.h"
#include "app/bay_page/situation.h"
#include "core/judge/may_see.h"
#include "core/record/units.h"
#include "core/words/while_hitting.h"

namespace knot::app {

class EarlierTests;

using judge::Eyes;

NowPicture nowPicture(const Situation& now, const record::DisplayUnits& units, Eyes eyes);

/// The same for a test whose last shot was hours ago.
NowPicture anotherVisitPicture(const record::Test& test, const bay::Stand& stand);

/// The numbers to show and to type first: those of the declared outcomes, else carry and ball speed.
std::vector<record::Metric> firstMetrics(const record::Card& card);

/// "lap 2 of 5 · 34 swings today · 12 since the last rest", and at a lap's end what the laps so far are worth to a
/// choice by the first declared outcome, and one more. That is known from their number alone, so that everybody may
/// hear it.
QString courseLine(const record::Test& test, const bay::Stand& stand, const EarlierTests& earlier);

/// What the club in hand has shown so far in each of the numbers, and against one's own club.
QStringList soFarWords(const Situation& now, const std::vector<words::NumberSoFar>& soFar,
                       const record::DisplayUnits& units);

/// Running averages of the first declared number, a club each, of the player in hand where there are several; empty
/// where they may not be seen.
QString averagesLine(record::Test test, const record::DisplayUnits& units);

QString nameOf(const record::Test& test, record::BuildAt build);
/// "good", "so-so", "bad"; empty where nothing was called.
QString callWord(record::Call call);

/// After an end that nobody wanted, where the test goes on; empty where it had not begun.
QString resumedWords(const Situation& now);

} // namespace knot::app
