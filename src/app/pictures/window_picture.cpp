#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/face.h"
#include "app/picture/ground.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/judge/columns.h"
#include "core/reach/offer.h"
#include "core/reach/window.h"
#include "core/record/text/number_text.h"
#include "core/words/reached.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <array>
#include <limits>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double axisRoom = 60;
constexpr double nameRoom = 170;
constexpr double underRoom = 46;
constexpr double usualRadius = 4.5;
constexpr double endless = std::numeric_limits<double>::infinity();

/// The ends of what is wanted of a number, as shown; an open end is endless.
struct Wanted {
    double low = -endless, high = endless;

    bool isOpen() const { return low == -endless && high == endless; }
    bool holds(double value) const { return value >= low && value <= high; }
};

struct Ball {
    double x = 0, y = 0; ///< as shown
    std::size_t shot = 0, club = 0;
};

/// Two numbers of every shot against what is wanted of them: a driver's launch and spin, else carry and descent. Where
/// nobody wants anything, a driver's stand among what lofts can give this swing.
class WindowPicture : public Picture {
public:
    explicit WindowPicture(const Looked& looked)
        : m_isOfDescent(!isOfLaunch(looked))
        , m_xFormat(m_isOfDescent ? Metric::descent : Metric::launch, looked.units)
        , m_yFormat(m_isOfDescent ? Metric::carry : Metric::spin, looked.units) {
        gather(looked);
        findWindow(looked);
        if (m_reach)
            reckonShares();
        say(looked);
    }

    bool isEmpty() const { return m_balls.empty(); }
    QString finding() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_box = box;
        m_ground = QRectF(box.left() + axisRoom, box.top() + 22, box.width() - axisRoom - nameRoom,
                          box.height() - 22 - underRoom);
        m_x = axisOver(&Ball::x, m_shares ? m_xRange : m_xWanted, m_ground.left(), m_ground.right(),
                       m_ground.width() / 70);
        m_y = axisOver(&Ball::y, m_shares ? m_yRange : m_yWanted, m_ground.bottom(), m_ground.top(),
                       m_ground.height() / 60);
        m_radius = picture::knotRadius(m_balls.size(), usualRadius);
        m_marks.clear();
        for (const Ball& ball : m_balls)
            m_marks.push_back({{m_x.pixel(ball.x), m_y.pixel(ball.y)},
                               m_radius,
                               ball.shot,
                               ball.club,
                               m_texts.value(static_cast<qsizetype>(ball.shot))});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        const Colours& c = colours();
        const bool isWanted = !m_xWanted.isOpen() || !m_yWanted.isOpen();
        const QRectF box(QPointF(within(m_x, m_xWanted.low), within(m_y, m_yWanted.high)),
                         QPointF(within(m_x, m_xWanted.high), within(m_y, m_yWanted.low)));
        if (isWanted)
            painter.fillRect(box, c.band);
        if (m_reach)
            paintReach(painter);
        paintUpright(painter, m_ground, m_y, QString::fromStdString(m_yFormat.unitText()), m_box.top() + 12);
        paintAlong(painter, m_ground, m_x, m_isOfDescent ? tr("descent, °") : tr("launch, °"));
        if (isWanted) {
            painter.setFont(typeface(size::caption));
            painter.setPen(c.ink);
            painter.drawText(box.topLeft() + QPointF(6, 15), tr("wanted"));
        }
        if (m_reach)
            paintLofts(painter);
        for (std::size_t i = 0; i < m_balls.size(); ++i)
            drawKnot(painter, m_marks[i].at, m_radius, tagColour(m_builds[m_balls[i].club]));
        paintMiddles(painter);
        for (std::size_t i = 0; i < m_balls.size(); ++i)
            if (lit && m_balls[i].shot == *lit)
                drawKnot(painter, m_marks[i].at, m_radius + 3, c.ink);
        paintLegend(painter);
    }

private:
    // What the sheet wants goes before the kind of club.
    static bool isOfLaunch(const Looked& looked) {
        for (const record::Target& target : looked.reading.card.targets)
            if (target.metric == Metric::launch || target.metric == Metric::spin)
                return true;
        for (const record::Target& target : looked.reading.card.targets)
            if (target.metric == Metric::descent)
                return false;
        const auto& read = looked.reading.metrics;
        return picture::faceKind(looked.subject.seen()) == picture::FaceKind::driver ||
               std::ranges::find(read, Metric::descent) == read.end();
    }

    static double within(const picture::Axis& axis, double value) {
        return axis.pixel(std::clamp(value, axis.low, axis.high));
    }

    picture::Axis axisOver(double Ball::*of, const Wanted& wanted, double from, double to, double ticks) const {
        double low = endless;
        double high = -endless;
        for (const Ball& ball : m_balls) {
            low = std::min(low, ball.*of);
            high = std::max(high, ball.*of);
        }
        for (const double end : {wanted.low, wanted.high})
            if (std::isfinite(end)) {
                low = std::min(low, end);
                high = std::max(high, end);
            }
        return picture::niceAxis(low, high, from, to, std::max(2, static_cast<int>(ticks)));
    }

    void gather(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        std::vector<std::size_t> clubOf(test.builds.size(), test.builds.size());
        for (std::size_t i = 0; i < test.shots.size(); ++i) {
            const record::Shot& shot = test.shots[i];
            const auto x = shot.readings.at(m_isOfDescent ? Metric::descent : Metric::launch);
            const auto y = shot.readings.at(m_isOfDescent ? Metric::carry : Metric::spin);
            if (!judge::isTaken(shot, judge::Taken::counted) || !x || !y)
                continue;
            std::size_t& club = clubOf[shot.build];
            if (club == test.builds.size()) {
                club = m_builds.size();
                m_builds.push_back(shot.build);
                m_names << nameOf(looked, shot.build);
            }
            m_balls.push_back({m_xFormat.shown(*x), m_yFormat.shown(*y), i, club});
            m_texts.resize(static_cast<qsizetype>(i) + 1);
            m_texts[static_cast<qsizetype>(i)] =
                shotText(looked, i,
                         QString::fromStdString(m_xFormat.withUnit(*x)) + QStringLiteral(", ") +
                             QString::fromStdString(m_yFormat.withUnit(*y)));
        }
    }

    void findWindow(const Looked& looked) {
        for (const record::Target& target : looked.reading.card.targets) {
            if (!target.build.empty())
                continue;
            const double room = target.low == target.high ? looked.reading.card.margin(target.metric) : 0;
            const MetricFormat format(target.metric, looked.units);
            const Wanted wanted{format.shown(target.low - room), format.shown(target.high + room)};
            if (target.metric == (m_isOfDescent ? Metric::descent : Metric::launch))
                m_xWanted = wanted;
            if (target.metric == (m_isOfDescent ? Metric::carry : Metric::spin))
                m_yWanted = wanted;
        }
        if (!m_xWanted.isOpen() || !m_yWanted.isOpen())
            m_source = tr("as the sheet wants it");
        else
            findUsual(looked);
    }

    // The mean over all shots; nothing where it was not read.
    static std::optional<double> meanOf(const Looked& looked, Metric metric) {
        double sum = 0;
        double n = 0;
        for (const judge::Summary& summary : looked.reading.summary)
            if (summary.metric == metric) {
                sum += summary.mean * static_cast<double>(summary.n);
                n += static_cast<double>(summary.n);
            }
        return n > 0 ? std::optional(sum / n) : std::nullopt;
    }

    static Wanted shown(const reach::Band& band, const MetricFormat& format) {
        return {band.from ? format.shown(*band.from) : -endless, band.to ? format.shown(*band.to) : endless};
    }

    // A chart of one's own goes before what the models say.
    void findUsual(const Looked& looked) {
        const auto speed = meanOf(looked, Metric::ballSpeed);
        if (!speed)
            return;
        const auto kind = picture::faceKind(looked.subject.seen());
        const auto own = looked.chart == nullptr ? std::nullopt : looked.chart->at(kind, *speed);
        m_ballSpeed = *speed;
        if (!own && !m_isOfDescent && kind == flight::HeadKind::driver) {
            const double attack =
                meanOf(looked, Metric::attack).value_or(reach::offerOf(flight::HeadKind::driver).attack);
            if (const auto club = reach::clubSpeedFor(kind, *speed, attack)) {
                m_swing = {.kind = kind, .clubSpeed = *club, .attack = attack};
                m_reach = reach::windowOf(m_swing);
            }
            return;
        }
        const auto wanted = own ? own : reach::usualChart().at(kind, *speed);
        if (!wanted)
            return;
        m_xWanted = shown(m_isOfDescent ? wanted->descent : wanted->launch, m_xFormat);
        if (!m_isOfDescent)
            m_yWanted = shown(wanted->spin, m_yFormat);
        const MetricFormat ball = MetricFormat(Metric::ballSpeed, looked.units).supportedBy(5);
        const QString at = QString::fromStdString(ball.withUnit(*speed));
        m_source = own             ? tr("at %1 by “%2”").arg(at, QString::fromStdString(looked.chart->name))
                   : m_isOfDescent ? tr("to stay on a green and not to balloon at %1, modelled").arg(at)
                                   : tr("at %1, modelled").arg(at);
    }

    // Over all that is drawn, and some more.
    void reckonShares() {
        constexpr double air = 0.06;
        reach::Band launch = m_reach->launch;
        reach::Band spin = m_reach->spin;
        auto widen = [](reach::Band& band, double value) {
            band.from = std::min(*band.from, value);
            band.to = std::max(*band.to, value);
        };
        for (const reach::Try& one : m_reach->along) {
            widen(launch, one.launch.launch);
            widen(spin, one.launch.spin);
        }
        for (const Ball& ball : m_balls) {
            widen(launch, ball.x);
            widen(spin, ball.y);
        }
        for (reach::Band* band : {&launch, &spin}) {
            const double more = air * (*band->to - *band->from);
            band->from = std::max(*band->from - more, 0.0);
            band->to = *band->to + more;
        }
        m_xRange = {*launch.from, *launch.to};
        m_yRange = {*spin.from, *spin.to};
        m_shares.emplace(*m_reach, launch, spin);
    }

    bool isInside(const Ball& ball) const {
        return m_shares ? m_shares->isInside(ball.x, ball.y) : m_xWanted.holds(ball.x) && m_yWanted.holds(ball.y);
    }

    // Where a ball of this speed goes nearly as far as the best that lofts give: cell by cell of the grid.
    void paintReach(QPainter& painter) const {
        QPainterPath path;
        constexpr std::size_t last = reach::Shares::side - 1;
        for (std::size_t row = 0; row < last; ++row)
            for (std::size_t column = 0; column < last; ++column) {
                const std::array<std::pair<std::size_t, std::size_t>, 4> corners = {
                    {{column, row}, {column + 1, row}, {column + 1, row + 1}, {column, row + 1}}};
                QPolygonF cell;
                for (std::size_t i = 0; i < corners.size(); ++i) {
                    const auto& [c0, r0] = corners[i];
                    const auto& [c1, r1] = corners[(i + 1) % corners.size()];
                    const double here = m_shares->gridAt(c0, r0) - reach::nearlyAll;
                    const double there = m_shares->gridAt(c1, r1) - reach::nearlyAll;
                    const QPointF from(m_x.pixel(m_shares->launchAt(c0)), m_y.pixel(m_shares->spinAt(r0)));
                    const QPointF to(m_x.pixel(m_shares->launchAt(c1)), m_y.pixel(m_shares->spinAt(r1)));
                    if (here >= 0)
                        cell << from;
                    if ((here >= 0) != (there >= 0))
                        cell << from + (to - from) * (here / (here - there));
                }
                if (cell.size() > 2)
                    path.addPolygon(cell);
            }
        painter.save();
        painter.setClipRect(m_ground);
        painter.setRenderHint(QPainter::Antialiasing, false); // else the cells have seams
        path.setFillRule(Qt::WindingFill);
        painter.fillPath(path, colours().band);
        painter.restore();
        painter.setFont(typeface(size::caption));
        painter.setPen(colours().ink);
        painter.drawText(m_ground.adjusted(0, 3, -10, 0), Qt::AlignTop | Qt::AlignRight,
                         tr("within 1 % of the farthest"));
    }

    // The lofts that are sold, struck in the middle, as a cord with a mark a degree.
    void paintLofts(QPainter& painter) const {
        const Colours& c = colours();
        painter.save();
        painter.setClipRect(m_ground);
        QPainterPath cord;
        const auto pixelOf = [&](const reach::Try& one) {
            return QPointF(m_x.pixel(one.launch.launch), m_y.pixel(one.launch.spin));
        };
        for (std::size_t i = 0; i < m_reach->along.size(); ++i)
            i == 0 ? cord.moveTo(pixelOf(m_reach->along[i])) : cord.lineTo(pixelOf(m_reach->along[i]));
        painter.setPen(QPen(c.faint, 1.4));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(cord);
        painter.setFont(typeface(size::caption));
        for (const reach::Try& one : m_reach->along)
            if (one.loft == std::round(one.loft)) {
                const QPointF at = pixelOf(one);
                painter.setPen(QPen(c.faint, 1.4));
                painter.drawLine(at + QPointF(-4, -4), at + QPointF(4, 4));
                painter.setPen(c.ink);
                const QString text = tr("%1°").arg(one.loft);
                painter.drawText(at + QPointF(-7 - painter.fontMetrics().horizontalAdvance(text), -5), text);
            }
        painter.restore();
    }

    QString wantedText(const Wanted& wanted, const MetricFormat& format) const {
        const int decimals = std::min(format.decimals(), 1);
        const auto number = [&](double value) { return QString::fromStdString(record::fixed(value, decimals)); };
        const QString unit = QString::fromStdString(format.unitText());
        const QString withUnit = unit == QStringLiteral("°") ? unit : QLatin1Char(' ') + unit;
        return wanted.high == endless   ? tr("%1 or more").arg(number(wanted.low) + withUnit)
               : wanted.low == -endless ? tr("%1 or less").arg(number(wanted.high) + withUnit)
                                        : tr("%1 to %2").arg(number(wanted.low), number(wanted.high) + withUnit);
    }

    void countInside() {
        for (std::size_t club = 0; club < m_builds.size(); ++club) {
            std::size_t inside = 0;
            std::size_t all = 0;
            for (const Ball& ball : m_balls)
                if (ball.club == club) {
                    ++all;
                    inside += isInside(ball) ? 1 : 0;
                }
            m_inside << tr("%1 of %2 inside").arg(inside).arg(all);
            m_said << tr("%1 %2 of %3").arg(m_names[static_cast<qsizetype>(club)]).arg(inside).arg(all);
        }
    }

    static QString loftText(double loft) {
        return QString::fromStdString(record::fixed(loft, loft == std::round(loft) ? 0 : 1));
    }

    void sayReach(const Looked& looked) {
        countInside();
        const MetricFormat ball = MetricFormat(Metric::ballSpeed, looked.units).supportedBy(5);
        const MetricFormat carry(Metric::carry, looked.units);
        const auto whole = [&](double metres) { return QString::fromStdString(record::fixed(carry.shown(metres), 0)); };
        const QString unit = QLatin1Char(' ') + QString::fromStdString(carry.unitText());
        m_finding =
            tr("At %1 and an attack of %2°, lofts of %3 to %4° carry within 1 % of the farthest; 2° either way cost up "
               "to %5. Modelled, delivered %6° as is usual. Inside: %7.")
                .arg(QString::fromStdString(ball.withUnit(m_ballSpeed)),
                     QString::fromStdString(record::signedFixed(m_swing.attack, 0)), loftText(*m_reach->loft.from),
                     loftText(*m_reach->loft.to), whole(m_reach->twoDegrees) + unit,
                     QString::fromStdString(record::signedFixed(m_swing.addedLoft(), 0)),
                     m_said.join(QStringLiteral(", ")));
        m_reached.resize(static_cast<qsizetype>(m_builds.size()));
        for (const words::ReachedBy& one : words::reachedBy(looked.reading)) {
            if (one.build == looked.build)
                m_finding += QLatin1Char(' ') +
                             QString::fromStdString(words::reachedSentence(looked.reading, one, looked.units));
            const auto club = std::ranges::find(m_builds, one.build) - m_builds.begin();
            if (static_cast<std::size_t>(club) < m_builds.size())
                m_reached[club] =
                    tr("carries %1 of %2").arg(whole(one.reached.carry), whole(one.reached.withBallSpeed) + unit);
        }
    }

    void say(const Looked& looked) {
        if (m_reach)
            return sayReach(looked);
        const QString x = m_isOfDescent ? tr("descent") : tr("launch");
        const QString y = m_isOfDescent ? tr("carry") : tr("spin");
        if (m_xWanted.isOpen() && m_yWanted.isOpen()) {
            m_finding =
                tr("%1 and %2 of every shot. Nothing is wanted of them: the sheet takes wanted windows.").arg(x, y);
            m_finding[0] = m_finding[0].toUpper();
            return;
        }
        QStringList wanted;
        if (!m_xWanted.isOpen())
            wanted << x + QLatin1Char(' ') + wantedText(m_xWanted, m_xFormat);
        if (!m_yWanted.isOpen())
            wanted << y + QLatin1Char(' ') + wantedText(m_yWanted, m_yFormat);
        countInside();
        m_finding = tr("Wanted %1: %2. Inside: %3.")
                        .arg(m_source, wanted.join(QStringLiteral(", ")), m_said.join(QStringLiteral(", ")));
    }

    void paintMiddles(QPainter& painter) const {
        for (std::size_t club = 0; club < m_builds.size(); ++club) {
            QPointF sum;
            double n = 0;
            for (std::size_t i = 0; i < m_balls.size(); ++i)
                if (m_balls[i].club == club) {
                    sum += m_marks[i].at;
                    ++n;
                }
            const QPointF at = sum / n;
            for (const auto& [colour, width] : {std::pair(colours().sheet, 5.0), {tagColour(m_builds[club]), 2.5}}) {
                painter.setPen(QPen(colour, width));
                painter.drawLine(at - QPointF(9, 0), at + QPointF(9, 0));
                painter.drawLine(at - QPointF(0, 9), at + QPointF(0, 9));
            }
        }
    }

    void paintLegend(QPainter& painter) const {
        const Colours& c = colours();
        const double left = m_box.right() - nameRoom + 18;
        double y = m_box.top() + 24;
        for (std::size_t club = 0; club < m_builds.size() && y < m_box.bottom() - 30; ++club) {
            drawTag(painter, QRectF(left, y - 10, 12, 12), m_builds[club]);
            painter.setPen(c.ink);
            painter.setFont(typeface(size::body, QFont::DemiBold));
            painter.drawText(QPointF(left + 20, y),
                             clubName(painter, m_names[static_cast<qsizetype>(club)], nameRoom - 44, m_names));
            painter.setPen(c.faint);
            painter.setFont(typeface(size::caption));
            if (!m_inside.isEmpty())
                painter.drawText(QPointF(left + 20, y += 18), m_inside[static_cast<qsizetype>(club)]);
            if (const QString reached = m_reached.value(static_cast<qsizetype>(club)); !reached.isEmpty())
                painter.drawText(QPointF(left + 20, y += 18), reached);
            y += 30;
        }
    }

    bool m_isOfDescent;
    MetricFormat m_xFormat, m_yFormat;
    std::vector<Ball> m_balls;
    std::vector<record::BuildAt> m_builds;
    Wanted m_xWanted, m_yWanted;
    QStringList m_names, m_inside, m_said, m_reached; ///< of each club
    QStringList m_texts;                              ///< of shots
    QString m_source, m_finding;
    double m_ballSpeed = 0; ///< m/s, of all shots
    reach::Swing m_swing;
    std::optional<reach::Window> m_reach; ///< what lofts give that swing, where nothing else is wanted
    std::optional<reach::Shares> m_shares;
    Wanted m_xRange, m_yRange; ///< over which they are reckoned
    picture::Axis m_x, m_y;
    QRectF m_box, m_ground;
    double m_radius = usualRadius;
};

} // namespace

std::unique_ptr<Picture> windowPicture(const Looked& looked) {
    auto picture = std::make_unique<WindowPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
