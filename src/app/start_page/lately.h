#pragma once

#include "core/judge/reading.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <QString>

#include <vector>

namespace knot::app {

/// A test that was open lately, in whichever logbook.
struct Lately {
    QString path, id, title;
    QString said;     ///< what was found, or where it stands
    int verdict = -1; ///< judge::Verdict, or -1 while nothing was judged
};

/// The last ones first, at most six; those whose logbook is gone are left out.
std::vector<Lately> lately();
/// How a test is to be remembered: what its reading comes to, else where it stands. Nothing of the clubs
/// of a sealed one.
Lately latelyOf(const QString& path, const record::Test& test, const judge::Reading* reading,
                const record::DisplayUnits& units);
/// Puts a test in front of the others, or anew there.
void rememberLately(const Lately& test);

} // namespace knot::app
