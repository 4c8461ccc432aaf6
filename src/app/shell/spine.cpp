#include "app/shell/spine.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace knot::app {
namespace {

constexpr double cordX = 28;
constexpr double firstKnot = 112;
constexpr double stagePitch = 64;

} // namespace

Spine::Spine(const QStringList& stages, QWidget* parent)
    : QWidget(parent)
    , m_stages(stages)
    , m_reachable(stages.size(), true) {
    setObjectName(QStringLiteral("spine"));
    setAccessibleName(tr("Stages"));
    setFocusPolicy(Qt::TabFocus);
    setFixedWidth(size::spineWidth);
}

void Spine::setCurrent(int stage) {
    m_current = stage;
    setAccessibleDescription(m_stages.value(stage));
    update();
}

void Spine::setReachable(int stage, bool reachable) {
    m_reachable[stage] = reachable;
    update();
}

double Spine::knotY(int stage) const {
    return firstKnot + stagePitch * stage;
}

QSize Spine::sizeHint() const {
    return {size::spineWidth, static_cast<int>(knotY(static_cast<int>(m_stages.size())))};
}

void Spine::choose(int stage) {
    if (stage >= 0 && stage < m_stages.size() && m_reachable[stage])
        emit chosen(stage);
}

void Spine::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < m_stages.size(); ++i)
        if (std::abs(event->position().y() - knotY(i)) < stagePitch / 2)
            choose(i);
}

void Spine::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Down)
        choose(m_current + 1);
    else if (event->key() == Qt::Key_Up)
        choose(m_current - 1);
    else
        QWidget::keyPressEvent(event);
}

void Spine::paintEvent(QPaintEvent*) {
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), c.spine);
    painter.setFont(typeface(17, QFont::Bold));
    painter.setPen(c.ink);
    painter.drawText(QPointF(18, 36), tr("knot"));
    painter.setPen(c.cord);
    painter.drawText(QPointF(18, 55), tr("count"));
    // The cord runs on past the last stage and frays out of the window.
    painter.setPen(QPen(c.cord, 3));
    painter.drawLine(QPointF(cordX, 76), QPointF(cordX, height()));
    for (int i = 0; i < m_stages.size(); ++i) {
        const QPointF knot(cordX, knotY(i));
        const bool here = i == m_current;
        if (here) {
            painter.setPen(hasFocus() ? QPen(c.cord, 1.5) : QPen(Qt::NoPen));
            painter.setBrush(c.ground);
            painter.drawRoundedRect(QRectF(10, knot.y() - 22, width() - 18, 44), 6, 6);
            painter.setPen(QPen(c.cord, 3));
            painter.drawLine(QPointF(cordX, knot.y() - 22), QPointF(cordX, knot.y() + 22));
        }
        drawKnot(painter, knot, here ? 9 : 7, here ? c.ink : c.cord);
        if (!m_reachable[i]) {
            painter.setPen(QPen(c.cord, 1.5));
            painter.setBrush(c.spine);
            painter.drawEllipse(knot, 6, 7);
        }
        painter.setFont(typeface(size::body, here ? QFont::DemiBold : QFont::Normal));
        painter.setPen(here ? c.ink : m_reachable[i] ? c.ink : c.faint);
        painter.drawText(QRectF(46, knot.y() - 14, width() - 46, 28), Qt::AlignVCenter, m_stages[i]);
    }
}

} // namespace knot::app
