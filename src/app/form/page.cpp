#include "app/form/page.h"

#include "app/form/typed.h"

#include <QEvent>
#include <QShowEvent>

namespace knot::app {

Page::~Page() {
    Typed::giveUp(this);
}

void Page::markStale() {
    m_stale = true;
    if (isVisible())
        refreshIfStale();
}

void Page::refreshIfStale() {
    if (!m_stale)
        return;
    m_stale = false;
    refresh();
}

void Page::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refreshIfStale();
}

// Colours stand in texts too, and sizes in layouts.
void Page::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange)
        markStale();
}

} // namespace knot::app
