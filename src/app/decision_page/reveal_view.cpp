#include "app/decision_page/reveal_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int perRow = 4, tagHeight = 58;

} // namespace

RevealView::RevealView() {
    setObjectName(QStringLiteral("tags"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void RevealView::display(std::vector<Tag> tags) {
    m_tags = std::move(tags);
    QStringList said;
    for (const Tag& tag : m_tags)
        said << QString::fromStdString(tag.tag) +
                    (tag.club.empty() ? QString() : tr(" is %1").arg(QString::fromStdString(tag.club)));
    setAccessibleName(said.join(QStringLiteral(", ")));
    updateGeometry();
    update();
}

QSize RevealView::sizeHint() const {
    const auto rows = (static_cast<int>(m_tags.size()) + perRow - 1) / perRow;
    return {400, tagHeight * std::max(1, rows)};
}

void RevealView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    const int columns = std::clamp(static_cast<int>(m_tags.size()), 1, perRow);
    const double wide = static_cast<double>(width()) / columns;
    for (std::size_t i = 0; i < m_tags.size(); ++i) {
        const QPointF origin(wide * static_cast<double>(i % perRow), tagHeight * static_cast<double>(i / perRow));
        const QColor colour = tagColour(i);
        QPainterPath cord(origin + QPointF(12, 34));
        cord.cubicTo(origin + QPointF(50, 20), origin + QPointF(80, 48), origin + QPointF(118, 32));
        painter.setPen(QPen(colour, 2.5));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(cord);
        drawTag(painter, {origin.x() + 2, origin.y() + 25, 18, 18}, i);
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(origin + QPointF(32, 14), QString::fromStdString(m_tags[i].tag));
        const QString club = QString::fromStdString(m_tags[i].club);
        painter.setPen(c.ink);
        painter.setFont(typeface(size::strong, QFont::DemiBold));
        painter.drawText(origin + QPointF(130, 34),
                         clubName(painter, club.isEmpty() ? QStringLiteral("?") : club, wide - 140));
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(origin + QPointF(130, 51), QString::fromStdString(m_tags[i].under));
    }
}

} // namespace knot::app
