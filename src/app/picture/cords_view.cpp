#include "app/picture/cords_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/number_text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace knot::app {
namespace {

constexpr double nameWidth = 116;
constexpr double axisHeight = 44;
constexpr double meanRoom = 54;

// The interval of a mean as a whipping wound around the cord's end.
void drawWhipping(QPainter& painter, const picture::PlacedCord& cord, double height, const QColor& colour) {
    const QRectF bar(*cord.lowX, cord.intervalY - height / 2, std::max(2.0, *cord.highX - *cord.lowX), height);
    QPainterPath shape;
    shape.addRoundedRect(bar, 2.5, 2.5);
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPath(shape);
    painter.save();
    painter.setClipPath(shape);
    QColor thread = colours().sheet;
    thread.setAlphaF(0.55F);
    painter.setPen(QPen(thread, 1.2));
    for (double x = bar.left() - height; x < bar.right() + height; x += 5)
        painter.drawLine(QPointF(x, bar.bottom() + 1), QPointF(x + 0.6 * height, bar.top() - 1));
    painter.restore();
    painter.setPen(QPen(colours().ink, 2));
    painter.drawLine(QPointF(cord.meanX, bar.top() - 3), QPointF(cord.meanX, bar.bottom() + 3));
}

void drawBand(QPainter& painter, const picture::CordsLayout& layout) {
    if (!layout.hasBand)
        return;
    painter.fillRect(
        QRectF(layout.bandLeft, layout.top, layout.bandRight - layout.bandLeft, layout.bottom - layout.top + 6),
        colours().band);
}

void drawAxis(QPainter& painter, const picture::CordsLayout& layout, const QString& unit) {
    const double y = layout.bottom + 10;
    painter.setPen(QPen(colours().faint, 1));
    for (const double tick : layout.axis.ticks) {
        const double x = layout.axis.pixel(tick);
        painter.drawLine(QPointF(x, y), QPointF(x, y + 5));
        drawTabular(painter, typeface(size::caption), QPointF(x, y + 19),
                    QString::fromStdString(record::fixed(tick, layout.axis.decimals)), Align::centre);
    }
    drawTabular(painter, typeface(size::caption), QPointF(layout.axis.pixelLow - 14, y + 19), unit, Align::right);
    if (!layout.hasBand)
        return;
    painter.setFont(typeface(size::caption));
    const QString text = CordsView::tr("too small to matter");
    const double width = painter.fontMetrics().horizontalAdvance(text);
    const double centre = std::clamp((layout.bandLeft + layout.bandRight) / 2, layout.axis.pixelLow + width / 2,
                                     layout.axis.pixelHigh - width / 2);
    painter.setPen(colours().cord.darker(theme() == Theme::light ? 130 : 90));
    painter.drawText(QPointF(centre - width / 2, y + 34), text);
}

void drawName(QPainter& painter, const CordsPicture& picture, std::size_t i, const picture::PlacedCord& cord,
              double left) {
    const int row = static_cast<int>(i);
    drawTag(painter, QRectF(left, cord.y - 6, 13, 13), picture.builds[i]);
    painter.setPen(colours().ink);
    painter.setFont(typeface(size::strong, QFont::DemiBold));
    const auto elide = [&](const QString& text) {
        return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(nameWidth - 26));
    };
    painter.drawText(QPointF(left + 22, cord.y + 5), elide(picture.names[row]));
    if (picture.notes[row].isEmpty())
        return;
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().faint);
    painter.drawText(QPointF(left + 22, cord.y + 21), elide(picture.notes[row]));
}

} // namespace

picture::CordsLayout cordsLayout(const CordsPicture& picture, const QRectF& box) {
    return picture::layOutCords(
        picture.data, {box.left() + nameWidth, box.top() + 4, box.right() - meanRoom, box.bottom() - axisHeight});
}

void paintCords(QPainter& painter, const CordsPicture& picture, const picture::CordsLayout& layout, const QRectF& box,
                std::optional<std::size_t> lit) {
    painter.setRenderHint(QPainter::Antialiasing);
    if (layout.cords.empty())
        return;
    drawBand(painter, layout);
    for (std::size_t i = 0; i < layout.cords.size(); ++i) {
        const auto& cord = layout.cords[i];
        const QColor colour = tagColour(picture.builds[i]);
        QColor line = colour;
        line.setAlphaF(0.65F);
        painter.setPen(QPen(line, 3));
        painter.drawLine(QPointF(layout.axis.pixelLow, cord.y), QPointF(layout.axis.pixelHigh, cord.y));
        if (cord.lowX)
            drawWhipping(painter, cord, 9, colour);
        drawName(painter, picture, i, cord, box.left());
        painter.setPen(colours().ink);
        const double labelX = cord.highX ? std::max(*cord.highX, cord.meanX) + 10 : cord.meanX + 10;
        drawTabular(painter, typeface(size::body, QFont::DemiBold),
                    QPointF(std::min(labelX, layout.axis.pixelHigh + 6), cord.intervalY + 5),
                    picture.means[static_cast<int>(i)], Align::left);
    }
    for (const auto& knot : layout.knots)
        drawKnot(painter, {knot.x, knot.y}, layout.knotRadius, tagColour(picture.builds[knot.cord]));
    if (lit && *lit < layout.knots.size()) {
        const auto& knot = layout.knots[*lit];
        drawKnot(painter, {knot.x, knot.y}, layout.knotRadius + 3, colours().ink);
    }
    drawAxis(painter, layout, picture.unit);
}

CordsView::CordsView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("cords"));
    setAccessibleName(tr("Cords: every counted shot"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(420, 200);
}

void CordsView::setPicture(CordsPicture picture) {
    m_picture = std::move(picture);
    m_layout = cordsLayout(m_picture, rect());
    light(std::nullopt);
    update();
}

QString CordsView::litText() const {
    if (!m_lit || *m_lit >= m_layout.knots.size())
        return {};
    return m_picture.knotTexts.value(static_cast<int>(m_layout.knots[*m_lit].shot));
}

void CordsView::light(std::optional<std::size_t> knot) {
    if (knot == m_lit)
        return;
    m_lit = knot;
    setAccessibleDescription(litText());
    emit litChanged(litText());
    update();
}

void CordsView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    paintCords(painter, m_picture, m_layout, rect(), m_lit);
    if (hasFocus()) {
        painter.setPen(QPen(colours().cord, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
    }
}

void CordsView::resizeEvent(QResizeEvent* event) {
    m_layout = cordsLayout(m_picture, rect());
    QWidget::resizeEvent(event);
}

void CordsView::mouseMoveEvent(QMouseEvent* event) {
    light(m_layout.knotAt(event->position().x(), event->position().y()));
}

void CordsView::leaveEvent(QEvent*) {
    light(std::nullopt);
}

void CordsView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Right:
        return step(1, 0);
    case Qt::Key_Left:
        return step(-1, 0);
    case Qt::Key_Down:
        return step(0, 1);
    case Qt::Key_Up:
        return step(0, -1);
    default:
        QWidget::keyPressEvent(event);
    }
}

void CordsView::step(int along, int across) {
    const auto& layout = m_layout;
    if (layout.knots.empty())
        return;
    const auto& from = layout.knots[m_lit.value_or(0)];
    std::vector<std::size_t> cord;
    const auto wanted = static_cast<std::size_t>(
        std::clamp(static_cast<int>(from.cord) + across, 0, static_cast<int>(layout.cords.size()) - 1));
    for (std::size_t i = 0; i < layout.knots.size(); ++i)
        if (layout.knots[i].cord == wanted)
            cord.push_back(i);
    if (cord.empty())
        return;
    std::ranges::stable_sort(cord, {}, [&](std::size_t i) { return layout.knots[i].value; });
    if (across != 0 || !m_lit) {
        const auto nearest =
            std::ranges::min_element(cord, {}, [&](std::size_t i) { return std::abs(layout.knots[i].x - from.x); });
        return light(m_lit ? *nearest : cord.front());
    }
    const auto here = std::ranges::find(cord, *m_lit) - cord.begin();
    const auto next = std::clamp<std::ptrdiff_t>(here + along, 0, static_cast<std::ptrdiff_t>(cord.size()) - 1);
    light(cord[static_cast<std::size_t>(next)]);
}

} // namespace knot::app
