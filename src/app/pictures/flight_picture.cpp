#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/axis.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/flight/flight.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPolygonF>

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double axisRoom = 46;
constexpr double axisHeight = 26;
constexpr double legendWidth = 150;
constexpr double usualRadius = 4;
constexpr double openGround = 0.14; // how wind grows with height

/// A way through the air in m: how far, how high, how far right.
using Way = std::vector<flight::Point>;

/// What is known of one flight.
struct Flown {
    std::optional<double> ballSpeed, launch, spin, carry, apex, side;
    double direction = 0, axis = 0;
};

// The modelled way, drawn out to where the ball was measured to come down and how high it rose.
// In a wind, by what the model makes of it, stretched alike.
Way wayOf(const Flown& flown, double wind) {
    if (!flown.ballSpeed || !flown.launch || !flown.spin)
        return {};
    const flight::Launch launch{*flown.ballSpeed, *flown.launch, flown.direction, std::max(0.0, *flown.spin),
                                flown.axis};
    const auto modelled = flight::fly(launch, {}, flight::PathWanted::yes);
    if (!(modelled.carry > 0))
        return {};
    const double far = flown.carry.value_or(modelled.carry) / modelled.carry;
    const double high = modelled.apex > 0 ? flown.apex.value_or(modelled.apex) / modelled.apex : 1;
    const double aside = flown.side ? *flown.side - modelled.side : 0;
    Way way = wind == 0 ? modelled.path
                        : flight::fly(launch, {.windAlong = wind, .shear = openGround}, flight::PathWanted::yes).path;
    for (flight::Point& point : way) {
        point.right += aside * point.along / modelled.carry;
        point.along *= far;
        point.up *= high;
    }
    return way;
}

/// One club: its mean flight, and where its shots came down.
struct Club {
    record::BuildAt build;
    QString name;
    Way way;
    struct Landing {
        double carry = 0, side = 0;
        std::size_t shot = 0;
    };
    std::vector<Landing> landings;
};

class FlightPicture : public Picture {
public:
    explicit FlightPicture(const Looked& looked)
        : m_far(Metric::carry, looked.units)
        , m_high(Metric::apex, looked.units) {
        const record::Test& test = looked.subject.seen();
        m_flown.resize(test.shots.size());
        for (record::BuildAt b; b < test.builds.size(); ++b) {
            Club club{
                .build = b, .name = nameOf(looked, b), .way = wayOf(meansOf(looked, b), looked.wind), .landings = {}};
            for (std::size_t i = 0; i < test.shots.size(); ++i)
                if (looked.wind == 0 && test.shots[i].build == b && // they were not hit in that wind
                    judge::isTaken(test.shots[i], judge::Taken::counted))
                    addShot(looked, i, club);
            if (!club.way.empty())
                m_clubs.push_back(std::move(club));
        }
        QStringList said;
        for (const Club& club : m_clubs) {
            double apex = 0;
            for (const flight::Point& point : club.way)
                apex = std::max(apex, point.up);
            said << tr("%1 %2 far and %3 high")
                        .arg(club.name, QString::fromStdString(m_far.withUnit(club.way.back().along)),
                             QString::fromStdString(m_high.withUnit(apex)));
        }
        const MetricFormat speed(Metric::ballSpeed, looked.units);
        m_finding = looked.wind == 0
                        ? tr("Mean flights: %1. The way between is modelled.").arg(said.join(QStringLiteral("; ")))
                        : tr("Modelled %1 a wind of %2: %3.")
                              .arg(looked.wind < 0 ? tr("against") : tr("with"),
                                   QString::fromStdString(speed.withUnit(std::fabs(looked.wind))),
                                   said.join(QStringLiteral("; ")));
    }

    bool isEmpty() const { return m_clubs.empty(); }
    QString finding() const override { return m_finding; }
    QString legend() const override { return tr("W in a wind · Ctrl+C copies · Ctrl+Shift+E saves"); }

    void layOut(const QRectF& box) override {
        m_box = box;
        double far = 1;
        double high = 1;
        double wide = 5;
        for (const Club& club : m_clubs) {
            for (const flight::Point& point : club.way) {
                far = std::max(far, point.along);
                high = std::max(high, point.up);
                wide = std::max(wide, std::fabs(point.right));
            }
            for (const auto& landing : club.landings) {
                far = std::max(far, landing.carry);
                wide = std::max(wide, std::fabs(landing.side));
            }
        }
        const double width = box.width() - axisRoom - legendWidth;
        const double height = box.height() - 2 * axisHeight - 12;
        // One scale for all three directions.
        m_scale = std::min(width / (1.04 * far), height / (1.1 * high + 2.2 * wide));
        const double unused = height - (1.1 * high + 2.2 * wide) * m_scale;
        m_top = box.top() + 6 + std::max(0.0, unused / 3);
        m_ground = m_top + 1.1 * high * m_scale;
        m_middle = m_ground + axisHeight + 6 + 1.1 * wide * m_scale;
        m_bottom = m_middle + 1.1 * wide * m_scale;
        m_left = box.left() + axisRoom;
        // The axis begins where the ball is struck: only its ticks are taken, and put in place by the scale.
        m_farAxis = picture::niceAxis(0, m_far.shown(far), 0, 1, 6);
        m_perTick = m_scale * far / m_far.shown(far);
        std::erase_if(m_farAxis.ticks, [&](double tick) { return tick < 0 || tick > 1.04 * m_far.shown(far); });
        std::size_t landings = 0;
        for (const auto& club : m_clubs)
            landings += club.landings.size();
        m_radius = picture::knotRadius(landings, usualRadius);
        m_marks.clear();
        for (std::size_t i = 0; i < m_clubs.size(); ++i)
            for (const auto& landing : m_clubs[i].landings)
                m_marks.push_back({fromAbove(landing.carry, landing.side), m_radius, landing.shot, i,
                                   m_texts.value(static_cast<qsizetype>(landing.shot))});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        paintGround(painter);
        for (const Club& club : m_clubs)
            paintWay(painter, club.way, tagColour(club.build), club.build, 2);
        for (const Mark& mark : m_marks)
            drawKnot(painter, mark.at, m_radius, tagColour(m_clubs[mark.row].build));
        if (lit && *lit < m_flown.size())
            paintWay(painter, wayOf(m_flown[*lit], 0), colours().ink, record::BuildAt(0), 1.2);
        for (const Mark& mark : m_marks)
            if (lit && mark.shot == *lit)
                drawKnot(painter, mark.at, m_radius + 3, colours().ink);
        paintLegend(painter);
    }

private:
    static Flown meansOf(const Looked& looked, record::BuildAt build) {
        auto mean = [&](Metric metric) {
            const judge::Summary* summary = looked.reading.summaryOf(metric, build);
            return summary == nullptr ? std::nullopt : std::optional(summary->mean);
        };
        return {mean(Metric::ballSpeed),
                mean(Metric::launch),
                mean(Metric::spin),
                mean(Metric::carry),
                mean(Metric::apex),
                mean(Metric::side),
                mean(Metric::launchDirection).value_or(0),
                mean(Metric::spinAxis).value_or(0)};
    }

    void addShot(const Looked& looked, std::size_t at, Club& club) {
        const auto& r = looked.subject.seen().shots[at].readings;
        m_flown[at] = Flown{r.at(Metric::ballSpeed),
                            r.at(Metric::launch),
                            r.at(Metric::spin),
                            r.at(Metric::carry),
                            r.at(Metric::apex),
                            r.at(Metric::side),
                            r.at(Metric::launchDirection).value_or(0),
                            r.at(Metric::spinAxis).value_or(0)};
        const auto carry = r.at(Metric::carry);
        const auto side = r.at(Metric::side);
        if (!carry || !side)
            return;
        club.landings.push_back({*carry, *side, at});
        m_texts.resize(std::max(m_texts.size(), static_cast<qsizetype>(at) + 1));
        QString words = QString::fromStdString(m_far.withUnit(*carry));
        if (const auto apex = r.at(Metric::apex))
            words += tr(", %1 high").arg(QString::fromStdString(m_high.withUnit(*apex)));
        m_texts[static_cast<qsizetype>(at)] = shotText(looked, at, words);
    }

    QPointF fromTheSide(const flight::Point& point) const {
        return {m_left + point.along * m_scale, m_ground - point.up * m_scale};
    }
    QPointF fromAbove(double along, double right) const {
        return {m_left + along * m_scale, m_middle + right * m_scale};
    }

    void paintGround(QPainter& painter) const {
        const Colours& c = colours();
        const double right = m_box.right() - legendWidth;
        painter.setPen(QPen(c.faint, 1));
        painter.drawLine(QPointF(m_left, m_ground), QPointF(right, m_ground));
        painter.setPen(QPen(c.faint, 1, Qt::DashLine));
        painter.drawLine(QPointF(m_left, m_middle), QPointF(right, m_middle));
        for (const double tick : m_farAxis.ticks) {
            const double x = m_left + tick * m_perTick;
            painter.setPen(QPen(c.band, 1));
            painter.drawLine(QPointF(x, m_ground), QPointF(x, m_top));
            painter.drawLine(QPointF(x, m_middle - (m_bottom - m_middle)), QPointF(x, m_bottom));
            painter.setPen(c.faint);
            drawTabular(painter, typeface(size::caption), {x, m_ground + 17},
                        QString::fromStdString(record::fixed(tick, m_farAxis.decimals)), Align::centre);
        }
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(m_box.left(), m_top + 12), tr("side"));
        painter.drawText(QPointF(m_box.left(), m_middle - (m_bottom - m_middle) + 12), tr("above"));
        drawTabular(painter, typeface(size::caption), {m_left - 8, m_ground + 17},
                    QString::fromStdString(m_far.unitText()), Align::right);
    }

    void paintWay(QPainter& painter, const Way& way, const QColor& colour, std::size_t style, double width) const {
        // Clubs are told apart by the line too.
        constexpr std::array styles = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
        QPolygonF side;
        QPolygonF above;
        for (const flight::Point& point : way) {
            side << fromTheSide(point);
            above << fromAbove(point.along, point.right);
        }
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colour, width, styles[style % styles.size()]));
        painter.drawPolyline(side);
        painter.drawPolyline(above);
    }

    void paintLegend(QPainter& painter) const {
        const Colours& c = colours();
        const double left = m_box.right() - legendWidth + 18;
        double y = m_box.top() + 22;
        const double step = std::min(26.0, (m_box.bottom() - 50 - y) / static_cast<double>(m_clubs.size()));
        for (const Club& club : m_clubs) {
            drawTag(painter, QRectF(left, y - 10, 12, 12), club.build);
            painter.setPen(c.ink);
            painter.setFont(typeface(size::body, QFont::DemiBold));
            painter.drawText(QPointF(left + 20, y), clubName(painter, club.name, legendWidth - 44, namesOf(m_clubs)));
            y += step;
        }
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(left, m_box.bottom() - 30), tr("ends measured,"));
        painter.drawText(QPointF(left, m_box.bottom() - 12), tr("ways modelled"));
    }

    MetricFormat m_far, m_high;
    std::vector<Club> m_clubs;
    std::vector<Flown> m_flown; ///< by shot; flown when it is pointed at
    QStringList m_texts;
    QString m_finding;
    QRectF m_box;
    double m_radius = usualRadius;
    picture::Axis m_farAxis;
    double m_scale = 1, m_perTick = 1; ///< pixels a metre, and a unit of the axis
    double m_left = 0, m_top = 0, m_ground = 0, m_middle = 0, m_bottom = 0;
};

} // namespace

std::unique_ptr<Picture> flightPicture(const Looked& looked) {
    auto picture = std::make_unique<FlightPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
