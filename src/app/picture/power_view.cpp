#include "app/picture/power_view.h"

#include "app/picture/axis.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/number_text.h"

#include <QPainter>
#include <QPainterPath>

namespace knot::app {

PowerView::PowerView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("power"));
    setAccessibleName(tr("How often a gap is seen"));
    setMinimumHeight(84);
}

void PowerView::setPicture(Picture picture) {
    m_picture = std::move(picture);
    update();
}

void PowerView::paintEvent(QPaintEvent*) {
    if (m_picture.plan.size() < 2)
        return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF field(34, 8, width() - 34 - 8, height() - 8 - 34);
    auto x = [&](double gap) { return field.left() + gap / m_picture.largest * field.width(); };
    auto y = [&](double chance) { return field.bottom() - chance * field.height(); };
    // Below the worthwhile gap nothing needs to be seen.
    painter.fillRect(QRectF(field.left(), field.top(), x(m_picture.worthwhile) - field.left(), field.height()),
                     colours().band);
    painter.setFont(typeface(size::caption));
    for (const double chance : {0.0, 0.5, 0.8, 1.0}) {
        painter.setPen(QPen(colours().line, 1, chance == 0.8 ? Qt::DashLine : Qt::SolidLine));
        painter.drawLine(QPointF(field.left(), y(chance)), QPointF(field.right(), y(chance)));
        painter.setPen(colours().faint);
        drawTabular(painter, typeface(size::caption), QPointF(field.left() - 6, y(chance) + 4),
                    QString::number(qRound(100 * chance)), Align::right);
    }
    auto curve = [&](const std::vector<double>& chances, const QPen& pen) {
        QPainterPath path;
        for (std::size_t i = 0; i < chances.size(); ++i) {
            const QPointF at(x(m_picture.largest * static_cast<double>(i) / static_cast<double>(chances.size() - 1)),
                             y(chances[i]));
            i == 0 ? path.moveTo(at) : path.lineTo(at);
        }
        painter.strokePath(path, pen);
    };
    curve(m_picture.runs, QPen(colours().faint, 1.5, Qt::DotLine));
    curve(m_picture.plan, QPen(colours().cord, 2.5));
    const picture::Axis axis = picture::niceAxis(0, m_picture.largest, field.left(), field.right(), 8);
    painter.setPen(colours().faint);
    for (const double tick : axis.ticks)
        if (tick <= m_picture.largest * 1.0001)
            drawTabular(painter, typeface(size::caption), QPointF(x(tick), field.bottom() + 16),
                        QString::fromStdString(record::fixed(tick, axis.decimals)), Align::centre);
    painter.drawText(
        QRectF(field.left(), field.bottom() + 18, field.width(), 16), Qt::AlignRight,
        tr("true gap, %1 · times in 100 it is seen: this plan, and dotted three shots each").arg(m_picture.unit));
}

} // namespace knot::app
