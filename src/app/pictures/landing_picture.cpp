#include "app/pictures/pictures.h"
#include "app/style/words.h"

#include "app/picture/landing.h"
#include "app/picture/swarm.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/judge/columns.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::Metric;
using record::MetricFormat;

constexpr double legendWidth = 190;
constexpr double axisRoom = 46;
constexpr double usualRadius = 5;
constexpr double cellWidth = 36, cellHeight = 16; // of the table of misses
constexpr double tableHeight = 4 * cellHeight;

QPainterPath closed(const std::vector<picture::GroundPoint>& points) {
    QPainterPath path;
    for (std::size_t i = 0; i < points.size(); ++i)
        i == 0 ? path.moveTo(points[i].x, points[i].y) : path.lineTo(points[i].x, points[i].y);
    path.closeSubpath();
    return path;
}

class LandingPicture : public Picture {
public:
    explicit LandingPicture(const Looked& looked)
        : m_movable(looked.subject.seen().card.shapes.size())
        , m_carry(Metric::carry, looked.units) {
        const record::Test& test = looked.subject.seen();
        const MetricFormat carry(Metric::carry, looked.units);
        const MetricFormat side(Metric::side, looked.units);
        m_unit = QString::fromStdString(carry.unitText());
        std::vector<std::size_t> cloudOf(test.builds.size(), test.builds.size());
        for (std::size_t i = 0; i < test.shots.size(); ++i) {
            const record::Shot& shot = test.shots[i];
            const auto across = shot.readings.at(Metric::side);
            const auto far = shot.readings.at(Metric::carry);
            if (!judge::isTaken(shot, judge::Taken::counted) || !across || !far)
                continue;
            std::size_t& cloud = cloudOf[shot.build];
            if (cloud == test.builds.size()) {
                cloud = m_data.clouds.size();
                m_data.clouds.emplace_back();
                m_builds.push_back(shot.build);
                m_names << nameOf(looked, shot.build);
            }
            m_data.clouds[cloud].shots.push_back({side.shown(*across), carry.shown(*far), i});
            m_texts.resize(std::max(m_texts.size(), static_cast<qsizetype>(i) + 1));
            m_texts[static_cast<qsizetype>(i)] =
                shotText(looked, i,
                         tr("%1, %2 %3")
                             .arg(QString::fromStdString(carry.withUnit(*far)),
                                  QString::fromStdString(side.number(std::fabs(*across))),
                                  *across < 0 ? tr("left") : tr("right")));
        }
        for (const judge::LandingArea& area : looked.reading.landing)
            if (area.build < cloudOf.size() && cloudOf[area.build] < m_data.clouds.size())
                m_data.clouds[cloudOf[area.build]].spread = {.side = side.shown(area.centreSide),
                                                             .carry = carry.shown(area.centreCarry),
                                                             .sdAlong = carry.shown(area.sdMajor),
                                                             .sdAcross = carry.shown(area.sdMinor),
                                                             .tilt = area.tilt};
        if (const auto& aim = looked.reading.card.aim)
            m_data.aim = {side.shown(aim->side), carry.shown(aim->carry)};
        for (const record::Shape& shape : looked.reading.card.shapes)
            m_areas.push_back({shape.kind, QString::fromStdString(shape.name), side.shown(shape.side),
                               carry.shown(shape.carry), side.shown(shape.width), carry.shown(shape.depth)});
        notes(looked, carry, side);
    }

    bool isEmpty() const { return m_data.clouds.empty(); }
    QString finding() const override { return m_finding; }
    // With the table of misses, which is drawn where there is room for it.
    QString asText() const override {
        QString text = m_finding;
        for (std::size_t i = 0; i < m_builds.size(); ++i) {
            if (m_tables[i].n == 0)
                continue;
            text += u'\n' + m_names[static_cast<qsizetype>(i)] + tr("\tleft\tline\tright");
            for (const auto& [length, word] : {std::pair(2, tr("long")), {1, tr("on")}, {0, tr("short")}}) {
                text += u'\n' + word;
                for (const auto& side : m_tables[i].table)
                    text += u'\t' + QString::number(side[static_cast<std::size_t>(length)]);
            }
        }
        return text;
    }

    void layOut(const QRectF& box) override {
        m_box = box;
        makeRoomForTables();
        m_layout = picture::layOutLanding(
            m_data, {box.left() + axisRoom, box.top() + 8, box.right() - legendWidth, box.bottom() - 8});
        m_radius = picture::knotRadius(m_layout.shots.size(), usualRadius);
        m_marks.clear();
        for (const picture::PlacedLanding& placed : m_layout.shots)
            m_marks.push_back({{placed.at.x, placed.at.y},
                               m_radius,
                               placed.shot,
                               placed.cloud,
                               m_texts.value(static_cast<qsizetype>(placed.shot))});
    }

    void paint(QPainter& painter, std::optional<std::size_t> lit) const override {
        if (m_layout.isEmpty)
            return;
        paintGround(painter);
        for (const Area& area : m_areas)
            paintArea(painter, area);
        for (std::size_t i = 0; i < m_data.clouds.size(); ++i)
            paintContours(painter, i);
        for (const picture::PlacedLanding& placed : m_layout.shots)
            drawKnot(painter, {placed.at.x, placed.at.y}, m_radius, tagColour(m_builds[placed.cloud]));
        for (std::size_t i = 0; i < m_data.clouds.size(); ++i)
            paintMiddle(painter, i);
        for (const picture::PlacedLanding& placed : m_layout.shots)
            if (lit && placed.shot == *lit)
                drawKnot(painter, {placed.at.x, placed.at.y}, m_radius + 3, colours().ink);
        paintLegend(painter);
    }

    // The middle moves a shape, an edge makes it wider or deeper; what the player's record adds stays where it is.
    bool grab(QPointF at) override {
        constexpr double near = 6;
        m_held.reset();
        for (std::size_t i = 0; i < std::min(m_movable, m_areas.size()); ++i) {
            const QRectF box = boxOf(m_areas[i]);
            if (!box.adjusted(-near, -near, near, near).contains(at))
                continue;
            const bool isSideEdge = std::min(std::fabs(at.x() - box.left()), std::fabs(at.x() - box.right())) < near;
            const bool isFarEdge = std::min(std::fabs(at.y() - box.top()), std::fabs(at.y() - box.bottom())) < near;
            const bool hasDepth = m_areas[i].depth > 0;
            m_held = Held{i,
                          isBeyond(m_areas[i])    ? Edge::none
                          : isSideEdge            ? Edge::side
                          : isFarEdge && hasDepth ? Edge::far
                                                  : Edge::none,
                          at};
        }
        return m_held.has_value();
    }

    void dragTo(QPointF at) override {
        Area& area = m_areas[m_held->area];
        const double scale = m_layout.pixelsPerUnit;
        const auto middle = m_layout.place(area.side, area.carry);
        switch (m_held->edge) {
        case Edge::side:
            area.width = std::max(1.0, 2 * std::fabs(at.x() - middle.x) / scale);
            break;
        case Edge::far:
            area.depth = std::max(1.0, 2 * std::fabs(at.y() - middle.y) / scale);
            break;
        case Edge::none:
            area.side += (at.x() - m_held->last.x()) / scale;
            area.carry -= area.depth > 0 ? (at.y() - m_held->last.y()) / scale : 0;
            break;
        }
        m_held->last = at;
        m_held->moved = true;
    }

    // By whole units: nobody drags by the tenth.
    std::optional<Dragged> letGo() override {
        if (!m_held || !m_held->moved)
            return std::nullopt;
        const Area& area = m_areas[m_held->area];
        const auto metres = [&](double shown) { return m_carry.internal(std::round(shown)); };
        return Dragged{m_held->area,
                       {.kind = area.kind,
                        .name = {},
                        .side = metres(area.side),
                        .carry = metres(area.carry),
                        .width = metres(std::max(1.0, area.width)),
                        .depth = metres(area.depth)}};
    }

private:
    /// A shape on the ground, as shown.
    struct Area {
        record::Shape::Kind kind = record::Shape::Kind::fairway;
        QString name;
        double side = 0, carry = 0, width = 0, depth = 0;
    };
    enum class Edge { none, side, far };
    /// What is being dragged, and where the pointer was last.
    struct Held {
        std::size_t area = 0;
        Edge edge = Edge::none;
        QPointF last;
        bool moved = false;
    };

    static bool isBeyond(const Area& area) {
        return area.kind == record::Shape::Kind::beyondLeft || area.kind == record::Shape::Kind::beyondRight;
    }

    QRectF groundBox() const {
        return {m_box.left() + axisRoom, m_box.top() + 8, m_box.width() - axisRoom - legendWidth, m_box.height() - 16};
    }

    // A strip and what lies beyond a line have no end but the picture's.
    QRectF boxOf(const Area& area) const {
        const QRectF ground = groundBox();
        const auto x = [&](double side) {
            return std::clamp(m_layout.place(side, 0).x, ground.left(), ground.right());
        };
        switch (area.kind) {
        case record::Shape::Kind::fairway:
            return {QPointF(x(area.side - area.width / 2), ground.top()),
                    QPointF(x(area.side + area.width / 2), ground.bottom())};
        case record::Shape::Kind::beyondLeft:
            return {ground.topLeft(), QPointF(x(area.side), ground.bottom())};
        case record::Shape::Kind::beyondRight:
            return {QPointF(x(area.side), ground.top()), ground.bottomRight()};
        case record::Shape::Kind::ellipse:
        case record::Shape::Kind::rectangle:
            break;
        }
        const auto low = m_layout.place(area.side - area.width / 2, area.carry - area.depth / 2);
        const auto high = m_layout.place(area.side + area.width / 2, area.carry + area.depth / 2);
        return {QPointF(low.x, high.y), QPointF(high.x, low.y)};
    }

    // A line for what is wanted inside, hatched for what is beyond: told apart without colour.
    void paintArea(QPainter& painter, const Area& area) const {
        const Colours& c = colours();
        const QRectF box = boxOf(area);
        painter.save();
        painter.setClipRect(groundBox());
        painter.setPen(QPen(c.link, 1.5));
        QColor fill = c.link;
        fill.setAlphaF(isBeyond(area) ? 0.25F : 0.06F);
        painter.setBrush(QBrush(fill, isBeyond(area) ? Qt::FDiagPattern : Qt::SolidPattern));
        if (area.kind == record::Shape::Kind::ellipse)
            painter.drawEllipse(box);
        else
            painter.drawRect(box);
        painter.setFont(typeface(size::caption));
        // Over what has a far end, inside what has none.
        painter.drawText(box.topLeft() + QPointF(area.depth > 0 ? 0 : 5, area.depth > 0 ? -5 : 14), area.name);
        painter.restore();
    }

    // What stands beside each club: how large half of its shots' ground is, and whether it misses one way.
    void notes(const Looked& looked, const MetricFormat& carry, const MetricFormat& side) {
        QStringList said;
        for (std::size_t i = 0; i < m_builds.size(); ++i) {
            QStringList lines;
            const auto area = std::ranges::find(looked.reading.landing, m_builds[i], &judge::LandingArea::build);
            if (area != looked.reading.landing.end()) {
                const double scale = carry.shown(1);
                lines << tr("half in %1 %2²")
                             .arg(QString::fromStdString(record::fixed(area->area50 * scale * scale, 0)), m_unit);
                said << tr("%1 about %2, %3 %4")
                            .arg(m_names[static_cast<qsizetype>(i)],
                                 QString::fromStdString(carry.withUnit(area->centreCarry)),
                                 QString::fromStdString(side.number(std::fabs(area->centreSide))),
                                 area->centreSide < 0 ? tr("left") : tr("right"));
            }
            const auto misses = std::ranges::find(looked.reading.misses, m_builds[i], &judge::Misses::build);
            m_tables.push_back(misses != looked.reading.misses.end() ? *misses : judge::Misses{});
            if (misses != looked.reading.misses.end() && misses->oneWay)
                lines << tr("%1 of %2 misses %3")
                             .arg(misses->oneWay->count)
                             .arg(misses->oneWay->of)
                             .arg(misses->oneWay->side == record::Side::left ? tr("left") : tr("right"));
            for (const judge::ShapeShare& share : looked.reading.shapeShares)
                if (share.build == m_builds[i])
                    lines << tr("in %1:").arg(QString::fromStdString(share.shape))
                          << tr("%1 % (%2 to %3)")
                                 .arg(std::lround(100 * share.counted.share))
                                 .arg(std::lround(100 * share.counted.ci95.low))
                                 .arg(std::lround(100 * share.counted.ci95.high));
            m_notes << lines.join(QLatin1Char('\n'));
        }
        m_finding = said.isEmpty() ? tr("Where the shots came down, from above.")
                                   : tr("Where the shots came down: %1.").arg(said.join(QStringLiteral("; ")));
    }

    void paintGround(QPainter& painter) const {
        const Colours& c = colours();
        const QRectF ground = groundBox();
        for (const double tick : m_layout.carryAxis.ticks) {
            const double y = m_layout.place(0, tick).y;
            if (y < ground.top() + 16 || y > ground.bottom()) // the unit stands at the top
                continue;
            painter.setPen(QPen(c.band, 1));
            painter.drawLine(QPointF(ground.left(), y), QPointF(ground.right(), y));
            painter.setPen(c.faint);
            drawTabular(painter, typeface(size::caption), {ground.left() - 6, y + 4},
                        QString::fromStdString(record::fixed(tick, m_layout.carryAxis.decimals)), Align::right);
        }
        drawTabular(painter, typeface(size::caption), {ground.left() - 6, ground.top() + 8}, m_unit, Align::right);
        painter.setPen(QPen(c.faint, 1, Qt::DashLine));
        const double line = m_layout.place(0, 0).x;
        painter.drawLine(QPointF(line, ground.top()), QPointF(line, ground.bottom()));
        if (m_data.aim) {
            const auto at = m_layout.place(m_data.aim->side, m_data.aim->carry);
            painter.setPen(QPen(c.link, 1.5));
            painter.setBrush(Qt::NoBrush);
            for (const double radius : {5.0, 10.0})
                painter.drawEllipse(QPointF(at.x, at.y), radius * m_layout.pixelsPerUnit,
                                    radius * m_layout.pixelsPerUnit);
        }
    }

    void paintContours(QPainter& painter, std::size_t i) const {
        const auto& spread = m_data.clouds[i].spread;
        if (!spread)
            return;
        const QColor colour = tagColour(m_builds[i]);
        QColor fill = colour;
        fill.setAlphaF(0.07F);
        // Clubs are told apart by the line too: whole, dashed, dotted in turn.
        constexpr std::array styles = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
        const Qt::PenStyle style = styles[m_builds[i] % styles.size()];
        painter.setBrush(fill);
        painter.setPen(QPen(colour, 1, style));
        painter.drawPath(closed(m_layout.contour(*spread, 0.9)));
        painter.setPen(QPen(colour, 2, style));
        painter.drawPath(closed(m_layout.contour(*spread, 0.5)));
    }

    void paintMiddle(QPainter& painter, std::size_t i) const {
        const auto& spread = m_data.clouds[i].spread;
        if (!spread)
            return;
        const auto at = m_layout.place(spread->side, spread->carry);
        painter.setPen(QPen(colours().sheet, 5));
        painter.drawLine(QPointF(at.x - 9, at.y), QPointF(at.x + 9, at.y));
        painter.drawLine(QPointF(at.x, at.y - 9), QPointF(at.x, at.y + 9));
        painter.setPen(QPen(tagColour(m_builds[i]), 2.5));
        painter.drawLine(QPointF(at.x - 9, at.y), QPointF(at.x + 9, at.y));
        painter.drawLine(QPointF(at.x, at.y - 9), QPointF(at.x, at.y + 9));
    }

    void paintLegend(QPainter& painter) const {
        const Colours& c = colours();
        const double left = m_box.right() - legendWidth + 18;
        double y = m_box.top() + 22;
        const double last = m_box.bottom() - 60;
        const bool isCrowded = noteRoom() > last - m_box.top() && !m_hasRoom; // then the names alone, but all of them
        const double step = std::min(24.0, (last - y) / static_cast<double>(m_builds.size()));
        for (std::size_t i = 0; i < m_builds.size(); ++i) {
            drawTag(painter, QRectF(left, y - 10, 12, 12), m_builds[i]);
            painter.setPen(c.ink);
            painter.setFont(typeface(size::body, QFont::DemiBold));
            painter.drawText(QPointF(left + 20, y),
                             clubName(painter, m_names[static_cast<qsizetype>(i)], legendWidth - 44, m_names));
            if (isCrowded) {
                y += step;
                continue;
            }
            painter.setPen(c.faint);
            painter.setFont(typeface(size::caption));
            for (const QString& line : m_notes[static_cast<qsizetype>(i)].split(QLatin1Char('\n'), Qt::SkipEmptyParts))
                painter.drawText(
                    QPointF(left + 20, y += 18),
                    painter.fontMetrics().elidedText(line, Qt::ElideRight, static_cast<int>(legendWidth - 38)));
            if (m_hasRoom && m_tables[i].n > 0)
                y = paintMisses(painter, m_tables[i], left + 20, y + 8);
            y += 30;
        }
        painter.setPen(c.faint);
        painter.setFont(typeface(size::caption));
        painter.drawText(QPointF(left, m_box.bottom() - 30), tr("thick line: half of the shots"));
        painter.drawText(QPointF(left, m_box.bottom() - 12), tr("thin line: nine tenths"));
    }

    // Names and what stands under them, in a column.
    double noteRoom() const {
        double height = 0;
        for (const QString& note : m_notes)
            height += 30 + (note.isEmpty() ? 0 : 18 * static_cast<double>(note.count(QLatin1Char('\n')) + 1));
        return height;
    }

    // Every club's table or nobody's: half a comparison is none.
    void makeRoomForTables() {
        double height = 0;
        for (std::size_t i = 0; i < m_builds.size(); ++i)
            height += 52 + 18 * static_cast<double>(m_notes[static_cast<qsizetype>(i)].count(QLatin1Char('\n')) + 1) +
                      tableHeight;
        m_hasRoom = height < m_box.height() - 40;
    }

    // How many came down short, on length and long, by side: as seen from above, left on the left.
    static double paintMisses(QPainter& painter, const judge::Misses& misses, double left, double top) {
        const Colours& c = colours();
        const QStringList across = {tr("left"), tr("line"), tr("right")};
        const QStringList along = {tr("short"), tr("on"), tr("long")};
        const double first = left + 34;
        const QFont font = typeface(size::caption);
        painter.setFont(font);
        painter.setPen(c.faint);
        for (int side = 0; side < 3; ++side)
            painter.drawText(QRectF(first + side * cellWidth, top, cellWidth, cellHeight), Qt::AlignCenter,
                             across[side]);
        for (int row = 0; row < 3; ++row) {
            const auto length = static_cast<std::size_t>(2 - row);
            const double y = top + (row + 1) * cellHeight;
            painter.setPen(c.faint);
            painter.drawText(QRectF(left, y, 34, cellHeight), Qt::AlignVCenter | Qt::AlignLeft,
                             along[static_cast<qsizetype>(length)]);
            for (std::size_t side = 0; side < 3; ++side) {
                const std::size_t count = misses.table[side][length];
                const QRectF cell(first + static_cast<double>(side) * cellWidth, y, cellWidth, cellHeight);
                QColor fill = c.ink;
                fill.setAlphaF(static_cast<float>(0.25 * static_cast<double>(count) / static_cast<double>(misses.n)));
                painter.fillRect(cell.adjusted(1, 1, -1, -1), fill);
                painter.setPen(count > 0 ? c.ink : c.faint);
                drawTabular(painter, font, {cell.center().x() + 4, cell.center().y() + 4},
                            count > 0 ? QString::number(count) : QStringLiteral("·"), Align::right);
            }
        }
        return top + tableHeight;
    }

    picture::LandingData m_data;
    picture::LandingLayout m_layout;
    std::vector<Area> m_areas;
    std::size_t m_movable = 0; ///< so many of them are the sheet's
    std::optional<Held> m_held;
    MetricFormat m_carry;
    std::vector<record::BuildAt> m_builds; ///< beside the clouds
    std::vector<judge::Misses> m_tables;   ///< beside the clouds
    bool m_hasRoom = false;
    QStringList m_names, m_notes, m_texts;
    QString m_unit, m_finding;
    QRectF m_box;
    double m_radius = usualRadius;
};

} // namespace

std::unique_ptr<Picture> landingPicture(const Looked& looked) {
    auto picture = std::make_unique<LandingPicture>(looked);
    return picture->isEmpty() ? nullptr : std::move(picture);
}

} // namespace knot::app
