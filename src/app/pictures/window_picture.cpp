#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/face.h"
#include "app/picture/ground.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "core/judge/columns.h"
#include "core/rack/wanted.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>

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

/// Two numbers of every shot against what is wanted of them: a driver's launch and spin, else carry and descent.
class WindowPicture : public Picture {
public:
    explicit WindowPicture(const Looked& looked)
        : m_isOfDescent(!isOfLaunch(looked))
        , m_xFormat(m_isOfDescent ? Metric::descent : Metric::launch, looked.units)
        , m_yFormat(m_isOfDescent ? Metric::carry : Metric::spin, looked.units) {
        gather(looked);
        findWindow(looked);
        say();
    }

    bool isEmpty() const { return m_balls.empty(); }
    QString finding() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_box = box;
        m_ground = QRectF(box.left() + axisRoom, box.top() + 22, box.width() - axisRoom - nameRoom,
                          box.height() - 22 - underRoom);
        m_x = axisOver(&Ball::x, m_xWanted, m_ground.left(), m_ground.right(), m_ground.width() / 70);
        m_y = axisOver(&Ball::y, m_yWanted, m_ground.bottom(), m_ground.top(), m_ground.height() / 60);
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
        paintUpright(painter, m_ground, m_y, QString::fromStdString(m_yFormat.unitText()), m_box.top() + 12);
        paintAlong(painter, m_ground, m_x, m_isOfDescent ? tr("descent, °") : tr("launch, °"));
        if (isWanted) {
            painter.setFont(typeface(size::caption));
            painter.setPen(c.ink);
            painter.drawText(box.topLeft() + QPointF(6, 15), tr("wanted"));
        }
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

    void findUsual(const Looked& looked) {
        double speed = 0;
        double n = 0;
        for (const judge::Summary& summary : looked.reading.summary)
            if (summary.metric == Metric::ballSpeed) {
                speed += summary.mean * static_cast<double>(summary.n);
                n += static_cast<double>(summary.n);
            }
        const auto kind = picture::faceKind(looked.subject.seen());
        const auto window = n > 0 ? rack::wantedWindow(kind, speed / n) : std::nullopt;
        if (!window || (window->descentLow > 0) != m_isOfDescent)
            return;
        if (m_isOfDescent) {
            m_xWanted.low = window->descentLow;
            m_source = tr("to stay on a green, by the run model");
            return;
        }
        m_xWanted = {window->launchLow, window->launchHigh};
        m_yWanted = {window->spinLow, window->spinHigh};
        const MetricFormat ball = MetricFormat(Metric::ballSpeed, looked.units).supportedBy(5);
        m_source = tr("to carry far at %1, by the flight model").arg(QString::fromStdString(ball.withUnit(speed / n)));
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

    void say() {
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
        QStringList said;
        for (std::size_t club = 0; club < m_builds.size(); ++club) {
            std::size_t inside = 0;
            std::size_t all = 0;
            for (const Ball& ball : m_balls)
                if (ball.club == club) {
                    ++all;
                    inside += m_xWanted.holds(ball.x) && m_yWanted.holds(ball.y) ? 1 : 0;
                }
            m_inside << tr("%1 of %2 inside").arg(inside).arg(all);
            said << m_names[static_cast<qsizetype>(club)] + QLatin1Char(' ') + m_inside.back();
        }
        m_finding =
            tr("Wanted %1: %2. %3.").arg(m_source, wanted.join(QStringLiteral(", ")), said.join(QStringLiteral(", ")));
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
            y += 30;
        }
    }

    bool m_isOfDescent;
    MetricFormat m_xFormat, m_yFormat;
    std::vector<Ball> m_balls;
    std::vector<record::BuildAt> m_builds;
    Wanted m_xWanted, m_yWanted;
    QStringList m_names, m_inside, m_texts;
    QString m_source, m_finding;
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
