#include "app/reading_page/picture_tabs.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QPainter>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

constexpr int digitWidth = 12;
constexpr int mostGap = 22, leastGap = 4;
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
    const QStringList names = {tr("Table"),  tr("Cords"),    tr("Landing"), tr("Flight"), tr("Face"),
                               tr("Order"),  tr("Luck"),     tr("Parts"),   tr("Along"),  tr("Factors"),
                               tr("Window"), tr("Delivery"), tr("Bag")};
    for (const QString& name : names)
        addTab(name);
}

Qt::Key PictureTabs::keyOf(int index) {
    constexpr std::array keys = {Qt::Key_1,     Qt::Key_2,     Qt::Key_3,          Qt::Key_4, Qt::Key_5,
                                 Qt::Key_6,     Qt::Key_7,     Qt::Key_8,          Qt::Key_9, Qt::Key_0,
                                 Qt::Key_Minus, Qt::Key_Equal, Qt::Key_BracketLeft};
    return keys.at(static_cast<std::size_t>(index));
}

// Asked for far more often than a name changes.
int PictureTabs::nameWidth(const QFontMetrics& metrics, int index) const {
    const auto key = std::pair(tabText(index), metrics.height());
    auto known = m_widths.find(key);
    if (known == m_widths.end())
        known = m_widths.emplace(key, metrics.horizontalAdvance(key.first)).first;
    return digitWidth + known->second;
}

// Names move together where there are many of them.
QSize PictureTabs::tabSizeHint(int index) const {
    const QFontMetrics metrics(typeface(size::body, QFont::DemiBold));
    int names = 0;
    int shown = 0;
    for (int i = 0; i < count(); ++i)
        if (isTabVisible(i)) {
            names += nameWidth(metrics, i);
            ++shown;
        }
    const int gap = std::clamp((width() - names) / std::max(shown, 1), leastGap, mostGap);
    return {nameWidth(metrics, index) + gap, static_cast<int>(tabHeight * typeScale())};
}

QSize PictureTabs::minimumTabSizeHint(int index) const {
    return tabSizeHint(index);
}

void PictureTabs::showOnly(const std::function<bool(int)>& isThere) {
    for (int i = 0; i < count(); ++i)
        setTabVisible(i, isThere(i));
    layAgain();
}

void PictureTabs::resizeEvent(QResizeEvent* event) {
    QTabBar::resizeEvent(event);
    layAgain();
}

// The bar lays its tabs out again when one has another text, and only then.
void PictureTabs::layAgain() {
    setTabText(0, tabText(0) + QLatin1Char(' '));
    setTabText(0, tabText(0).trimmed());
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
        painter.drawText(QPointF(box.left(), box.top() + 0.62 * box.height()), QString(QChar(keyOf(i))));
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
