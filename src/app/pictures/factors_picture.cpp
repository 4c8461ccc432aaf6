#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/ground.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/judge/causes/along.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"
#include "core/statistics/distributions.h"
#include "core/words/along.h"
#include "core/words/remarks/remark_level.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr double axisRoom = 56;
constexpr double nameRoom = 150;
constexpr double underRoom = 34;

/// The mean of a club's stints at one level of the second factor.
struct Cell {
    double mean = 0;
    std::optional<double> low, high; ///< 95 %, from two stints on
};

class FactorsPicture : public Picture {
public:
    explicit FactorsPicture(const Looked& looked)
        : m_format(looked.metric, looked.units) {
        gather(looked);
        QStringList said;
        const double level = words::remarkLevel(looked.reading);
        for (const judge::ModelEstimate& e : words::interactionsSaid(looked.reading))
            if (e.metric == looked.metric)
                said << QString::fromStdString(
                    words::interactionSentence(e, e.p <= level, looked.reading, looked.units));
        m_finding = said.isEmpty() ? tr("Means of %1 by club and %2.")
                                         .arg(QString::fromStdString(record::info(looked.metric).label),
                                              QString::fromStdString(looked.reading.card.factorColumn))
                                   : said.join(QLatin1Char(' '));
    }

    bool isEmpty() const { return m_levels.size() < 2 || m_builds.empty(); }
    QString finding() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_box = box;
        m_ground = QRectF(box.left() + axisRoom, box.top() + 22, box.width() - axisRoom - nameRoom,
                          box.height() - 22 - underRoom);
        double low = std::numeric_limits<double>::infinity();
        double high = -low;
        for (const auto& row : m_cells)
            for (const auto& cell : row)
                if (cell) {
                    low = std::min(low, cell->low.value_or(cell->mean));
                    high = std::max(high, cell->high.value_or(cell->mean));
                }
        m_y = picture::niceAxis(low, high, m_ground.bottom(), m_ground.top(),
                                std::max(2, static_cast<int>(m_ground.height() / 60)));
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        const Colours& c = colours();
        paintUpright(painter, m_ground, m_y, QString::fromStdString(m_format.unitText()), m_box.top() + 12);
        painter.setFont(typeface(size::body));
        for (std::size_t level = 0; level < static_cast<std::size_t>(m_levels.size()); ++level) {
            painter.setPen(c.ink);
            const double room = m_ground.width() / static_cast<double>(m_levels.size()) - 8;
            const QString name = painter.fontMetrics().elidedText(m_levels[static_cast<qsizetype>(level)],
                                                                  Qt::ElideRight, static_cast<int>(room));
            painter.drawText(
                QPointF(x(level) - painter.fontMetrics().horizontalAdvance(name) / 2.0, m_ground.bottom() + 24), name);
        }
        for (std::size_t i = 0; i < m_builds.size(); ++i)
            paintClub(painter, i);
        paintNames(painter);
    }

private:
    double x(std::size_t level) const {
        return m_ground.left() +
               (static_cast<double>(level) + 0.5) * m_ground.width() / static_cast<double>(m_levels.size());
    }
    // Clubs stand a little beside each other, so that no interval hides another.
    double beside(std::size_t club) const {
        return 12 * (static_cast<double>(club) - (static_cast<double>(m_builds.size()) - 1) / 2);
    }

    void gather(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        const auto column = judge::columnOf(test, looked.structure, looked.metric, judge::Taken::counted);
        const std::string& factor = looked.reading.card.factorColumn;
        std::vector<std::string> levels;
        for (const record::Shot& shot : test.shots)
            if (const auto level = judge::levelOf(test, shot, factor);
                !level.empty() && std::ranges::find(levels, level) == levels.end())
                levels.push_back(level);
        for (const auto& level : levels)
            m_levels << QString::fromStdString(level);
        for (record::BuildAt b; b < column.builds.size(); ++b) {
            std::vector<std::optional<Cell>> row;
            for (const auto& level : levels) {
                std::vector<double> means;
                for (const judge::TurnValues& turn : column.builds[b].turns)
                    if (judge::levelOf(test, test.shots[turn.shots.front()], factor) == level)
                        means.push_back(m_format.shown(turn.mean()));
                row.push_back(cellOf(means));
            }
            if (std::ranges::none_of(row, [](const auto& cell) { return cell.has_value(); }))
                continue;
            m_cells.push_back(std::move(row));
            m_builds.push_back(b);
            m_names << nameOf(looked, b);
        }
    }

    static std::optional<Cell> cellOf(const std::vector<double>& means) {
        if (means.empty())
            return std::nullopt;
        Cell cell{.mean = judge::meanOf(means)};
        if (means.size() > 1) {
            const auto n = static_cast<double>(means.size());
            const double reach =
                statistics::studentQuantile(0.975, n - 1) * judge::standardDeviation(means) / std::sqrt(n);
            cell.low = cell.mean - reach;
            cell.high = cell.mean + reach;
        }
        return cell;
    }

    void paintClub(QPainter& painter, std::size_t i) const {
        const QColor colour = tagColour(m_builds[i]);
        constexpr std::array styles = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
        std::optional<QPointF> before;
        for (std::size_t level = 0; level < static_cast<std::size_t>(m_levels.size()); ++level) {
            const auto& cell = m_cells[i][level];
            if (!cell)
                continue;
            const QPointF point(x(level) + beside(i), m_y.pixel(cell->mean));
            if (before) {
                painter.setPen(QPen(colour, 2, styles[m_builds[i] % styles.size()]));
                painter.drawLine(*before, point);
            }
            before = point;
        }
        for (std::size_t level = 0; level < static_cast<std::size_t>(m_levels.size()); ++level)
            if (const auto& cell = m_cells[i][level]) {
                const QPointF point(x(level) + beside(i), m_y.pixel(cell->mean));
                if (cell->low)
                    paintWhisker(painter, point.x(), std::min(m_y.pixel(*cell->low), m_ground.bottom()),
                                 std::max(m_y.pixel(*cell->high), m_ground.top()), colour);
                drawTag(painter, QRectF(point.x() - 6.5, point.y() - 6.5, 13, 13), m_builds[i]);
                painter.setPen(colours().ink);
                const bool isLeft = beside(i) <= 0;
                drawTabular(painter, typeface(size::caption), point + QPointF(isLeft ? -12 : 12, -6),
                            QString::fromStdString(record::fixed(cell->mean, m_format.decimals())),
                            isLeft ? Align::right : Align::left);
            }
    }

    // Names stand right of the last means, apart from each other.
    void paintNames(QPainter& painter) const {
        std::vector<double> places;
        for (const auto& row : m_cells) {
            const auto last =
                std::ranges::find_if(row.rbegin(), row.rend(), [](const auto& c) { return c.has_value(); });
            places.push_back(m_y.pixel((*last)->mean));
        }
        spreadApart(places, 20);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        for (std::size_t i = 0; i < m_builds.size(); ++i) {
            drawTag(painter, QRectF(m_ground.right() + 8, places[i] - 6, 12, 12), m_builds[i]);
            painter.setPen(colours().ink);
            painter.drawText(QPointF(m_ground.right() + 26, places[i] + 5),
                             clubName(painter, m_names[static_cast<qsizetype>(i)], nameRoom - 30, m_names));
        }
    }

    MetricFormat m_format;
    QStringList m_levels;
    std::vector<record::BuildAt> m_builds;
    QStringList m_names;                                   ///< beside the builds
    std::vector<std::vector<std::optional<Cell>>> m_cells; ///< by build, then level
    QString m_finding;
    picture::Axis m_y;
    QRectF m_box, m_ground;
};

} // namespace

std::unique_ptr<Picture> factorsPicture(const Looked& looked) {
    if (looked.reading.card.factorColumn.empty())
        return nullptr;
    auto picture = std::make_unique<FactorsPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
