#pragma once

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
/// Puts a test in front of the others, or anew there.
void rememberLately(const Lately& test);

} // namespace knot::app
