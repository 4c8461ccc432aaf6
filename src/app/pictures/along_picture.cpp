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
#include "core/record/text/text.h"
#include "core/words/along.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr double axisRoom = 56;
constexpr double nameRoom = 120;
constexpr double underRoom = 46;

/// A club at its number.
struct Club {
    record::BuildAt build;
    double along = 0, mean = 0, shots = 0;
    std::optional<double> low, high;
};

class AlongPicture : public Picture {
public:
    AlongPicture(const Looked& looked, const judge::Trend& trend)
        : m_format(looked.metric, looked.units) {
        gather(looked);
        const words::Along along = words::alongOf(looked.reading.card.trendColumn);
        m_title = QString::fromStdString(along.what +
                                         (along.unit.empty() ? "" : ", " + std::string(record::trimmed(along.unit))));
        m_slope = m_format.shown(trend.slope.value);
        double n = 0;
        double x = 0;
        double y = 0;
        for (const Club& club : m_clubs) {
            n += club.shots;
            x += club.shots * club.along;
            y += club.shots * club.mean;
        }
        m_level = n > 0 ? (y - m_slope * x) / n : 0;
        m_finding = QString::fromStdString(words::trendSentence(trend, looked.reading.card.trendColumn, looked.units));
        if (trend.fitP && *trend.fitP < 0.05) // a line does not do: the club farthest from it is named
            m_leaves = std::ranges::max_element(
                           m_clubs, {}, [&](const Club& club) { return std::fabs(club.mean - onLine(club.along)); }) -
                       m_clubs.begin();
        if (m_leaves && *m_leaves < std::ssize(m_clubs))
            m_finding +=
                QLatin1Char(' ') +
                tr("%1 leaves it most.").arg(nameOf(looked, m_clubs[static_cast<std::size_t>(*m_leaves)].build));
    }

    bool isEmpty() const { return m_clubs.size() < 2; }
    QString finding() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_box = box;
        m_ground = QRectF(box.left() + axisRoom, box.top() + 22, box.width() - axisRoom - nameRoom,
                          box.height() - 22 - underRoom);
        double low = m_clubs.front().mean;
        double high = low;
        for (const Club& club : m_clubs) {
            low = std::min({low, club.mean, club.low.value_or(low), onLine(club.along)});
            high = std::max({high, club.mean, club.high.value_or(high), onLine(club.along)});
        }
        m_y = picture::niceAxis(low, high, m_ground.bottom(), m_ground.top(),
                                std::max(2, static_cast<int>(m_ground.height() / 60)));
        const auto [first, last] = std::ranges::minmax_element(m_clubs, {}, &Club::along);
        const double air = 0.06 * (last->along - first->along);
        m_x = picture::niceAxis(first->along - air, last->along + air, m_ground.left(), m_ground.right(),
                                std::max(2, static_cast<int>(m_ground.width() / 70)));
    }

    void paint(QPainter& painter, std::optional<std::size_t>) const override {
        const Colours& c = colours();
        paintUpright(painter, m_ground, m_y, QString::fromStdString(m_format.unitText()), m_box.top() + 12);
        paintAlong(painter, m_ground, m_x, m_title);
        const auto [first, last] = std::ranges::minmax_element(m_clubs, {}, &Club::along);
        painter.setPen(QPen(c.cord, 2));
        painter.drawLine(at(first->along, onLine(first->along)), at(last->along, onLine(last->along)));
        paintBetween(painter, first->along, last->along);
        for (std::size_t i = 0; i < m_clubs.size(); ++i)
            paintClub(painter, i);
    }

private:
    QPointF at(double x, double y) const { return {m_x.pixel(x), m_y.pixel(y)}; }
    double onLine(double x) const { return m_level + m_slope * x; }

    void gather(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        for (record::BuildAt b; b < test.builds.size(); ++b) {
            const judge::Summary* summary = looked.reading.summaryOf(looked.metric, b);
            Club club{.build = b};
            for (const record::Shot& shot : test.shots)
                if (const auto number = shot.build == b && judge::isTaken(shot, judge::Taken::counted)
                                            ? judge::numberAlong(test, shot, looked.reading.card.trendColumn)
                                            : std::nullopt) {
                    club.along += *number;
                    ++club.shots;
                }
            if (summary == nullptr || club.shots == 0)
                continue;
            club.along /= club.shots;
            club.mean = m_format.shown(summary->mean);
            if (summary->ci95) {
                club.low = m_format.shown(summary->ci95->low);
                club.high = m_format.shown(summary->ci95->high);
            }
            m_clubs.push_back(club);
            m_names << nameOf(looked, b);
            m_means << QString::fromStdString(
                m_format.supportedBy(summary->standardError.value_or(0)).number(summary->mean));
        }
    }

    // What the line says of values that nobody hit: open, and only between those that were.
    void paintBetween(QPainter& painter, double from, double to) const {
        const Colours& c = colours();
        for (const double tick : m_x.ticks) {
            const bool isHit = std::ranges::any_of(
                m_clubs, [&](const Club& club) { return std::fabs(m_x.pixel(club.along) - m_x.pixel(tick)) < 24; });
            if (tick <= from || tick >= to || isHit)
                continue;
            const QPointF point = at(tick, onLine(tick));
            painter.setPen(QPen(c.cord, 1.5));
            painter.setBrush(c.sheet);
            painter.drawPolygon(QPolygonF(
                {point + QPointF(0, -5), point + QPointF(5, 0), point + QPointF(0, 5), point + QPointF(-5, 0)}));
            painter.setPen(c.faint);
            drawTabular(painter, typeface(size::caption), point + QPointF(0, m_slope > 0 ? 20 : -11),
                        QString::fromStdString(record::fixed(onLine(tick), m_y.decimals)), Align::centre);
        }
    }

    void paintClub(QPainter& painter, std::size_t i) const {
        const Club& club = m_clubs[i];
        const QPointF point = at(club.along, club.mean);
        if (club.low)
            paintWhisker(painter, point.x(), std::min(m_y.pixel(*club.low), m_ground.bottom()),
                         std::max(m_y.pixel(*club.high), m_ground.top()), tagColour(club.build));
        drawTag(painter, QRectF(point.x() - 7, point.y() - 7, 14, 14), club.build);
        const bool leaves = m_leaves && static_cast<std::size_t>(*m_leaves) == i;
        painter.setPen(colours().ink);
        painter.setFont(typeface(size::body, QFont::DemiBold));
        const QString name = clubName(painter, m_names[static_cast<qsizetype>(i)], nameRoom, m_names);
        // On the side that the line does not go to.
        const QPointF words = point + QPointF(13, m_slope > 0 ? 16 : -20);
        painter.drawText(words, name);
        painter.setPen(colours().faint);
        drawTabular(painter, typeface(size::caption), words + QPointF(0, 16), m_means[static_cast<qsizetype>(i)],
                    Align::left);
        if (!leaves)
            return;
        painter.setFont(typeface(size::caption));
        painter.drawText(words + QPointF(0, 32), tr("off the line"));
        painter.setPen(QPen(colours().ink, 1.2, Qt::DashLine));
        painter.drawLine(point, at(club.along, onLine(club.along)));
    }

    MetricFormat m_format;
    std::vector<Club> m_clubs;
    QStringList m_names, m_means; ///< beside the clubs
    QString m_title, m_finding;
    double m_slope = 0, m_level = 0; ///< of the line, as shown
    std::optional<std::ptrdiff_t> m_leaves;
    picture::Axis m_x, m_y;
    QRectF m_box, m_ground;
};

} // namespace

std::unique_ptr<Picture> alongPicture(const Looked& looked) {
    for (const judge::Trend& trend : looked.reading.trend)
        if (trend.slope.metric == looked.metric) {
            auto picture = std::make_unique<AlongPicture>(looked, trend);
            return picture->isEmpty() ? nullptr : std::move(picture);
        }
    return nullptr;
}

} // namespace knot::app
