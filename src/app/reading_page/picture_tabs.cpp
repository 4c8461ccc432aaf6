#include "app/reading_page/picture_tabs.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QPainter>

namespace knot::app {
namespace {

constexpr int digitWidth = 12;
constexpr int gap = 22;
constexpr int tabHeight = 30;

} // namespace

PictureTabs::PictureTabs(QWidget* parent)
    : QTabBar(parent) {
    setObjectName(QStringLiteral("pictures"));
    setAccessibleName(tr("Pictures"));
    setDrawBase(false);
    setExpanding(false);
    setUsesScrollButtons(false);
    setElideMode(Qt::ElideNone);
    const QStringList names = {tr("Table"), tr("Cords"), tr("Landing"), tr("Flight"),
                               tr("Face"),  tr("Order"), tr("Luck"),    tr("Parts")};
    for (const QString& name : names)
        addTab(name);
}

QSize PictureTabs::tabSizeHint(int index) const {
    const QFontMetrics metrics(typeface(size::body, QFont::DemiBold));
    return {digitWidth + metrics.horizontalAdvance(tabText(index)) + gap, static_cast<int>(tabHeight * typeScale())};
}

void PictureTabs::paintEvent(QPaintEvent*) {
    const Colours& c = colours();
    QPainter painter(this);
    for (int i = 0; i < count(); ++i) {
        if (!isTabVisible(i))
            continue;
        const QRect box = tabRect(i);
        const bool isShown = i == currentIndex();
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(box.left(), box.top() + 0.62 * box.height()), QString::number(i + 1));
        painter.setPen(isShown ? c.ink : c.faint);
        painter.setFont(typeface(size::body, isShown ? QFont::DemiBold : QFont::Normal));
        painter.drawText(QPointF(box.left() + digitWidth, box.top() + 0.66 * box.height()), tabText(i));
        if (isShown) {
            const double width = painter.fontMetrics().horizontalAdvance(tabText(i));
            painter.fillRect(QRectF(box.left() + digitWidth, box.bottom() - 3, width, hasFocus() ? 3 : 2.5), c.cord);
        }
    }
}

} // namespace knot::app
