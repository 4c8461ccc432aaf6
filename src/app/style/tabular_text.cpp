#include "app/style/tabular_text.h"

#include <QFontMetricsF>
#include <QPainter>

namespace knot::app {
namespace {

double digitWidth(const QFontMetricsF& metrics) {
    double widest = 0;
    for (char digit = '0'; digit <= '9'; ++digit)
        widest = std::max(widest, metrics.horizontalAdvance(QLatin1Char(digit)));
    return widest;
}

} // namespace

double tabularWidth(const QFont& font, const QString& text) {
    const QFontMetricsF metrics(font);
    const double cell = digitWidth(metrics);
    double width = 0;
    for (const QChar c : text)
        width += c.isDigit() ? cell : metrics.horizontalAdvance(c);
    return width;
}

void drawTabular(QPainter& painter, const QFont& font, QPointF at, const QString& text, Align align) {
    const QFontMetricsF metrics(font);
    const double cell = digitWidth(metrics);
    if (align != Align::left)
        at.rx() -= tabularWidth(font, text) * (align == Align::right ? 1 : 0.5);
    painter.setFont(font);
    for (const QChar c : text) {
        const double own = metrics.horizontalAdvance(c);
        const double width = c.isDigit() ? cell : own;
        painter.drawText(at + QPointF((width - own) / 2, 0), QString(c));
        at.rx() += width;
    }
}

} // namespace knot::app
