#include "app/bay_page/key_row.h"

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
    const double x = capWidth + 12;
    const QFont titleFont = typeface(size::strong, m_loud ? QFont::DemiBold : QFont::Normal);
    painter.setFont(titleFont);
    const double room = width() - x - 4;
    const QString title = QFontMetricsF(titleFont).elidedText(m_title, Qt::ElideRight, room);
    if (m_subtitle.isEmpty())
        return painter.drawText(QRectF(x, 0, room, height()), Qt::AlignLeft | Qt::AlignVCenter, title);
    painter.drawText(QPointF(x, height() / 2.0 - 3), title);
    const QFont small = typeface(size::caption);
    painter.setFont(small);
    painter.setPen(colours().faint);
    painter.drawText(QPointF(x, height() / 2.0 + 15),
                     QFontMetricsF(small).elidedText(m_subtitle, Qt::ElideRight, room));
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
