#include "app/form/key_card.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QPainter>

namespace knot::app {
namespace {

constexpr double capHeight = 22;

} // namespace

double drawKeyCap(QPainter& painter, QPointF topLeft, const QString& key) {
    const QFont font = typeface(size::caption, QFont::DemiBold);
    const double width = std::max(capHeight, QFontMetricsF(font).horizontalAdvance(key) + 16);
    const QRectF cap(topLeft, QSizeF(width, capHeight * typeScale()));
    painter.setPen(QPen(colours().faint, 1.2));
    painter.setBrush(colours().ground);
    painter.drawRoundedRect(cap, 4, 4);
    painter.setFont(font);
    painter.setPen(colours().ink);
    painter.drawText(cap, Qt::AlignCenter, key);
    return width;
}

KeyCard::KeyCard(const QString& key, const QString& title, const char* name, QWidget* parent)
    : QAbstractButton(parent)
    , m_key(key) {
    setObjectName(QLatin1String(name));
    setText(title);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void KeyCard::setCaption(const QString& caption) {
    m_caption = caption;
    setAccessibleDescription(caption);
    setToolTip(caption.toHtmlEscaped());
    updateGeometry(); // a title alone is lower
    update();
}

void KeyCard::setDefault(bool isDefault) {
    m_default = isDefault;
    update();
}

QSize KeyCard::sizeHint() const {
    if (m_caption.isEmpty()) { // a title alone stands beside its key
        const QFontMetrics metrics(typeface(size::strong, QFont::DemiBold));
        return {metrics.horizontalAdvance(text()) + 74, static_cast<int>(38 * typeScale())};
    }
    return {240, static_cast<int>(62 * typeScale())};
}

QSize KeyCard::minimumSizeHint() const {
    return {m_caption.isEmpty() ? sizeHint().width() : 140, sizeHint().height()};
}

void KeyCard::paintEvent(QPaintEvent*) {
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF card = QRectF(rect()).adjusted(0.75, 0.75, -0.75, -0.75);
    painter.setOpacity(isEnabled() ? 1 : 0.45);
    const bool strong = m_default && isEnabled();
    painter.setPen(QPen(hasFocus() || strong ? c.ink : c.line, hasFocus() ? 2 : strong ? 1.5 : 1));
    painter.setBrush(underMouse() && isEnabled() ? c.selection : strong ? c.ground : c.sheet);
    painter.drawRoundedRect(card, 6, 6);
    const bool isAlone = m_caption.isEmpty();
    const double capTop = isAlone ? (card.height() - capHeight * typeScale()) / 2 : 10;
    const double capWidth = drawKeyCap(painter, card.topLeft() + QPointF(isAlone ? 9 : 13, capTop), m_key);
    if (isAlone) {
        painter.setFont(typeface(size::strong, strong ? QFont::DemiBold : QFont::Normal));
        painter.setPen(c.ink);
        return painter.drawText(card.adjusted(9 + capWidth + 10, 0, -8, 0), Qt::AlignLeft | Qt::AlignVCenter, text());
    }
    const QRectF words = card.adjusted(13 + capWidth + 14, 8, -12, -8);
    painter.setFont(typeface(size::strong, QFont::DemiBold));
    painter.setPen(c.ink);
    const double half = words.height() / 2;
    painter.drawText(QRectF(words.left(), words.top(), words.width(), half), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(this->text(), Qt::ElideRight, static_cast<int>(words.width())));
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    painter.drawText(QRectF(words.left(), words.top() + half, words.width(), half), Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(m_caption, Qt::ElideRight, static_cast<int>(words.width())));
}

} // namespace knot::app
