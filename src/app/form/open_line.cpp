#include "app/form/open_line.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int captionRoom = 84, lineHeight = 24, top = 4;

} // namespace

LineHead::LineHead(const QString& caption) {
    setText(caption);
    setCheckable(true);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void LineHead::setSaid(const QString& said) {
    if (said == m_said)
        return;
    m_said = said;
    setAccessibleName(QString(text()).remove(u'&') + QStringLiteral(": ") + said);
    updateGeometry();
    update();
}

QSize LineHead::sizeHint() const {
    return {260, lineHeight};
}

int LineHead::heightForWidth(int width) const {
    const QFontMetrics metrics(typeface(size::body));
    const int room = std::max(80, width - captionRoom - 4);
    return std::max(lineHeight, metrics.boundingRect(0, 0, room, 1000, Qt::TextWordWrap, m_said).height() + 2 * top);
}

// Its key opens it at once; a button would first show itself pressed.
bool LineHead::event(QEvent* event) {
    if (event->type() != QEvent::Shortcut)
        return QAbstractButton::event(event);
    setFocus(Qt::ShortcutFocusReason);
    click();
    return true;
}

void LineHead::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        return click();
    QAbstractButton::keyPressEvent(event);
}

void LineHead::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Colours& c = colours();
    if (hasFocus() || underMouse())
        painter.fillRect(rect(), c.selection);
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    painter.drawText(QRect(4, top, captionRoom - 4, lineHeight - 2 * top), Qt::AlignVCenter | Qt::TextShowMnemonic,
                     text());
    painter.setFont(typeface(size::body));
    painter.setPen(c.ink);
    painter.drawText(QRect(captionRoom, top, width() - captionRoom - 4, height() - 2 * top), Qt::TextWordWrap, m_said);
}

OpenLine::OpenLine(const QString& caption, const char* name)
    : m_head(new LineHead(caption))
    , m_box(new QWidget)
    , m_inside(new QVBoxLayout(m_box)) {
    setObjectName(QLatin1String(name) + QStringLiteral("Line"));
    m_head->setObjectName(QLatin1String(name));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(m_head);
    column->addWidget(m_box);
    m_inside->setContentsMargins(captionRoom, 4, 0, 10);
    m_inside->setSpacing(size::grid);
    m_box->hide();
    connect(m_head, &QAbstractButton::toggled, this, [this](bool isOpen) {
        m_box->setVisible(isOpen);
        if (!isOpen)
            return;
        emit opened();
        if (m_head->hasFocus())
            enter();
    });
}

// To the first field inside.
void OpenLine::enter() {
    for (QWidget* at = m_head->nextInFocusChain(); at != m_head; at = at->nextInFocusChain())
        if (m_box->isAncestorOf(at) && at->focusPolicy() & Qt::TabFocus && at->isVisible() && at->isEnabled())
            return at->setFocus(Qt::TabFocusReason);
}

void OpenLine::setOpen(bool isOpen) {
    m_head->setChecked(isOpen);
}

} // namespace knot::app
