#include "app/style/fonts.h"

#include "app/style/palette.h"

#include <QApplication>
#include <QFontDatabase>

namespace knot::app {

void installFonts() {
    for (const char* weight : {"Regular", "Medium", "SemiBold", "Bold"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/Inter-%1.otf").arg(QLatin1String(weight)));
    QApplication::setFont(typeface(size::body));
}

QFont typeface(int pixels, QFont::Weight weight) {
    QFont f(QStringLiteral("Inter"));
    f.setPixelSize(pixels);
    f.setWeight(weight);
    return f;
}

} // namespace knot::app
