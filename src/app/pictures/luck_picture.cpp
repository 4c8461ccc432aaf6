#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/ground.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr double axisHeight = 40;
constexpr double headRoom = 52;

class LuckPicture : public Picture {
public:
    LuckPicture(const Looked& looked, const judge::AverageGap& row)
        : m_shuffle(*row.shuffle)
        , m_format(row.metric, looked.units)
        , m_gap(row.gap) {
        const QString pair = tr("%1 against %2").arg(nameOf(looked, row.build), nameOf(looked, row.against));
        const MetricFormat format = m_format.supportedBy(row.se.value_or(0));
        m_real = tr("the real gap, %1").arg(QString::fromStdString(format.withUnit(row.gap)));
        m_unit = QString::fromStdString(m_format.unitText());
        m_finding = tr("%1, %2: dealt anew as it was struck, luck gives at least this gap %3 times in 100%4.")
                        .arg(QString::fromStdString(record::info(row.metric).label), pair,
                             QString::fromStdString(record::fixed(100 * m_shuffle.p, m_shuffle.p < 0.1 ? 1 : 0)),
                             m_shuffle.exact ? tr(", every way counted") : QString());
        m_finding[0] = m_finding[0].toUpper();
    }

    QString finding() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_ground =
            QRectF(box.left() + 16, box.top() + headRoom, box.width() - 32, box.height() - headRoom - axisHeight);
        m_axis = picture::niceAxis(m_format.shown(m_shuffle.low), m_format.shown(m_shuffle.high), m_ground.left(),
                                   m_ground.right(), std::max(2, static_cast<int>(m_ground.width() / 80)));
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        const Colours& c = colours();
        const auto most = *std::ranges::max_element(m_shuffle.histogram);
        const auto bins = static_cast<double>(m_shuffle.histogram.size());
        const double step = (m_shuffle.high - m_shuffle.low) / bins;
        const double bar = std::fabs(m_gap);
        for (std::size_t i = 0; i < m_shuffle.histogram.size(); ++i) {
            const double from = m_shuffle.low + step * static_cast<double>(i);
            const double height = m_ground.height() * static_cast<double>(m_shuffle.histogram[i]) /
                                  static_cast<double>(std::max(most, 1U));
            const double left = m_axis.pixel(m_format.shown(from)) + 1;
            const double right = m_axis.pixel(m_format.shown(from + step)) - 1;
            // As far out as the real gap: hatched, so that it is told without colour.
            const bool isBeyond = std::fabs(from + step / 2) >= bar - step / 2;
            const QRectF column(left, m_ground.bottom() - height, std::max(1.0, right - left), height);
            painter.fillRect(column, isBeyond ? QBrush(c.cord) : QBrush(c.band));
            if (isBeyond)
                painter.fillRect(column, QBrush(c.sheet, Qt::BDiagPattern));
        }
        paintAlong(painter, m_ground, m_axis, tr("gaps that luck alone gives, %1").arg(m_unit));
        const double x = m_axis.pixel(m_format.shown(m_gap));
        painter.setPen(QPen(c.ink, 2));
        painter.drawLine(QPointF(x, m_ground.top() - 18), QPointF(x, m_ground.bottom()));
        painter.setFont(typeface(size::body, QFont::DemiBold));
        const double width = painter.fontMetrics().horizontalAdvance(m_real);
        const double left = x + 8 + width > m_ground.right() ? x - 8 - width : x + 8;
        painter.drawText(QPointF(std::max(left, m_ground.left()), m_ground.top() - 8), m_real);
    }

private:
    judge::ShuffleCheck m_shuffle;
    MetricFormat m_format;
    double m_gap = 0;
    QString m_real, m_unit, m_finding;
    picture::Axis m_axis;
    QRectF m_ground;
};

} // namespace

std::unique_ptr<Picture> luckPicture(const Looked& looked) {
    const judge::AverageGap* found = nullptr;
    for (const judge::AverageGap& row : looked.reading.average)
        if (row.metric == looked.metric && row.kind == record::OutcomeKind::average && row.shuffle &&
            (found == nullptr || row.build == looked.build))
            if (found == nullptr || found->build != looked.build)
                found = &row;
    return found == nullptr ? nullptr : std::make_unique<LuckPicture>(looked, *found);
}

} // namespace knot::app
