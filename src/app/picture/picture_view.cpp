#include "app/picture/picture_view.h"

#include "app/style/palette.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {

QString Picture::legend() const {
    return PictureView::tr("Ctrl+C copies · Ctrl+Shift+E saves · V two pictures");
}

PictureView::PictureView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("picture"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(420, 96); // a narrow window has no more
}

PictureView::~PictureView() = default;

void PictureView::setPicture(std::unique_ptr<Picture> picture) {
    m_isDragging = false;
    m_picture = std::move(picture);
    if (m_picture)
        m_picture->layOut(rect());
    if (markOf(m_lit) == nullptr)
        m_lit.reset();
    describe();
    update();
}

// A screen reader hears what the picture shows, and what is pointed at.
void PictureView::describe() {
    setAccessibleName(m_picture ? m_picture->finding() : QString());
    setAccessibleDescription(litText());
}

const Picture::Mark* PictureView::markOf(std::optional<std::size_t> shot) const {
    if (!m_picture || !shot)
        return nullptr;
    const auto at = std::ranges::find(m_picture->marks(), *shot, &Picture::Mark::shot);
    return at == m_picture->marks().end() ? nullptr : &*at;
}

QString PictureView::litText() const {
    const Picture::Mark* mark = markOf(m_lit);
    return mark == nullptr ? QString() : mark->text;
}

void PictureView::light(std::optional<std::size_t> shot) {
    if (shot == m_lit)
        return;
    m_lit = shot;
    describe();
    emit litChanged(litText());
    update();
}

void PictureView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (m_picture)
        m_picture->paint(painter, m_lit);
    if (const Picture::Mark* mark = m_isLifted ? markOf(m_lit) : nullptr) { // out: its place stands empty
        painter.setPen(QPen(colours().ink, 1.5, Qt::DashLine));
        painter.setBrush(colours().sheet);
        painter.drawEllipse(mark->at, mark->reach + 4, mark->reach + 4);
    }
    if (hasFocus()) {
        painter.setPen(QPen(colours().cord, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
    }
}

void PictureView::resizeEvent(QResizeEvent* event) {
    if (m_picture)
        m_picture->layOut(rect());
    QWidget::resizeEvent(event);
}

void PictureView::lift(bool out) {
    if (out == m_isLifted || (out && markOf(m_lit) == nullptr))
        return;
    m_isLifted = out;
    emit lifted(out ? m_lit : std::nullopt);
    update();
}

void PictureView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton || !m_picture)
        return;
    if (m_lit)
        return lift(true);
    m_isDragging = m_picture->grab(event->position());
}

void PictureView::mouseReleaseEvent(QMouseEvent*) {
    lift(false);
    if (!m_isDragging)
        return;
    m_isDragging = false;
    if (const auto shape = m_picture->letGo())
        emit dragged(*shape);
}

// A key that is let go elsewhere is let go all the same.
void PictureView::focusOutEvent(QFocusEvent* event) {
    lift(false);
    QWidget::focusOutEvent(event);
}

void PictureView::keyReleaseEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_X && !event->isAutoRepeat())
        lift(false);
    else
        QWidget::keyReleaseEvent(event);
}

void PictureView::mouseMoveEvent(QMouseEvent* event) {
    if (!m_picture || m_isLifted)
        return;
    if (m_isDragging) {
        m_picture->dragTo(event->position());
        return update();
    }
    const Picture::Mark* nearest = nullptr;
    double best = 0;
    for (const Picture::Mark& mark : m_picture->marks()) {
        const double distance = std::hypot(mark.at.x() - event->position().x(), mark.at.y() - event->position().y());
        if (distance <= std::max(mark.reach * 1.5, 6.0) && (nearest == nullptr || distance < best)) {
            nearest = &mark;
            best = distance;
        }
    }
    light(nearest == nullptr ? std::nullopt : std::optional(nearest->shot));
}

void PictureView::leaveEvent(QEvent*) {
    if (!m_isLifted)
        light(std::nullopt);
}

void PictureView::keyPressEvent(QKeyEvent* event) {
    if (event->matches(QKeySequence::Copy) && m_picture) {
        QGuiApplication::clipboard()->setText(m_picture->asText());
        return;
    }
    switch (event->key()) {
    case Qt::Key_X:
        return lift(true);
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

void PictureView::step(int along, int across) {
    if (!m_picture || m_picture->marks().empty())
        return;
    const auto& marks = m_picture->marks();
    const Picture::Mark* from = markOf(m_lit);
    if (from == nullptr)
        return light(
            std::ranges::min_element(marks, {}, [](const auto& m) { return std::pair(m.row, m.at.x()); })->shot);
    std::size_t most = 0;
    for (const Picture::Mark& mark : marks)
        most = std::max(most, mark.row);
    const auto row = static_cast<std::size_t>(std::clamp(static_cast<std::ptrdiff_t>(from->row) + across,
                                                         std::ptrdiff_t{0}, static_cast<std::ptrdiff_t>(most)));
    std::vector<const Picture::Mark*> inRow;
    for (const Picture::Mark& mark : marks)
        if (mark.row == row)
            inRow.push_back(&mark);
    if (inRow.empty())
        return;
    std::ranges::stable_sort(inRow, {}, [](const auto* mark) { return mark->at.x(); });
    if (across != 0)
        return light((*std::ranges::min_element(inRow, {}, [&](const auto* mark) {
                         return std::fabs(mark->at.x() - from->at.x());
                     }))->shot);
    const auto here = std::ranges::find(inRow, from) - inRow.begin();
    const auto next = std::clamp<std::ptrdiff_t>(here + along, 0, static_cast<std::ptrdiff_t>(inRow.size()) - 1);
    light(inRow[static_cast<std::size_t>(next)]->shot);
}

} // namespace knot::app
