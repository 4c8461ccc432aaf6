#include "app/import_page/struck_view.h"

#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/words/struck.h"

#include <QPainter>

namespace knot::app {
namespace {

constexpr double nameWidth = 92;

} // namespace

StruckView::StruckView(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("struckView"));
    setAccessibleName(tr("What was hit, in the order struck"));
}

void StruckView::setTest(const record::Test& test) {
    m_counts.clear();
    m_builds.clear();
    m_counted.clear();
    m_names.clear();
    for (const auto& build : test.builds)
        m_names << QString::fromStdString(build.name);
    for (const auto& run : words::runsOf(test)) {
        m_counts.push_back(run.count);
        m_builds.push_back(run.build);
        std::vector<bool> counted;
        for (std::size_t i = run.first; i < run.first + run.count; ++i)
            counted.push_back(test.shots[i].status == record::ShotStatus::counted);
        m_counted.push_back(std::move(counted));
    }
    layOut();
    update();
}

void StruckView::layOut() {
    m_layout = picture::layoutRuns(m_counts, width() - 8, height() - 18, nameWidth);
}

void StruckView::resizeEvent(QResizeEvent*) {
    layOut();
}

void StruckView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    for (const auto& run : m_layout.runs) {
        const QColor colour = tagColour(m_builds[run.run]);
        drawTag(painter, QRectF(run.tagX, run.y - 5, 10, 10), m_builds[run.run]);
        if (m_layout.hasNames) {
            painter.setFont(typeface(size::caption));
            painter.setPen(colours().ink);
            painter.drawText(QRectF(run.tagX + 18, run.y - 10, nameWidth - 4, 20), Qt::AlignVCenter,
                             painter.fontMetrics().elidedText(m_names.value(static_cast<qsizetype>(m_builds[run.run])),
                                                              Qt::ElideRight, static_cast<int>(nameWidth) - 4));
        }
        painter.setPen(QPen(colour, 1.6));
        painter.drawLine(QPointF(run.left, run.y), QPointF(run.right, run.y));
        for (std::size_t i = 0; i < run.knots.size(); ++i)
            if (m_counted[run.run][i]) {
                drawKnot(painter, QPointF(run.knots[i], run.y), m_layout.knotRadius, colour);
            } else {
                painter.setPen(QPen(colour, 1.2));
                painter.setBrush(colours().sheet);
                painter.drawEllipse(QPointF(run.knots[i], run.y), m_layout.knotRadius, m_layout.knotRadius);
            }
    }
    if (m_layout.leftOut > 0) {
        painter.setFont(typeface(size::caption));
        painter.setPen(colours().faint);
        painter.drawText(rect(), Qt::AlignLeft | Qt::AlignBottom, tr("and %1 more runs").arg(m_layout.leftOut));
    }
}

} // namespace knot::app
