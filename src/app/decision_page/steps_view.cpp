#include "app/decision_page/steps_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QPainter>

namespace knot::app {

StepsView::StepsView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("steps"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void StepsView::display(const QList<Step>& steps) {
    m_steps = steps;
    QStringList said;
    for (const Step& step : steps)
        said << step.name + (step.isDone ? tr(", done") : tr(", to come")) +
                    (step.more.isEmpty() ? QString() : QStringLiteral(": ") + step.more);
    setAccessibleName(said.join(QStringLiteral("; ")));
    update();
}

void StepsView::paintEvent(QPaintEvent* /*event*/) {
    if (m_steps.isEmpty())
        return;
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double y = height() / 2.0;
    // Each as wide as its words, and the rest of the cord among them.
    const QFontMetricsF names(typeface(size::body, QFont::DemiBold));
    const QFontMetricsF mores(typeface(size::caption));
    QList<double> widths;
    double needed = 0;
    for (const Step& step : m_steps) {
        widths << 100 + names.horizontalAdvance(step.name) + mores.horizontalAdvance(step.more);
        needed += widths.back();
    }
    const double spare = (width() - needed) / static_cast<double>(m_steps.size());
    double left = 0;
    for (qsizetype i = 0; i < m_steps.size(); ++i) {
        const Step& step = m_steps[i];
        const double wide = widths[i] + spare;
        const bool isLast = i + 1 == m_steps.size();
        painter.setPen(QPen(c.cord, 2.4));
        painter.drawLine(QPointF(left, y), QPointF(left + 26, y));
        if (step.isDone)
            drawKnot(painter, {left + 36, y}, 9, isLast ? c.ink : c.cord);
        else {
            painter.setPen(QPen(c.cord, 2));
            painter.setBrush(c.ground);
            painter.drawEllipse(QPointF(left + 36, y), 7.5, 9);
        }
        painter.setFont(typeface(size::body, isLast && step.isDone ? QFont::DemiBold : QFont::Normal));
        painter.setPen(step.isDone ? c.ink : c.faint);
        const double name = painter.fontMetrics().horizontalAdvance(step.name);
        painter.drawText(QPointF(left + 52, y + 5), step.name);
        painter.setFont(typeface(size::caption));
        painter.setPen(c.faint);
        const double from = left + 52 + name + 12;
        const double end = isLast ? width() : left + wide - 16;
        const QString more = painter.fontMetrics().elidedText(step.more, Qt::ElideRight, static_cast<int>(end - from));
        painter.drawText(QPointF(from, y + 5), more);
        const double cord = from + painter.fontMetrics().horizontalAdvance(more) + (more.isEmpty() ? 0 : 12);
        if (cord < end) {
            painter.setPen(QPen(c.cord, 2.4));
            painter.drawLine(QPointF(cord, y), QPointF(isLast ? width() : left + wide - 1, y));
        }
        left += wide;
    }
}

} // namespace knot::app
