#include "app/plan_page/ways_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

namespace knot::app {
namespace {

constexpr double labelsRight = 150, labelsLeft = 34, labelsBelow = 34, margin = 8;
constexpr double lineHeight = 15;
constexpr double minutesStep = 5;

QPen penOf(plan::Way way, bool isLit) {
    const Colours& c = colours();
    const double wide = isLit ? 3 : 1.5;
    switch (way) {
    case plan::Way::asPlanned:
        return {c.cord, wide};
    case plan::Way::threeEach:
        return {c.faint, wide, Qt::DotLine};
    case plan::Way::twoSittings:
        return {c.ink, wide, Qt::DashLine};
    case plan::Way::withLooks:
        return {tagColour(1), wide, Qt::DashDotLine};
    case plan::Way::equalDelivery:
        return {tagColour(0), wide};
    case plan::Way::typicalShot:
        return {tagColour(3), wide, Qt::DashDotDotLine};
    case plan::Way::shortStints:
        return {c.ink, wide};
    }
    return {c.ink, wide};
}

} // namespace

WaysView::WaysView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("ways"));
    setMinimumHeight(116);
    setFocusPolicy(Qt::StrongFocus);
}

QString WaysView::nameOf(plan::Way way) {
    switch (way) {
    case plan::Way::asPlanned:
        return tr("stints as planned");
    case plan::Way::shortStints:
        return tr("best stints");
    case plan::Way::equalDelivery:
        return tr("at equal delivery");
    case plan::Way::typicalShot:
        return tr("the typical shot");
    case plan::Way::twoSittings:
        return tr("two sittings of that");
    case plan::Way::withLooks:
        return tr("with a look each lap");
    case plan::Way::threeEach:
        return tr("three shots each");
    }
    return {};
}

void WaysView::setPicture(Picture picture) {
    m_picture = std::move(picture);
    m_at = std::clamp(m_at, 0, std::max(0, static_cast<int>(m_picture.curves.size()) - 1));
    setAccessibleName(m_picture.measure == Measure::worth ? tr("What the plan is worth, by minutes")
                                                          : tr("How often the worthwhile gap is seen, by minutes"));
    setAccessibleDescription(said());
    update();
}

QString WaysView::said() const {
    if (m_picture.curves.empty())
        return {};
    const Curve& curve = m_picture.curves[static_cast<std::size_t>(m_at)];
    const QString name = nameOf(curve.way);
    if (!curve.now)
        return tr("%1: does not fit into %2 minutes").arg(name).arg(qRound(m_picture.minutes));
    return (m_picture.measure == Measure::worth ? tr("%1, %2 of %3 in %4 minutes: %5 of 100")
                                                : tr("%1, %2 of %3 in %4 minutes: seen %5 times in 100"))
        .arg(name, QString::fromStdString(record::counted(static_cast<std::size_t>(curve.now->rounds), "lap")))
        .arg(curve.now->turnLength)
        .arg(qRound(curve.now->minutes))
        .arg(qRound(100 * curve.now->chance));
}

QRectF WaysView::field() const {
    return {labelsLeft, margin, width() - labelsLeft - labelsRight, height() - margin - labelsBelow};
}

QPointF WaysView::placeOf(double minutes, double chance) const {
    const QRectF box = field();
    return {box.left() + (minutes - m_picture.first) / (m_picture.last - m_picture.first) * box.width(),
            box.bottom() - chance * box.height()};
}

// Beside the ends of the curves, none over another.
std::vector<double> WaysView::labelPlaces() const {
    const std::size_t n = m_picture.curves.size();
    std::vector<double> places(n);
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    for (std::size_t i = 0; i < n; ++i) {
        const auto& last = m_picture.curves[i].at.back();
        places[i] = placeOf(m_picture.last, last ? last->chance : 0).y();
    }
    std::ranges::sort(order, {}, [&](std::size_t i) { return places[i]; });
    double free = field().top() + 4;
    for (const std::size_t i : order)
        free = (places[i] = std::max(places[i], free)) + lineHeight;
    double lowest = height() - 6;
    for (auto i = order.rbegin(); i != order.rend(); ++i)
        lowest = (places[*i] = std::min(places[*i], lowest)) - lineHeight;
    return places;
}

void WaysView::paintEvent(QPaintEvent* /*event*/) {
    if (m_picture.curves.empty() || m_picture.curves.front().at.empty())
        return;
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF box = field();
    drawScale(painter, box);
    const auto places = labelPlaces();
    for (std::size_t i = 0; i < m_picture.curves.size(); ++i) {
        const Curve& curve = m_picture.curves[i];
        const bool isLit = static_cast<int>(i) == m_at;
        drawCurve(painter, curve, isLit);
        painter.setPen(penOf(curve.way, isLit));
        painter.drawLine(QPointF(box.right() + 6, places[i]), QPointF(box.right() + 22, places[i]));
        painter.setPen(isLit ? c.ink : c.faint);
        painter.setFont(typeface(size::caption, isLit && hasFocus() ? QFont::DemiBold : QFont::Normal));
        painter.drawText(QPointF(box.right() + 27, places[i] + 4), nameOf(curve.way));
    }
    drawMore(painter);
    drawPlan(painter);
}

void WaysView::drawScale(QPainter& painter, const QRectF& box) const {
    const Colours& c = colours();
    const bool isWorth = m_picture.measure == Measure::worth;
    for (const int inHundred : isWorth ? std::vector{0, 25, 50, 75, 100} : std::vector{0, 50, 80, 100}) {
        const double y = placeOf(m_picture.first, inHundred / 100.0).y();
        painter.setPen(QPen(c.line, 1, inHundred == (isWorth ? 75 : 80) ? Qt::DashLine : Qt::SolidLine));
        painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
        painter.setPen(c.faint);
        drawTabular(painter, typeface(size::caption), {box.left() - 6, y + 4}, QString::number(inHundred),
                    Align::right);
    }
    const double there = placeOf(m_picture.minutes, 0).x();
    painter.setPen(QPen(c.cord, 1));
    painter.drawLine(QPointF(there, box.top()), QPointF(there, box.bottom()));
    painter.setPen(c.faint);
    const double tick = m_picture.last > 150 ? 60 : 15;
    for (double minutes = tick; minutes < m_picture.last - tick / 4; minutes += tick)
        if (minutes >= m_picture.first)
            drawTabular(painter, typeface(size::caption), {placeOf(minutes, 0).x(), box.bottom() + 16},
                        QString::number(minutes), Align::centre);
    painter.setFont(typeface(size::caption));
    painter.drawText(QRectF(box.left(), box.bottom() + 18, box.width(), 16), Qt::AlignRight,
                     isWorth ? tr("minutes · of 100 that there are to be had")
                             : tr("minutes · times in 100 the worthwhile gap is seen"));
}

// Three shots each take the minutes they take, and more minutes make them no better: a place, not a curve.
void WaysView::drawCurve(QPainter& painter, const Curve& curve, bool isLit) const {
    const Colours& c = colours();
    if (curve.way == plan::Way::threeEach && m_picture.measure == Measure::worth) {
        const auto there = std::ranges::find_if(curve.at, [](const auto& one) { return one.has_value(); });
        if (there == curve.at.end())
            return;
        const QPointF at = placeOf(std::max(m_picture.first, (*there)->minutes), (*there)->chance);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(c.alarm, isLit ? 2.4 : 1.6));
        painter.drawEllipse(at, 5, 6);
        painter.drawLine(at + QPointF(-2, 3), at + QPointF(2, -3));
        return;
    }
    QPainterPath path;
    for (std::size_t k = 0; k < curve.at.size(); ++k) {
        if (!curve.at[k])
            continue;
        const double minutes = m_picture.first + (m_picture.last - m_picture.first) * static_cast<double>(k) /
                                                     static_cast<double>(curve.at.size() - 1);
        const QPointF point = placeOf(minutes, curve.at[k]->chance);
        path.elementCount() == 0 ? path.moveTo(point) : path.lineTo(point);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(penOf(curve.way, isLit));
    painter.drawPath(path);
    if (isLit && curve.now) {
        painter.setBrush(penOf(curve.way, true).color());
        painter.setPen(Qt::NoPen);
        painter.drawEllipse(placeOf(m_picture.minutes, curve.now->chance), 4.5, 4.5);
    }
}

void WaysView::drawPlan(QPainter& painter) const {
    if (!m_picture.plan)
        return;
    const QPointF at = placeOf(std::clamp(m_picture.plan->x(), m_picture.first, m_picture.last), m_picture.plan->y());
    drawKnot(painter, at, 9, colours().ink);
    painter.setPen(colours().ink);
    painter.setFont(typeface(size::caption, QFont::DemiBold));
    const QString text = tr("this plan");
    const double wide = painter.fontMetrics().horizontalAdvance(text);
    const double x = std::max(at.x() - wide - 10, field().left()); // what more minutes bring stands to the right
    painter.drawText(QPointF(x, at.y() + 24), text);
}

// What a quarter of an hour more would bring to the plan's own way.
void WaysView::drawMore(QPainter& painter) const {
    constexpr double more = 15;
    if (!m_picture.plan || m_picture.measure != Measure::worth)
        return;
    const double minutes = m_picture.plan->x() + more;
    if (minutes > m_picture.last)
        return;
    const auto own = std::ranges::find(m_picture.curves, plan::Way::asPlanned, &Curve::way);
    if (own == m_picture.curves.end())
        return;
    const double steps = static_cast<double>(own->at.size() - 1);
    const auto at =
        static_cast<std::size_t>(std::floor((minutes - m_picture.first) / (m_picture.last - m_picture.first) * steps));
    if (at >= own->at.size() || !own->at[at])
        return;
    const int gain = qRound(100 * (own->at[at]->chance - m_picture.plan->y()));
    if (gain < 1)
        return;
    const QPointF there = placeOf(minutes, own->at[at]->chance);
    painter.setPen(QPen(colours().faint, 1));
    painter.drawLine(there + QPointF(0, 5), there + QPointF(0, 16));
    painter.setFont(typeface(size::caption));
    painter.drawText(there + QPointF(5, 19), tr("15 minutes more: + %1").arg(gain));
}

void WaysView::look(int at) {
    m_at = std::clamp(at, 0, std::max(0, static_cast<int>(m_picture.curves.size()) - 1));
    setAccessibleDescription(said());
    update();
    emit looked();
}

void WaysView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Left:
        return emit minutesWanted(std::max(minutesStep, m_picture.minutes - minutesStep));
    case Qt::Key_Right:
        return emit minutesWanted(m_picture.minutes + minutesStep);
    case Qt::Key_Up:
        return look(m_at - 1);
    case Qt::Key_Down:
        return look(m_at + 1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (!m_picture.curves.empty())
            if (const auto& now = m_picture.curves[static_cast<std::size_t>(m_at)].now)
                emit taken(plan::WayOption(*now)); // the picture may be made anew meanwhile
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

void WaysView::mousePressEvent(QMouseEvent* event) {
    const QRectF box = field();
    const QPointF at = event->position();
    if (at.x() > box.right()) {
        const auto places = labelPlaces();
        for (std::size_t i = 0; i < places.size(); ++i)
            if (std::abs(at.y() - places[i]) < lineHeight / 2)
                look(static_cast<int>(i));
        return;
    }
    const double share = std::clamp((at.x() - box.left()) / std::max(1.0, box.width()), 0.0, 1.0);
    const double minutes = m_picture.first + share * (m_picture.last - m_picture.first);
    emit minutesWanted(std::max(minutesStep, minutesStep * std::round(minutes / minutesStep)));
}

void WaysView::focusInEvent(QFocusEvent* event) {
    QWidget::focusInEvent(event);
    update();
}

void WaysView::focusOutEvent(QFocusEvent* event) {
    QWidget::focusOutEvent(event);
    update();
}

} // namespace knot::app
