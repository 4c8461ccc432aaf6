#include "app/picture/power_view.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QPainter>
#include <QPolygonF>

namespace knot::app {

PowerView::PowerView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("power"));
    setAccessibleName(tr("How often a gap is seen"));
    setMinimumHeight(76);
}

void PowerView::setPicture(Picture picture) {
    m_picture = std::move(picture);
    layOut();
    update();
}

void PowerView::layOut() {
    m_layout = picture::layOutPower(m_picture.curve, width(), height());
}

void PowerView::resizeEvent(QResizeEvent*) {
    layOut();
}

void PowerView::paintEvent(QPaintEvent*) {
    if (m_layout.plan.empty())
        return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF field(m_layout.left, m_layout.top, m_layout.width, m_layout.height);
    // Below the worthwhile gap nothing needs to be seen.
    painter.fillRect(QRectF(field.topLeft(), QPointF(m_layout.worthwhileX, field.bottom())), colours().band);
    painter.setFont(typeface(size::caption));
    for (const auto& chance : m_layout.chances) {
        painter.setPen(QPen(colours().line, 1, chance.value == 80 ? Qt::DashLine : Qt::SolidLine));
        painter.drawLine(QPointF(field.left(), chance.at), QPointF(field.right(), chance.at));
        painter.setPen(colours().faint);
        drawTabular(painter, typeface(size::caption), QPointF(field.left() - 6, chance.at + 4),
                    QString::number(qRound(chance.value)), Align::right);
    }
    auto draw = [&](const std::vector<picture::PowerLayout::Point>& points, const QPen& pen) {
        QPolygonF line;
        for (const auto& point : points)
            line << QPointF(point.x, point.y);
        painter.setPen(pen);
        painter.drawPolyline(line);
    };
    draw(m_layout.runs, QPen(colours().faint, 1.5, Qt::DotLine));
    draw(m_layout.plan, QPen(colours().cord, 2.5));
    painter.setPen(colours().faint);
    for (const auto& gap : m_layout.gaps)
        drawTabular(painter, typeface(size::caption), QPointF(gap.at, field.bottom() + 16),
                    QString::fromStdString(record::fixed(gap.value, m_layout.decimals)), Align::centre);
    painter.drawText(
        QRectF(field.left(), field.bottom() + 18, field.width(), 16), Qt::AlignRight,
        tr("true gap, %1 · times in 100 it is seen: this plan, and dotted three shots each").arg(m_picture.unit));
}

} // namespace knot::app
