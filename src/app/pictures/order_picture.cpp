#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/ground.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"
#include "core/words/remarks/feels.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr double axisRoom = 52;
constexpr double stintRoom = 44;
constexpr double eventRoom = 34;
constexpr double feltRoom = 20; // where anything was said of a stint

/// One shot of the number in hand, at its place among all that were struck.
struct Struck {
    std::size_t shot = 0, place = 0;
    double value = 0;
    record::BuildAt build;
    record::ShotStatus status = record::ShotStatus::counted;
};

/// A run of shots with one club: from the place of its first to that of its last.
struct Stint {
    std::size_t from = 0, to = 0;
    record::BuildAt build;
    std::optional<double> mean; ///< of the counted ones
    QString felt;               ///< what the player said of it
};

/// Something that happened before a place.
struct Happened {
    std::size_t before = 0;
    QString word;
    bool parts = false; ///< a sitting, or a mark, that parts the record
};

class OrderPicture : public Picture {
public:
    explicit OrderPicture(const Looked& looked)
        : m_format(looked.metric, looked.units) {
        gather(looked);
        happenings(looked);
        say(looked);
    }

    QString finding() const override { return m_heard.isEmpty() ? m_finding : m_finding + u' ' + m_heard; }
    QString under() const override { return m_finding; }

    void layOut(const QRectF& box) override {
        m_box = box;
        m_ground = QRectF(box.left() + axisRoom, box.top() + stintRoom, box.width() - axisRoom - 12,
                          box.height() - stintRoom - eventRoom - (hasFeels() ? feltRoom : 0));
        double low = std::numeric_limits<double>::infinity();
        double high = -low;
        for (const Struck& one : m_shots) {
            low = std::min(low, one.value);
            high = std::max(high, one.value);
        }
        m_axis = picture::niceAxis(low, high, m_ground.bottom(), m_ground.top(),
                                   std::max(2, static_cast<int>(m_ground.height() / 60)));
        m_radius =
            std::clamp(0.42 * m_ground.width() / static_cast<double>(std::max<std::size_t>(m_places, 1)), 1.5, 5.5);
        m_marks.clear();
        for (const Struck& one : m_shots)
            m_marks.push_back({{x(one.place), m_axis.pixel(one.value)},
                               m_radius,
                               one.shot,
                               one.build,
                               m_texts.value(static_cast<qsizetype>(one.shot))});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        if (m_shots.empty())
            return;
        paintUpright(painter, m_ground, m_axis, QString::fromStdString(m_format.unitText()), m_box.top() + 14);
        paintHappenings(painter);
        paintFelt(painter);
        for (const Stint& stint : m_stints)
            paintStint(painter, stint);
        for (std::size_t i = 0; i < m_shots.size(); ++i)
            paintShot(painter, m_shots[i], m_marks[i].at);
        for (std::size_t i = 0; i < m_shots.size(); ++i)
            if (lit && m_shots[i].shot == *lit)
                drawKnot(painter, m_marks[i].at, m_radius + 3, colours().ink);
    }

private:
    double x(std::size_t place) const {
        return m_ground.left() + (static_cast<double>(place) + 0.5) * m_ground.width() /
                                     static_cast<double>(std::max<std::size_t>(m_places, 1));
    }

    void gather(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        m_places = test.shots.size();
        for (const record::Turn& turn : looked.structure.turns) {
            Stint stint{
                .from = turn.shots.front(), .to = turn.shots.back(), .build = turn.build, .mean = {}, .felt = {}};
            const record::Shot& first = test.shots[turn.shots.front()];
            for (const record::Feel& feel : test.feels)
                if (feel.build == turn.build && feel.turn == first.turn)
                    stint.felt = QString::fromStdString(words::feelText(feel));
            double sum = 0;
            double n = 0;
            for (const record::ShotAt at : turn.shots) {
                const record::Shot& shot = test.shots[at];
                const auto value = shot.readings.at(looked.metric);
                if (!value)
                    continue;
                m_shots.push_back({at, at, m_format.shown(*value), turn.build, shot.status});
                m_texts.resize(std::max(m_texts.size(), static_cast<qsizetype>(at) + 1));
                m_texts[static_cast<qsizetype>(at)] =
                    shotText(looked, at, QString::fromStdString(m_format.withUnit(*value))) +
                    (shot.status == record::ShotStatus::setAside ? tr(", set aside")
                     : shot.status == record::ShotStatus::warmUp ? tr(", warm-up")
                                                                 : QString());
                if (shot.status == record::ShotStatus::counted) {
                    sum += m_format.shown(*value);
                    ++n;
                }
            }
            if (n > 0)
                stint.mean = sum / n;
            m_stints.push_back(stint);
        }
    }

    void happenings(const Looked& looked) {
        const record::Test& test = looked.subject.seen();
        for (std::size_t i = 0; i < test.shots.size(); ++i) {
            const record::Shot& shot = test.shots[i];
            if (i > 0 && shot.sitting != test.shots[i - 1].sitting)
                m_happened.push_back({i, tr("sitting"), true});
            if (shot.mark == record::Mark::player)
                m_happened.push_back({i, tr("player changed"), true});
            if (shot.mark == record::Mark::day)
                m_happened.push_back({i, tr("day changed"), true});
        }
        for (const record::Event& event : test.events) {
            const QString word = event.kind == record::EventKind::rest   ? tr("rest")
                                 : event.kind == record::EventKind::stop ? tr("stop")
                                 : event.kind == record::EventKind::flag ? tr("flag")
                                                                         : tr("note");
            const QString text = QString::fromStdString(event.text);
            m_happened.push_back({event.afterShots, text.isEmpty() ? word : word + QStringLiteral(": ") + text, false});
        }
    }

    void say(const Looked& looked) {
        const QString label = QString::fromStdString(record::info(looked.metric).label);
        m_finding = tr("%1 in the order struck, %n stint(s).")
                        .replace(QStringLiteral("%n"), QString::number(m_stints.size()))
                        .arg(label);
        m_finding.replace(QStringLiteral("stint(s)"), m_stints.size() == 1 ? tr("stint") : tr("stints"));
        for (const judge::ModelEstimate& drift : looked.reading.drift)
            if (drift.metric == looked.metric) {
                const MetricFormat format = m_format.supportedBy(10 * drift.se);
                m_finding += drift.p < 0.05
                                 ? tr(" It %1 by %2 per 10 shots.")
                                       .arg(drift.value > 0 ? tr("rose") : tr("fell"),
                                            QString::fromStdString(format.withUnit(std::fabs(10 * drift.value))))
                                 : tr(" No drift that luck does not explain.");
            }
        QStringList felt;
        for (const Stint& stint : m_stints)
            if (!stint.felt.isEmpty())
                felt << tr("%1 (shot %2 on): %3").arg(nameOf(looked, stint.build)).arg(stint.from + 1).arg(stint.felt);
        if (!felt.isEmpty())
            m_heard = tr("Said of stints. %1.").arg(felt.join(QStringLiteral("; ")));
        m_finding[0] = m_finding[0].toUpper();
    }

    bool hasFeels() const {
        return std::ranges::any_of(m_stints, [](const Stint& stint) { return !stint.felt.isEmpty(); });
    }

    // Under each stint what was said of it, as far as the next one lets it.
    void paintFelt(QPainter& painter) const {
        painter.setFont(typeface(size::caption));
        painter.setPen(colours().ink);
        const double y = m_ground.bottom() + eventRoom + 12;
        for (std::size_t i = 0; i < m_stints.size(); ++i) {
            if (m_stints[i].felt.isEmpty())
                continue;
            std::size_t next = i + 1;
            while (next < m_stints.size() && m_stints[next].felt.isEmpty())
                ++next;
            const double left = x(m_stints[i].from) - m_radius;
            const double right = next < m_stints.size() ? x(m_stints[next].from) - m_radius - 8 : m_ground.right();
            painter.drawText(QPointF(left, y), painter.fontMetrics().elidedText(m_stints[i].felt, Qt::ElideRight,
                                                                                static_cast<int>(right - left)));
        }
    }

    // Words stand under the ground where there is room for them; without, the tick alone does.
    void paintHappenings(QPainter& painter) const {
        const Colours& c = colours();
        double free = m_ground.left();
        painter.setFont(typeface(size::caption));
        for (const Happened& one : m_happened) {
            const double at = one.before >= m_places ? m_ground.right() : x(one.before) - 0.5 * (x(1) - x(0));
            painter.setPen(QPen(one.parts ? c.ink : c.faint, 1, one.parts ? Qt::SolidLine : Qt::DotLine));
            painter.drawLine(QPointF(at, m_ground.top()), QPointF(at, m_ground.bottom() + 8));
            const QString word = painter.fontMetrics().elidedText(one.word, Qt::ElideRight, 130);
            const double width = painter.fontMetrics().horizontalAdvance(word);
            const double left = std::min(at + 3, m_ground.right() - width);
            if (left < free)
                continue;
            painter.setPen(c.faint);
            painter.drawText(QPointF(left, m_ground.bottom() + 22), word);
            free = left + width + 10;
        }
    }

    void paintStint(QPainter& painter, const Stint& stint) const {
        const double left = x(stint.from) - m_radius - 1;
        const double right = x(stint.to) + m_radius + 1;
        const QColor colour = tagColour(stint.build);
        painter.setPen(QPen(colour, 3));
        painter.drawLine(QPointF(left, m_ground.top() - 8), QPointF(right, m_ground.top() - 8));
        if (right - left >= 8)
            drawTag(painter, QRectF((left + right) / 2 - 5.5, m_ground.top() - 26, 11, 11), stint.build);
        if (!stint.mean)
            return;
        const double y = m_axis.pixel(*stint.mean);
        painter.setPen(QPen(colour, 1.5));
        painter.drawLine(QPointF(left, y), QPointF(right, y));
    }

    void paintShot(QPainter& painter, const Struck& one, QPointF at) const {
        if (one.status == record::ShotStatus::counted)
            return drawKnot(painter, at, m_radius, tagColour(one.build));
        // Not counted: an empty ring, warm-up a smaller one.
        const double radius = one.status == record::ShotStatus::warmUp ? 0.6 * m_radius : m_radius;
        painter.setPen(QPen(tagColour(one.build), 1.2));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at, radius, radius);
    }

    MetricFormat m_format;
    std::vector<Struck> m_shots;
    std::vector<Stint> m_stints;
    std::vector<Happened> m_happened;
    QStringList m_texts; ///< by shot
    QString m_finding;
    QString m_heard; ///< what was said of stints, for who can't see where it stands
    std::size_t m_places = 0;
    picture::Axis m_axis;
    QRectF m_box, m_ground;
    double m_radius = 5;
};

} // namespace

std::unique_ptr<Picture> orderPicture(const Looked& looked) {
    return std::make_unique<OrderPicture>(looked);
}

} // namespace knot::app
