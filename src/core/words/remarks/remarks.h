#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

namespace knot::words {

/// A sentence beside the verdicts, with a code that stays the same whatever its wording.
struct Remark {
    std::string code;
    judge::Severity severity = judge::Severity::note;
    std::string text;
};

/// The facts about the record that a reader should know (`Reading::checks`), the gravest first.
std::vector<Remark> checks(const judge::Reading& reading);

/// What else could explain the verdicts on declared outcomes, and how to choose meanwhile: drift,
/// getting used to a club, equal strike, trend, two factors, single shots that a verdict hangs on,
/// set-asides that change one, the set that may be best.
std::vector<Remark> remarks(const judge::Reading& reading, const record::DisplayUnits& units);

/// All sentences of the reading: whether the swing was the same, each ledger row, each check, whose doing it was, each
/// remark.
std::vector<std::string> sentences(const judge::Reading& reading, const record::DisplayUnits& units);

/// The same with what is not settled and was not declared named in a line for each pair.
std::vector<std::string> briefSentences(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
