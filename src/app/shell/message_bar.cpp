#include "app/shell/message_bar.h"

#include "app/style/labels.h"
#include "app/style/palette.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>

namespace knot::app {

MessageBar::MessageBar(QWidget* parent)
    : QWidget(parent)
    , m_text(plainLabel({}, this))
    , m_close(new QPushButton(tr("Close"), this)) {
    setObjectName(QStringLiteral("messageBar"));
    m_text->setObjectName(QStringLiteral("messageText"));
    m_text->setWordWrap(true);
    m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_close->setObjectName(QStringLiteral("messageClose"));
    m_close->setAccessibleName(tr("Close the message"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 6, 8, 6);
    row->addWidget(m_text, 1);
    row->addWidget(m_close);
    connect(m_close, &QPushButton::clicked, this, &MessageBar::clear);
    QWidget::hide();
}

void MessageBar::show(const QString& sentence, Tone tone) {
    m_tone = tone;
    m_text->setText(sentence);
    setAccessibleName(sentence);
    QWidget::show();
    update();
}

void MessageBar::showAtOnce(const QString& sentence) {
    if (sentence.isEmpty())
        return clear();
    note(sentence);
    if (QLayout* around = parentWidget() == nullptr ? nullptr : parentWidget()->layout())
        around->activate();
    layout()->activate();
    window()->repaint();
}

void MessageBar::clear() {
    m_text->clear();
    QWidget::hide();
}

QString MessageBar::text() const {
    return m_text->text();
}

void MessageBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(colours().line);
    painter.setBrush(colours().sheet);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
    painter.setPen(Qt::NoPen);
    painter.setBrush(m_tone == Tone::fault ? colours().alarm : colours().cord);
    painter.drawRoundedRect(QRectF(0, 0, 5, height()), 2, 2);
}

} // namespace knot::app
