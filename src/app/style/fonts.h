#pragma once

#include <QFont>

namespace knot::app {

/// Registers the built-in typeface and makes it the application's font.
void installFonts();

/// The built-in typeface at one of the sizes of namespace `size`.
QFont typeface(int pixels, QFont::Weight weight = QFont::Normal);

} // namespace knot::app
