#include "app/form/key_row.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QGridLayout>
#include <QPainter>

namespace knot::app {

KeyButton::KeyButton(QWidget* parent)
    : QAbstractButton(parent) {
    setFocusPolicy(Qt::NoFocus); // the keys themselves are the way by keyboard
    setCursor(Qt::PointingHandCursor);
}

void KeyButton::setKey(const QString& cap, const QString& title, const QString& subtitle) {
    m_cap = cap;
    m_title = title;
    m_subtitle = subtitle;
    setAccessibleName(subtitle.isEmpty() ? title : title + QStringLiteral(", ") + subtitle);
    setAccessibleDescription(tr("key %1").arg(cap));
    update();
}

void KeyButton::setLoud(bool loud) {
    m_loud = loud;
    update();
}

void KeyButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QFont capFont = typeface(size::strong, QFont::DemiBold);
    const double capWidth = std::max(38.0, QFontMetricsF(capFont).horizontalAdvance(m_cap) + 20);
    const QRectF cap(1, (height() - 34) / 2.0, capWidth, 34);
    painter.setPen(QPen(m_loud ? colours().cord : colours().ink, m_loud ? 2 : 1.2));
    painter.setBrush(m_loud ? colours().selection : isDown() || underMouse() ? colours().selection : colours().sheet);
    painter.drawRoundedRect(cap, 5, 5);
    painter.setPen(colours().ink);
    painter.setFont(capFont);
    painter.drawText(cap, Qt::AlignCenter, m_cap);
    const Words words = layOut();
    painter.setFont(words.title);
    painter.drawText(words.titleRoom,
                     Qt::AlignLeft | (words.hasSubtitle ? Qt::AlignBottom : Qt::AlignVCenter) | Qt::TextWordWrap,
                     m_title);
    if (!words.hasSubtitle)
        return;
    painter.setFont(words.subtitle);
    painter.setPen(colours().faint);
    painter.drawText(words.subtitleRoom, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, m_subtitle);
}

namespace {

bool fits(const QString& text, const QFont& type, const QRectF& room) {
    const QRectF need = QFontMetricsF(type).boundingRect(QRectF(0, 0, room.width(), 1e4), Qt::TextWordWrap, text);
    return need.height() <= room.height() + 0.5 && need.width() <= room.width() + 0.5;
}

// The largest type down to the caption's in which a text stands whole in its room.
QFont fitting(const QString& text, QFont type, const QRectF& room) {
    while (type.pixelSize() > size::caption && !fits(text, type, room))
        type.setPixelSize(type.pixelSize() - 1);
    return type;
}

} // namespace

// A second line that does not stand whole is left out; the title then has the whole button.
KeyButton::Words KeyButton::layOut() const {
    const QFont capFont = typeface(size::strong, QFont::DemiBold);
    const double x = std::max(38.0, QFontMetricsF(capFont).horizontalAdvance(m_cap) + 20) + 12;
    const double room = width() - x - 2;
    Words words;
    words.subtitleRoom = QRectF(x, height() * 0.52, room, height() * 0.48);
    words.subtitle = fitting(m_subtitle, typeface(size::caption), words.subtitleRoom);
    words.hasSubtitle = !m_subtitle.isEmpty() && fits(m_subtitle, words.subtitle, words.subtitleRoom);
    words.titleRoom = QRectF(x, 0, room, words.hasSubtitle ? height() * 0.52 : height());
    words.title = fitting(m_title, typeface(size::strong, m_loud ? QFont::DemiBold : QFont::Normal), words.titleRoom);
    if (words.hasSubtitle && !fits(m_title, words.title, words.titleRoom)) {
        words.hasSubtitle = false;
        words.titleRoom.setHeight(height());
        words.title = fitting(m_title, words.title, words.titleRoom);
    }
    return words;
}

QString KeyButton::cutText() const {
    const Words words = layOut();
    return fits(m_title, words.title, words.titleRoom) ? QString() : m_title;
}

KeyRow::KeyRow(QWidget* parent)
    : QWidget(parent)
    , m_grid(new QGridLayout(this)) {
    setObjectName(QStringLiteral("keys"));
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setHorizontalSpacing(size::grid);
    m_grid->setVerticalSpacing(4);
    for (int column = 0; column < columns; ++column)
        m_grid->setColumnStretch(column, 1);
}

void KeyRow::setEntries(const QList<Entry>& entries) {
    if (entries == m_entries)
        return;
    m_entries = entries;
    while (m_buttons.size() < entries.size()) {
        auto* button = new KeyButton;
        const int at = static_cast<int>(m_buttons.size());
        connect(button, &KeyButton::clicked, this, [this, at] { emit pressed(m_entries[at].key); });
        m_grid->addWidget(button, at / columns, at % columns);
        m_buttons << button;
    }
    for (int i = 0; i < m_buttons.size(); ++i) {
        m_buttons[i]->setVisible(i < entries.size());
        if (i >= entries.size())
            continue;
        m_buttons[i]->setObjectName(QStringLiteral("key") + entries[i].cap);
        m_buttons[i]->setKey(entries[i].cap, entries[i].title, entries[i].subtitle);
        m_buttons[i]->setLoud(entries[i].loud);
    }
}

} // namespace knot::app
