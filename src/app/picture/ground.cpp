#include "app/picture/ground.h"

#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QPainter>

#include <algorithm>
#include <numeric>

namespace knot::app {

void paintUpright(QPainter& painter, const QRectF& ground, const picture::Axis& axis, const QString& unit,
                  double unitY) {
    const Colours& c = colours();
    for (const double tick : axis.ticks) {
        const double y = axis.pixel(tick);
        painter.setPen(QPen(c.band, 1));
        painter.drawLine(QPointF(ground.left(), y), QPointF(ground.right(), y));
        painter.setPen(c.faint);
        drawTabular(painter, typeface(size::caption), {ground.left() - 8, y + 4},
                    QString::fromStdString(record::fixed(tick, axis.decimals)), Align::right);
    }
    painter.setPen(c.faint);
    drawTabular(painter, typeface(size::caption), {ground.left() - 8, unitY}, unit, Align::right);
}

void paintAlong(QPainter& painter, const QRectF& ground, const picture::Axis& axis, const QString& title) {
    const Colours& c = colours();
    painter.setPen(QPen(c.faint, 1));
    painter.drawLine(ground.bottomLeft(), ground.bottomRight());
    for (const double tick : axis.ticks) {
        const double x = axis.pixel(tick);
        painter.setPen(QPen(c.faint, 1));
        painter.drawLine(QPointF(x, ground.bottom()), QPointF(x, ground.bottom() + 5));
        drawTabular(painter, typeface(size::caption), {x, ground.bottom() + 20},
                    QString::fromStdString(record::fixed(tick, axis.decimals)), Align::centre);
    }
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    const double width = painter.fontMetrics().horizontalAdvance(title);
    painter.drawText(QPointF(ground.right() - width, ground.bottom() + 37), title);
}

void paintWhisker(QPainter& painter, double x, double low, double high, const QColor& colour) {
    painter.setPen(QPen(colour, 2));
    painter.drawLine(QPointF(x, low), QPointF(x, high));
    for (const double end : {low, high})
        painter.drawLine(QPointF(x - 4, end), QPointF(x + 4, end));
}

void spreadApart(std::vector<double>& places, double height) {
    std::vector<std::size_t> order(places.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return places[i]; });
    // Each cluster of labels that touch is centred on where its labels want to be.
    struct Cluster {
        double sum = 0;
        std::vector<std::size_t> members;
        double top(double height) const {
            return sum / static_cast<double>(members.size()) - height * static_cast<double>(members.size() - 1) / 2;
        }
        double bottom(double height) const { return top(height) + height * static_cast<double>(members.size()); }
    };
    std::vector<Cluster> clusters;
    for (const std::size_t i : order) {
        clusters.push_back({places[i], {i}});
        while (clusters.size() > 1 && clusters.back().top(height) < clusters[clusters.size() - 2].bottom(height)) {
            const Cluster last = clusters.back();
            clusters.pop_back();
            clusters.back().sum += last.sum;
            clusters.back().members.insert(clusters.back().members.end(), last.members.begin(), last.members.end());
        }
    }
    for (const Cluster& cluster : clusters)
        for (std::size_t k = 0; k < cluster.members.size(); ++k)
            places[cluster.members[k]] = cluster.top(height) + height * static_cast<double>(k);
}

} // namespace knot::app
