#pragma once

#include "app/bay_page/key_row.h"
#include "app/bay_page/now_view.h"
#include "core/bay/strike.h"
#include "core/record/units.h"

namespace knot::app {

/// What became of the last shot on the way to the screen.
struct LastShot {
    std::optional<std::size_t> shot; ///< a place in the test; nothing: none in this sitting
    int secondsToNumber = 0;         ///< its number is held back for the player's call
    bool called = false;             ///< the coming shot was called a mishit already
};

/// Who looks: the bay's own screen, or the player's window.
enum class Eyes { fitter, player };

/// Whether these eyes may see the numbers of single shots, and running averages.
bool maySeeShots(const record::Test& test, Eyes eyes);
bool maySeeAverages(const record::Test& test, Eyes eyes);
/// Whether these eyes may know which tag is in hand.
bool maySeeTag(const record::Test& test, Eyes eyes);

NowPicture nowPicture(const record::Test& test, const bay::Stand& stand, const LastShot& last,
                      const record::DisplayUnits& units, Eyes eyes);

/// The same for a test whose last shot was hours ago.
NowPicture anotherVisitPicture(const record::Test& test, const bay::Stand& stand);

/// The keys that mean something where the test stands, what is next first.
QList<KeyRow::Entry> keysFor(const record::Test& test, const bay::Stand& stand, const LastShot& last);

/// The numbers to show and to type first: those of the declared outcomes, else carry and ball speed.
std::vector<record::Metric> firstMetrics(const record::Card& card);

/// "lap 2 of 5 · 34 swings today · 12 since the last rest".
QString courseLine(const record::Test& test, const bay::Stand& stand);

/// Running averages of the first declared number, a club each; empty where they may not be seen.
QString averagesLine(const record::Test& test, const record::DisplayUnits& units);

QString nameOf(const record::Test& test, std::size_t build);

} // namespace knot::app
