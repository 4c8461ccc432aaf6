#include "app/picture/strip_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <cmath>

namespace knot::app {

StripView::StripView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("strip"));
    setAccessibleName(tr("Laps and stints"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void StripView::setPlan(const std::vector<record::PlannedTurn>& turns, const QStringList& names) {
    m_turns = turns;
    m_names = names;
    QString spoken;
    for (const auto& turn : turns)
        spoken +=
            tr("lap %1 %2 %3, ").arg(turn.round).arg(names.value(static_cast<qsizetype>(turn.build))).arg(turn.shots);
    setAccessibleDescription(spoken);
    updateGeometry();
    update();
}

QSize StripView::sizeHint() const {
    return {600, heightForWidth(std::max(width(), 600))};
}

int StripView::heightForWidth(int width) const {
    return std::max(46, static_cast<int>(picture::layoutStrip(m_turns, width - 24).height));
}

void StripView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (m_turns.empty()) {
        painter.setPen(colours().faint);
        painter.drawText(rect(), Qt::AlignVCenter | Qt::AlignLeft, tr("Two clubs on the rack make a plan."));
        return;
    }
    const auto layout = picture::layoutStrip(m_turns, width() - 24);
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().faint);
    for (const auto& round : layout.rounds)
        painter.drawText(QPointF(round.left, round.y + 24), tr("lap %1").arg(round.round));
    for (const auto& placed : layout.turns) {
        const auto& turn = m_turns[placed.turn];
        const QColor colour = tagColour(turn.build);
        painter.setPen(QPen(colour, 2.5));
        painter.drawLine(QPointF(placed.left, placed.y), QPointF(placed.right, placed.y));
        for (const double x : placed.knots)
            drawKnot(painter, {x, placed.y}, layout.knotRadius, colour);
        // The tag's shape above the turn tells clubs apart without colour.
        drawTag(painter, QRectF((placed.left + placed.right) / 2 - 4, placed.y - 15, 8, 8), turn.build);
        if (placed.turn > 0 && m_turns[placed.turn - 1].build == turn.build) {
            painter.setPen(QPen(colours().ink, 1.2)); // handed over anew
            painter.drawLine(QPointF(placed.left - 3, placed.y - 6), QPointF(placed.left - 3, placed.y + 6));
        }
    }
    if (!m_changeable)
        return;
    painter.setPen(QPen(hasFocus() ? colours().cord : colours().line, 2));
    painter.setBrush(colours().sheet);
    painter.drawRoundedRect(QRectF(layout.endX + 6, layout.endY - 9, 8, 18), 3, 3);
}

void StripView::keyPressEvent(QKeyEvent* event) {
    if (!m_changeable)
        return QWidget::keyPressEvent(event);
    switch (event->key()) {
    case Qt::Key_Right:
        return emit lapsWanted(1);
    case Qt::Key_Left:
        return emit lapsWanted(-1);
    case Qt::Key_Up:
        return emit lengthWanted(1);
    case Qt::Key_Down:
        return emit lengthWanted(-1);
    default:
        QWidget::keyPressEvent(event);
    }
}

void StripView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (m_changeable && !m_turns.empty())
        m_grip = event->position();
}

void StripView::mouseMoveEvent(QMouseEvent* event) {
    const auto layout = picture::layoutStrip(m_turns, width() - 24);
    if (!m_grip) {
        const auto turn = picture::turnAt(layout, event->position().x(), event->position().y());
        if (turn)
            QToolTip::showText(event->globalPosition().toPoint(),
                               m_names.value(static_cast<qsizetype>(m_turns[*turn].build)), this);
        return;
    }
    const QPointF moved = event->position() - *m_grip;
    if (std::fabs(moved.x()) > layout.lapWidth / 2) {
        m_grip = event->position();
        emit lapsWanted(moved.x() > 0 ? 1 : -1);
    } else if (std::fabs(moved.y()) > 20) {
        m_grip = event->position();
        emit lengthWanted(moved.y() < 0 ? 1 : -1);
    }
}

void StripView::mouseReleaseEvent(QMouseEvent*) {
    m_grip.reset();
}

} // namespace knot::app
