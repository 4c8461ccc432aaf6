#pragma once

#include <QDateTime>

#include <string>

namespace knot::app {

/// A moment as the record keeps it: ISO 8601 by the clock on the wall, to the millisecond, with its
/// offset from UTC.
inline QString momentText(const QDateTime& moment) {
    return moment.toOffsetFromUtc(moment.offsetFromUtc()).toString(Qt::ISODateWithMs);
}

inline std::string momentNow() {
    return momentText(QDateTime::currentDateTime()).toStdString();
}

} // namespace knot::app
