#pragma once

#include <QFont>

namespace knot::app {

/// Registers the built-in typeface and makes it the application's font.
void installFonts();

/// How much larger than usual the user's own type is, from 1 to 1.6; all type grows with it.
double typeScale();
void setTypeScale(double scale);

/// The built-in typeface at one of the sizes of namespace `size`, times the type scale.
QFont typeface(int pixels, QFont::Weight weight = QFont::Normal);

} // namespace knot::app
