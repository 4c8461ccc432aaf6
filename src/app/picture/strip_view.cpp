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

void StripView::setPlan(const std::vector<record::PlannedTurn>& turns, const QStringList& names,
                        const QStringList& players) {
    if (turns == m_turns && names == m_names && players == m_players)
        return;
    m_players = players;
    m_turns = turns;
    m_layoutWidth = -1;
    m_names = names;
    QString spoken;
    for (const auto& turn : turns)
        spoken += tr("%1 %2 %3, ")
                      .arg(roundText(turn.round, turn.player), names.value(static_cast<qsizetype>(turn.build)))
                      .arg(turn.shots);
    setAccessibleDescription(spoken);
    updateGeometry();
    update();
}

// Of several players by the first of their names: there is little room.
QString StripView::roundText(int round, record::PlayerAt player) const {
    const QString lap = tr("lap %1").arg(round);
    return m_players.size() < 2
               ? lap
               : tr("%1, %2").arg(m_players.value(static_cast<qsizetype>(player)).section(QLatin1Char(' '), 0, 0), lap);
}

QSize StripView::sizeHint() const {
    return {600, heightForWidth(std::max(width(), 600))};
}

const picture::StripLayout& StripView::layoutFor(int width) const {
    if (m_layoutWidth != width) {
        m_layout = picture::layoutStrip(m_turns, width - 24);
        m_layoutWidth = width;
    }
    return m_layout;
}

int StripView::heightForWidth(int width) const {
    return std::max(46, static_cast<int>(layoutFor(width).height));
}

void StripView::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (m_turns.empty()) {
        painter.setPen(colours().faint);
        painter.drawText(rect(), Qt::AlignVCenter | Qt::AlignLeft,
                         m_names.size() < 2 ? tr("Two clubs on the rack make a plan.")
                                            : tr("These shots have no plan. Ctrl+L makes a new test of the clubs."));
        return;
    }
    const auto& layout = layoutFor(width());
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().faint);
    // What is out of sight costs nothing, however many laps there are.
    const auto isSeen = [top = event->rect().top() - 30, bottom = event->rect().bottom() + 30](double y) {
        return y > top && y < bottom;
    };
    for (const auto& round : layout.rounds)
        if (isSeen(round.y))
            painter.drawText(QPointF(round.left, round.y + 24), roundText(round.round, round.player));
    for (const auto& placed : layout.turns)
        if (isSeen(placed.y))
            drawTurn(painter, placed, layout.knotRadius);
    if (!m_changeable)
        return;
    painter.setPen(QPen(hasFocus() ? colours().cord : colours().line, 2));
    painter.setBrush(colours().sheet);
    painter.drawRoundedRect(QRectF(layout.endX + 6, layout.endY - 9, 8, 18), 3, 3);
}

void StripView::drawTurn(QPainter& painter, const picture::PlacedTurn& placed, double radius) const {
    const auto& turn = m_turns[placed.turn];
    const bool unknown = m_unknownFrom && placed.turn >= *m_unknownFrom;
    QColor colour = unknown ? colours().faint : tagColour(turn.build);
    const int tied = m_tied ? (*m_tied)[placed.turn] : turn.shots;
    const bool current = m_current == placed.turn;
    if (m_tied && tied == 0 && !current)
        colour.setAlpha(turn.ended ? 60 : 130);
    painter.setPen(QPen(colour, current ? 4 : 2.5));
    painter.drawLine(QPointF(placed.left, placed.y), QPointF(placed.right, placed.y));
    for (std::size_t i = 0; i < placed.knots.size(); ++i) {
        const QPointF centre(placed.knots[i], placed.y);
        if (static_cast<int>(i) < tied) {
            drawKnot(painter, centre, radius, colour);
        } else {
            painter.setPen(QPen(colour, 1.3));
            painter.setBrush(colours().ground);
            painter.drawEllipse(centre, 0.8 * radius, 0.9 * radius);
        }
    }
    const QRectF tag((placed.left + placed.right) / 2 - 4, placed.y - 15, 8, 8);
    if (turn.ended && tied < turn.shots) { // struck through
        painter.setPen(QPen(colours().faint, 1.2));
        painter.drawLine(QPointF(placed.left - 2, placed.y + 6), QPointF(placed.right + 2, placed.y - 6));
    }
    if (!unknown) // the tag's shape above the turn tells clubs apart without colour
        drawTag(painter, tag, turn.build);
    if (placed.turn > 0 && m_turns[placed.turn - 1].build == turn.build && !unknown) {
        painter.setPen(QPen(colours().ink, 1.2)); // handed over anew
        painter.drawLine(QPointF(placed.left - 3, placed.y - 6), QPointF(placed.left - 3, placed.y + 6));
    }
}

void StripView::setProgress(std::vector<int> tied, std::optional<std::size_t> current,
                            std::optional<std::size_t> unknownFrom) {
    m_tied = std::move(tied);
    m_tied->resize(m_turns.size());
    m_current = current;
    m_unknownFrom = unknownFrom;
    update();
}

void StripView::setUnknownFrom(std::optional<std::size_t> turn) {
    m_unknownFrom = turn;
    update();
}

int StripView::turnY(std::size_t turn) const {
    const auto& layout = layoutFor(width());
    return turn < layout.turns.size() ? static_cast<int>(layout.turns[turn].y) : 0;
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
    const auto& layout = layoutFor(width());
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

QStringList playersOf(const record::Test& test) {
    QStringList names;
    for (const record::Player& player : test.players)
        names << QString::fromStdString(player.name);
    return names;
}

} // namespace knot::app
