#include "app/form/chip_field.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QKeyEvent>
#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int leastWidth = 34;
constexpr int sideRoom = 12; // that a field needs beside its text

} // namespace

ChipField::ChipField(const ask::Chip& chip, int size, QWidget* parent)
    : QLineEdit(parent)
    , m_chip(chip) {
    setObjectName(QString::fromStdString(ask::fieldOf(chip)));
    setAccessibleName(QString::fromStdString(ask::nameOf(chip)));
    setFrame(false);
    setTextMargins(0, 0, 0, 0);
    setStyleSheet(QStringLiteral("QLineEdit{background:transparent;border:none;padding:0 3px}"));
    m_size = size;
    connect(this, &QLineEdit::textEdited, this, [this] {
        m_isTyping = true;
        setFaulty(false);
        emit resized();
    });
}

void ChipField::display(const QString& text, bool isEmpty) {
    m_shown = isEmpty ? QString() : text;
    m_isEmpty = isEmpty;
    const bool isQuiet = isEmpty && text.startsWith(u'+'); // a way on, and no part of the sentence yet
    setFont(isQuiet ? typeface(size::body) : typeface(m_size, QFont::DemiBold));
    setPlaceholderText(isEmpty ? text : QString());
    setToolTip(isEmpty ? QString() : text.toHtmlEscaped()); // it may be longer than a line
    if (m_isTyping || m_isFaulty)
        return;
    if (this->text() != m_shown)
        setText(m_shown);
    if (hasFocus())
        selectAll();
}

void ChipField::giveUp() {
    m_isTyping = false;
    m_isFaulty = false;
    setText(m_shown);
    if (hasFocus())
        selectAll();
    emit resized();
}

void ChipField::setFaulty(bool isFaulty) {
    if (isFaulty)
        m_isTyping = false;
    m_isFaulty = isFaulty;
    update();
}

void ChipField::say(const QString& text) {
    setText(text);
    emit textEdited(text); // whoever takes what is typed hears of it
    QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
    QLineEdit::keyPressEvent(&enter);
}

QSize ChipField::sizeHint() const {
    const QString text = this->text().isEmpty() ? placeholderText() : this->text();
    return {std::max(leastWidth, fontMetrics().horizontalAdvance(text) + sideRoom), fontMetrics().height() + 6};
}

// Escape takes back what is typed here before it takes away what the window said.
bool ChipField::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && (m_isTyping || m_isFaulty) &&
        static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
        event->accept();
        return true;
    }
    return QLineEdit::event(event);
}

void ChipField::keyPressEvent(QKeyEvent* event) {
    const bool isWhole = selectedText() == text(); // nothing has been begun
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
        if (isWhole && !m_isTyping && event->modifiers() == Qt::NoModifier)
            return emit walked(event->key() == Qt::Key_Left ? -1 : 1);
        break;
    case Qt::Key_Up:
    case Qt::Key_Down:
        return emit browsed(event->key() == Qt::Key_Up ? -1 : 1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
        return emit entered();
    case Qt::Key_Escape:
        if (m_isTyping || m_isFaulty) {
            giveUp();
            return emit left();
        }
        break;
    default:
        break;
    }
    QLineEdit::keyPressEvent(event);
}

void ChipField::focusInEvent(QFocusEvent* event) {
    QLineEdit::focusInEvent(event);
    if (!m_isTyping)
        QMetaObject::invokeMethod( // after a click has set its place
            this,
            [this] {
                if (hasFocus())
                    selectAll();
            },
            Qt::QueuedConnection);
    selectAll();
    emit entering();
}

void ChipField::focusOutEvent(QFocusEvent* event) {
    QLineEdit::focusOutEvent(event); // what was typed has been taken, or was not understood
    m_isTyping = false;
    deselect();
    setCursorPosition(0);
    emit left();
}

void ChipField::paintEvent(QPaintEvent* event) {
    QLineEdit::paintEvent(event);
    QPainter painter(this);
    const Colours& c = colours();
    painter.setPen(QPen(m_isFaulty ? c.alarm : c.cord, hasFocus() ? 3 : 2, m_isEmpty ? Qt::DotLine : Qt::SolidLine));
    painter.drawLine(QPointF(3, height() - 2), QPointF(width() - 3, height() - 2));
}

} // namespace knot::app
