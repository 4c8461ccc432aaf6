#include "app/style/fonts.h"

#include "app/style/palette.h"

#include <QApplication>
#include <QFontDatabase>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

constexpr double usualPoints = 10; // what desktops set by themselves
double scaleInForce = 1;

} // namespace

double typeScale() {
    return scaleInForce;
}

void setTypeScale(double scale) {
    scaleInForce = std::clamp(scale, 1.0, 1.6);
    QApplication::setFont(typeface(size::body));
}

void installFonts() {
    // What the desktop says before our own typeface takes its place; without one there is nothing to follow.
    if (QApplication::platformName() != QStringLiteral("offscreen"))
        scaleInForce = std::clamp(QApplication::font().pointSizeF() / usualPoints, 1.0, 1.6);
    for (const char* weight : {"Regular", "Medium", "SemiBold", "Bold"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/Inter-%1.otf").arg(QLatin1String(weight)));
    QApplication::setFont(typeface(size::body));
}

QFont typeface(int pixels, QFont::Weight weight) {
    QFont f(QStringLiteral("Inter"));
    f.setPixelSize(static_cast<int>(std::lround(pixels * scaleInForce)));
    f.setWeight(weight);
    return f;
}

} // namespace knot::app
