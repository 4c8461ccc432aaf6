#include "app/form/press_by_enter.h"

#include <QAbstractButton>
#include <QApplication>
#include <QKeyEvent>

namespace knot::app {

PressByEnter::PressByEnter(QObject* parent)
    : QObject(parent) {
    qApp->installEventFilter(this);
}

bool PressByEnter::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress)
        return false;
    const auto* key = static_cast<QKeyEvent*>(event);
    auto* button = qobject_cast<QAbstractButton*>(watched);
    if (button == nullptr || !button->isEnabled() || (key->key() != Qt::Key_Return && key->key() != Qt::Key_Enter) ||
        (key->modifiers() & ~Qt::KeypadModifier) != Qt::NoModifier)
        return false;
    button->click();
    return true;
}

} // namespace knot::app
