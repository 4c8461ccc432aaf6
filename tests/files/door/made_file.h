#pragma once

#include "core/random.h"
#include "core/record/metric.h"
#include "core/record/units.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::test {

/// A shot as it was struck and as a file should be read.
struct TrueShot {
    std::string club, player, moment;          ///< the moment as "2026-05-04T14:05:09", or empty
    std::map<record::Metric, double> readings; ///< SI, of what is written down
};

enum class Tongue { english, german, french, spanish, italian, swedish, dutch, japanese, korean };
enum class Signs { minus, trueMinus, enDash, letterBehind, letterBefore, besideIt, inHeading, turnedInHeading, words };
enum class Sums { none, below, above, byClub, unnamed, footer, dashes };
enum class Order { asStruck, newestFirst, fallingNumbers };
enum class Clubs { named, sameBesideShaft, byLoft, grouped, aboveTable };
enum class Times { none, iso, epoch, millis, serial, twelveHours, twoColumns, unmarked };
enum class Form {
    comma,
    semicolonComma, ///< a comma for decimals
    tabs,
    blanks,
    jsonArray,
    jsonLines,
    html,
    xmlWorkbook,
    acrossTable, ///< a shot a column
    besideEachOther,
    otherHeadings, ///< a table a club, the columns in another order
    utf16,
    codePage,
    xlsx,
    ods
};
/// What of it cannot be, and must be asked about.
enum class Wrong {
    nothing,
    zeroRow,
    zeroSpin,
    minus9999,
    thousandsByPoint,
    swappedSpeeds,
    swappedAngles,
    apexInFeet,
    turnedSides,
    marks,
    oneBadCell
};
enum class Measures { metric, imperial };

/// What a file of somebody's is like.
struct Style {
    Tongue tongue = Tongue::english;
    Signs signs = Signs::minus;
    Sums sums = Sums::none;
    Order order = Order::asStruck;
    Clubs clubs = Clubs::named;
    Times times = Times::none;
    Form form = Form::comma;
    Wrong wrong = Wrong::nothing;
    Measures measures = Measures::metric;
    std::string mark = "***"; ///< where `wrong` is marks
    bool capitals = false;
};

/// A file, what it holds, and whether a question must be asked.
struct MadeFile {
    std::string name, bytes;
    std::vector<TrueShot> shots;
    bool mustAsk = false;
};

/// In words, to find it again: "german, besideIt".
std::string named(const Style& style);
MadeFile madeFile(const Style& style, std::uint64_t seed);

} // namespace knot::test
