#pragma once

#include <QString>

namespace knot::app {

/// Writes the report of a test of a logbook into a file, without a window: `test` is its id or its title, or part of
/// it. Gives back why not, or nothing.
QString writeReport(const QString& path, const QString& logbook, const QString& test, bool withAppendix);

} // namespace knot::app
