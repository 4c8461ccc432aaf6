#include "app/start_page/door.h"

#include "app/form/key_card.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/random.h"

#include <QPainter>

namespace knot::app {
namespace {

// Landings of three clubs about a line; the same ones every time.
void drawShots(QPainter& painter, const QRectF& box) {
    Random random(4);
    for (int i = 0; i < 24; ++i) {
        const std::size_t club = static_cast<std::size_t>(i) % 3;
        const double across = 0.5 + 0.16 * random.normal();
        const double along = 0.42 + 0.13 * random.normal() + 0.07 * static_cast<double>(club);
        drawKnot(painter,
                 QPointF(box.left() + std::clamp(across, 0.05, 0.95) * box.width(),
                         box.top() + std::clamp(along, 0.06, 0.94) * box.height()),
                 5.5, tagColour(club));
    }
}

// A cord with the next knot still open.
void drawCord(QPainter& painter, const QRectF& box) {
    const Colours& c = colours();
    const double y = box.center().y();
    painter.setPen(QPen(c.cord, 3));
    painter.drawLine(QPointF(box.left() + 6, y), QPointF(box.right() - 6, y));
    const double pitch = std::min(60.0, box.width() / 5.5);
    for (int i = 0; i < 3; ++i)
        drawKnot(painter, QPointF(box.center().x() + (i - 1.5) * pitch, y), 14, c.cord);
    painter.setPen(QPen(c.cord, 2));
    painter.setBrush(c.sheet);
    painter.drawEllipse(QPointF(box.center().x() + 1.5 * pitch, y), 12, 14);
}

// Three clubs in laps, the last stint still to come.
void drawTest(QPainter& painter, const QRectF& box) {
    for (std::size_t club = 0; club < 3; ++club) {
        const double y = box.top() + box.height() * (0.22 + 0.28 * static_cast<double>(club));
        const QColor colour = tagColour(club);
        drawTag(painter, QRectF(box.left(), y - 6, 12, 12), club);
        painter.setPen(QPen(colour, 1.6));
        painter.drawLine(QPointF(box.left() + 26, y), QPointF(box.right(), y));
        const double room = box.width() - 40;
        for (int lap = 0; lap < 3; ++lap)
            for (int shot = 0; shot < 3; ++shot) {
                const QPointF at(box.left() + 42 + room * lap / 3.0 + shot * std::min(18.0, room / 14), y);
                if (club == 2 && lap == 2) {
                    painter.setPen(QPen(colour, 1.4));
                    painter.setBrush(colours().sheet);
                    painter.drawEllipse(at, 5.5, 6.5);
                } else {
                    drawKnot(painter, at, 5.5, colour);
                }
            }
    }
}

} // namespace

Door::Door(Picture picture, const QString& title, const QString& caption, const QString& key, const char* name,
           QWidget* parent)
    : QAbstractButton(parent)
    , m_picture(picture)
    , m_caption(caption)
    , m_key(key) {
    setObjectName(QLatin1String(name));
    setText(title);
    setAccessibleDescription(caption);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void Door::drawPicture(QPainter& painter, const QRectF& box) const {
    switch (m_picture) {
    case Picture::shots:
        return drawShots(painter, box);
    case Picture::cord:
        return drawCord(painter, box);
    case Picture::test:
        return drawTest(painter, box);
    }
}

void Door::paintEvent(QPaintEvent*) {
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF card = QRectF(rect()).adjusted(0.75, 0.75, -0.75, -0.75);
    painter.setPen(QPen(hasFocus() || underMouse() ? c.ink : c.line, hasFocus() ? 2 : 1));
    painter.setBrush(c.sheet);
    painter.drawRoundedRect(card, 6, 6);
    const QRectF inner = card.adjusted(24, 20, -24, -18);
    painter.setFont(typeface(21, QFont::DemiBold));
    painter.setPen(c.ink);
    const double titleHeight = painter.fontMetrics().height();
    painter.drawText(inner, Qt::AlignLeft | Qt::AlignTop,
                     painter.fontMetrics().elidedText(text(), Qt::ElideRight, static_cast<int>(inner.width())));
    painter.setFont(typeface(size::body));
    const QRectF words = painter.fontMetrics().boundingRect(inner.toRect(), Qt::TextWordWrap, m_caption);
    const double keyHeight = 26 * typeScale();
    const double wordsTop = inner.bottom() - keyHeight - 10 - words.height();
    painter.setPen(c.faint);
    painter.drawText(QRectF(inner.left(), wordsTop, inner.width(), words.height() + 2), Qt::TextWordWrap, m_caption);
    drawKeyCap(painter, QPointF(inner.left(), inner.bottom() - keyHeight + 4), m_key);
    const QRectF picture(inner.left(), inner.top() + titleHeight + 8, inner.width(),
                         wordsTop - inner.top() - titleHeight - 20);
    if (picture.height() > 40)
        drawPicture(painter, picture);
}

} // namespace knot::app
