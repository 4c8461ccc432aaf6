#include "app/bay_page/entry/face_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <cmath>

namespace knot::app {
namespace {

constexpr double stepMm = 2;

} // namespace

FaceView::FaceView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("face"));
    setAccessibleName(tr("Where on the face"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    describe();
    layOut();
}

void FaceView::setFace(picture::FaceKind kind, picture::Toe toe) {
    if (kind == m_kind && toe == m_toe)
        return;
    m_kind = kind;
    m_toe = toe;
    layOut();
    update();
}

void FaceView::setStrikes(const std::vector<Strike>& earlier, std::optional<Strike> last, std::size_t build) {
    m_earlier = earlier;
    m_last = last;
    m_build = build;
    describe();
    update();
}

void FaceView::setChangeable(bool changeable) {
    m_changeable = changeable;
    setCursor(changeable ? Qt::CrossCursor : Qt::ArrowCursor);
}

void FaceView::describe() {
    setAccessibleDescription(m_last ? tr("%1 mm toward the toe, %2 mm above the middle")
                                          .arg(std::round(m_last->toe))
                                          .arg(std::round(m_last->high))
                                    : tr("no strike point"));
}

void FaceView::layOut() {
    m_layout = picture::layOutFace(m_kind, m_toe, 0, 0, width(), height() - 18);
}

void FaceView::resizeEvent(QResizeEvent*) {
    layOut();
}

void FaceView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& face = m_layout;
    QPolygonF outline;
    for (const auto& point : face.outline)
        outline << QPointF(point.x, point.y);
    painter.setPen(QPen(colours().ink, hasFocus() ? 2.2 : 1.4));
    painter.setBrush(colours().selection);
    painter.drawPolygon(outline);
    painter.setPen(QPen(colours().line, 1));
    for (const auto& groove : face.grooves)
        painter.drawLine(QPointF(groove.from.x, groove.from.y), QPointF(groove.to.x, groove.to.y));
    // The middle, which strike points are measured from.
    painter.drawLine(QPointF(face.centre.x - 4, face.centre.y), QPointF(face.centre.x + 4, face.centre.y));
    painter.drawLine(QPointF(face.centre.x, face.centre.y - 4), QPointF(face.centre.x, face.centre.y + 4));
    painter.setFont(typeface(size::caption));
    painter.setPen(colours().faint);
    const double below = height() - 5;
    painter.drawText(QRectF(face.heelX - 30, below - 12, 60, 16), Qt::AlignCenter, tr("heel"));
    painter.drawText(QRectF(face.toeX - 30, below - 12, 60, 16), Qt::AlignCenter, tr("toe"));
    for (const Strike& strike : m_earlier) {
        const auto at = face.place(strike.toe, strike.high);
        painter.setPen(QPen(colours().cord, 1.3));
        painter.setBrush(colours().sheet);
        painter.drawEllipse(QPointF(at.x, at.y), 4.5, 5);
    }
    if (m_last) {
        const auto at = face.place(m_last->toe, m_last->high);
        drawKnot(painter, {at.x, at.y}, 9, tagColour(m_build));
    }
}

void FaceView::mousePressEvent(QMouseEvent* event) {
    const auto& face = m_layout;
    if (!m_changeable || !face.holds(event->position().x(), event->position().y()))
        return;
    const auto at = face.strikeAt(event->position().x(), event->position().y());
    emit struck({std::round(at.x), std::round(at.y)});
}

void FaceView::keyPressEvent(QKeyEvent* event) {
    const double right = m_toe == picture::Toe::right ? stepMm : -stepMm;
    Strike strike = m_last.value_or(Strike{});
    switch (event->key()) {
    case Qt::Key_Left:
        strike.toe -= right;
        break;
    case Qt::Key_Right:
        strike.toe += right;
        break;
    case Qt::Key_Up:
        strike.high += stepMm;
        break;
    case Qt::Key_Down:
        strike.high -= stepMm;
        break;
    default:
        return QWidget::keyPressEvent(event);
    }
    if (m_changeable)
        emit struck(strike);
}

} // namespace knot::app
