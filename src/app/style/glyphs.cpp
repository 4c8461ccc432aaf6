#include "app/style/glyphs.h"

#include "app/style/palette.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace knot::app {
namespace {

QPolygonF regular(QPointF centre, double radius, int corners, double turn) {
    QPolygonF polygon;
    for (int i = 0; i < corners; ++i) {
        const double angle = (turn + 360.0 * i / corners) * std::numbers::pi / 180;
        polygon << centre + QPointF(radius * std::sin(angle), -radius * std::cos(angle));
    }
    return polygon;
}

QPainterPath tagPath(const QRectF& box, std::size_t shape) {
    const QPointF c = box.center();
    const double r = box.width() / 2;
    QPainterPath path;
    switch (shape % 8) {
    case 0:
        path.addRect(QRectF(c.x() - 0.86 * r, c.y() - 0.86 * r, 1.72 * r, 1.72 * r));
        break;
    case 1:
        path.addPolygon(regular(c + QPointF(0, 0.18 * r), 1.12 * r, 3, 0));
        break;
    case 2:
        path.addEllipse(c, 0.95 * r, 0.95 * r);
        break;
    case 3:
        path.addPolygon(regular(c, 1.1 * r, 4, 0));
        break;
    case 4:
        path.addPolygon(regular(c - QPointF(0, 0.18 * r), 1.12 * r, 3, 180));
        break;
    case 5:
        path.addPolygon(regular(c, 1.05 * r, 6, 0));
        break;
    case 6:
        path.addRect(QRectF(c.x() - r, c.y() - 0.5 * r, 2 * r, r));
        break;
    default:
        path.addRect(QRectF(c.x() - 0.33 * r, c.y() - r, 0.66 * r, 2 * r));
        path.addRect(QRectF(c.x() - r, c.y() - 0.33 * r, 2 * r, 0.66 * r));
        path.setFillRule(Qt::WindingFill);
    }
    path.closeSubpath();
    return path;
}

} // namespace

void drawTag(QPainter& painter, const QRectF& box, std::size_t build) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QColor colour = tagColour(build);
    const bool hollow = build >= 8;
    painter.setPen(hollow ? QPen(colour, 2) : QPen(Qt::NoPen));
    painter.setBrush(hollow ? QBrush(Qt::NoBrush) : QBrush(colour));
    painter.drawPath(tagPath(hollow ? box.adjusted(1, 1, -1, -1) : box, build));
    painter.restore();
}

QString clubName(const QFontMetrics& metrics, const QString& name, double width, const QStringList& all) {
    if (metrics.horizontalAdvance(name) <= width)
        return name;
    QString own = name;
    for (qsizetype end = name.indexOf(u' '); end > 0; end = name.indexOf(u' ', end + 1)) {
        const QString begins = name.left(end + 1);
        const bool isShared =
            std::ranges::any_of(all, [&](const QString& other) { return other != name && other.startsWith(begins); });
        if (!isShared)
            break;
        own = QStringLiteral("…") + name.mid(end + 1);
        if (metrics.horizontalAdvance(own) <= width)
            break;
    }
    return metrics.elidedText(own, Qt::ElideMiddle, static_cast<int>(width));
}

QString clubName(const QPainter& painter, const QString& name, double width, const QStringList& all) {
    return clubName(painter.fontMetrics(), name, width, all);
}

void drawKnot(QPainter& painter, QPointF centre, double radius, const QColor& colour) {
    if (radius <= 1.5) { // too small to be seen as round, and there are thousands of them
        painter.fillRect(QRectF(centre.x() - 0.8 * radius, centre.y() - 0.9 * radius, 1.6 * radius, 1.8 * radius),
                         colour);
        return;
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawEllipse(centre, 0.88 * radius, radius);
    if (radius < 3)
        return;
    painter.setPen(QPen(colours().sheet, std::max(0.9, radius / 5), Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(centre + QPointF(-0.38 * radius, 0.5 * radius), centre + QPointF(0.38 * radius, -0.5 * radius));
}

void drawVerdict(QPainter& painter, const QRectF& box, judge::Verdict verdict, const QColor& frayed) {
    using judge::Verdict;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QColor ink = colours().ink;
    const QPointF c = box.center();
    const double w = box.width() / 2;
    auto pen = [&](double width, const QColor& colour) {
        painter.setPen(QPen(colour, width, Qt::SolidLine, Qt::RoundCap));
        painter.setBrush(Qt::NoBrush);
    };
    auto cord = [&](double width, const QColor& colour, double dy = 0) {
        pen(width, colour);
        painter.drawLine(c + QPointF(-w, dy), c + QPointF(w, dy));
    };
    switch (verdict) {
    case Verdict::real:
        cord(2.6, ink);
        drawKnot(painter, c, 0.58 * w, ink);
        break;
    case Verdict::slight:
        cord(1.6, ink);
        drawKnot(painter, c, 0.27 * w, ink);
        break;
    case Verdict::same:
        cord(1.7, colours().faint, -3);
        cord(1.7, colours().faint, 3);
        break;
    case Verdict::realSizeOpen: {
        cord(2.2, ink);
        painter.setBrush(colours().sheet);
        painter.setPen(QPen(ink, 2));
        painter.drawEllipse(c, 0.46 * w, 0.56 * w);
        pen(2, ink);
        painter.drawLine(c + QPointF(-0.2 * w, 0.3 * w), c + QPointF(0.2 * w, -0.3 * w));
        break;
    }
    case Verdict::open: {
        // A loop that was never drawn tight.
        QPainterPath loop(c + QPointF(-w, 4));
        loop.cubicTo(c + QPointF(0.9 * w, 5), c + QPointF(0.75 * w, -0.75 * w), c + QPointF(0, -0.55 * w));
        loop.cubicTo(c + QPointF(-0.75 * w, -0.35 * w), c + QPointF(-0.4 * w, 5), c + QPointF(w, 4));
        pen(1.6, colours().faint);
        painter.drawPath(loop);
        break;
    }
    case Verdict::uncontrolled:
        pen(2.2, frayed.isValid() ? frayed : colours().alarm);
        painter.drawLine(c + QPointF(-w, 0), c + QPointF(0.1 * w, 0));
        pen(1.3, frayed.isValid() ? frayed : colours().alarm);
        for (const double dy : {-0.5, -0.18, 0.18, 0.5})
            painter.drawLine(c + QPointF(0.1 * w, 0), c + QPointF(0.95 * w, dy * w));
        break;
    }
    painter.restore();
}

} // namespace knot::app
