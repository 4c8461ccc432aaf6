#include "app/decision_page/best_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

constexpr int betHeight = 54, headHeight = 22;

} // namespace

BestView::BestView() {
    setObjectName(QStringLiteral("bestPicture"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void BestView::display(const words::BestPicture& picture, std::vector<std::string> names) {
    m_picture = picture;
    if (m_picture.isSettled) // the others are out of it
        m_picture.lines.resize(1);
    m_names = std::move(names);
    QStringList said;
    for (const words::BestLine& line : m_picture.lines)
        said << tr("%1 best %2 times in 100, costs %3")
                    .arg(QString::fromStdString(m_names[line.build]),
                         QString::fromStdString(record::fixed(100 * line.chance, 0)),
                         QString::fromStdString(line.cost));
    setAccessibleName(QString::fromStdString(record::outcomeLabel(m_picture.outcome)) + QStringLiteral(": ") +
                      said.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QSize BestView::sizeHint() const {
    return {320,
            headHeight + (m_picture.isSettled ? betHeight / 2 : betHeight * static_cast<int>(m_picture.lines.size()))};
}

void BestView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    painter.drawText(QRectF(0, 0, width(), headHeight), Qt::AlignLeft | Qt::AlignTop,
                     tr("best in %1").arg(QString::fromStdString(record::outcomeLabel(m_picture.outcome))));
    const double right = width() - 2.0;
    double top = headHeight;
    for (const words::BestLine& line : m_picture.lines) {
        drawTag(painter, {0, top + 2, 12, 12}, line.build);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        painter.setPen(c.ink);
        painter.drawText(QRectF(20, top, right - 190, 18), Qt::AlignVCenter,
                         clubName(painter, QString::fromStdString(m_names[line.build]), right - 200));
        if (m_picture.isSettled) {
            drawTabular(painter, typeface(size::body, QFont::DemiBold), {right, top + 14}, tr("settled: the best"),
                        Align::right);
            break;
        }
        drawTabular(painter, typeface(size::body, QFont::DemiBold), {right, top + 14},
                    tr("best %1 times in 100").arg(QString::fromStdString(record::fixed(100 * line.chance, 0))),
                    Align::right);
        painter.setPen(c.faint);
        drawTabular(painter, typeface(size::caption), {right, top + 31},
                    tr("costs %1 on average if another was better").arg(QString::fromStdString(line.cost)),
                    Align::right);
        const double y = top + 40;
        painter.setPen(QPen(c.line, 1.5));
        painter.drawLine(QPointF(0, y), QPointF(right, y));
        painter.setPen(QPen(tagColour(line.build), 3.5, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(QPointF(2, y), QPointF(std::max(3.0, line.chance * right), y));
        for (int knot = 1; knot <= static_cast<int>(10 * line.chance + 1e-9); ++knot)
            drawKnot(painter, {knot * right / 10 - 8, y}, 4.5, tagColour(line.build));
        top += betHeight;
    }
}

} // namespace knot::app
