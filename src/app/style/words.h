#pragma once

#include <QCoreApplication>
#include <QString>

namespace knot::app {

/// Words of the window that are said outside of a class, ready to be translated.
inline QString tr(const char* text) {
    return QCoreApplication::translate("knotcount", text);
}

} // namespace knot::app
