#include "app/bay_page/landing_sketch.h"

#include "app/bay_page/bay_words.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/palette.h"
#include "app/style/tabular_text.h"
#include "core/record/text/number_text.h"

#include <QPainter>

#include <algorithm>

namespace knot::app {
namespace {

constexpr std::size_t mostShots = 200; // older ones say little of now, and cost at every shot
constexpr double axisRoom = 36;
constexpr double knotRadius = 4;

} // namespace

LandingSketch::LandingSketch(QWidget* parent)
    : QWidget(parent) {
    setObjectName(QStringLiteral("landingSketch"));
    setMinimumHeight(90);
    hide();
}

void LandingSketch::refresh(const Situation& now, const record::DisplayUnits& units) {
    const record::MetricFormat across(record::Metric::side, units);
    const record::MetricFormat out(record::Metric::carry, units);
    const record::Test& test = now.test;
    m_data = {};
    m_clubs.clear();
    m_newest.reset();
    // The number of the last one is held back for the player's call.
    const record::Shot* held = now.last.secondsToNumber > 0 ? now.last.in(test) : nullptr;
    std::size_t taken = 0;
    for (std::size_t i = maySeeAverages(test, Eyes::fitter) ? test.shots.size() : 0; i-- > 0 && taken < mostShots;) {
        const record::Shot& shot = test.shots[i];
        const auto side = shot.readings.at(record::Metric::side);
        const auto carry = shot.readings.at(record::Metric::carry);
        if (&shot == held || shot.sitting != test.shots.back().sitting)
            continue;
        if (shot.status != record::ShotStatus::counted || !side || !carry)
            continue;
        // Of a club that is not named yet the knot is nobody's.
        const std::size_t club = bay::isUnnamed(test, shot) ? test.builds.size() : std::size_t{shot.build};
        auto at = static_cast<std::size_t>(std::ranges::find(m_clubs, club) - m_clubs.begin());
        if (at == m_clubs.size()) {
            m_clubs.push_back(club);
            m_data.clouds.emplace_back();
        }
        m_data.clouds[at].shots.push_back({across.shown(*side), out.shown(*carry), i});
        m_newest = m_newest.value_or(i);
        ++taken;
    }
    if (const auto& aim = test.card.aim)
        m_data.aim = {across.shown(aim->side), out.shown(aim->carry)};
    setAccessibleName(tr("Where the last %1 shots came down").arg(taken));
    setVisible(taken > 1);
    update();
}

void LandingSketch::paintEvent(QPaintEvent*) {
    const Colours& c = colours();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto layout = picture::layOutLanding(m_data, {axisRoom, 6, width() - 6.0, height() - 6.0});
    if (layout.isEmpty)
        return;
    for (const double tick : layout.carryAxis.ticks) {
        const double y = layout.place(0, tick).y;
        if (y < 14 || y > height() - 6)
            continue;
        painter.setPen(QPen(c.band, 1));
        painter.drawLine(QPointF(axisRoom, y), QPointF(width() - 6, y));
        painter.setPen(c.faint);
        drawTabular(painter, typeface(size::caption), {axisRoom - 6, y + 4},
                    QString::fromStdString(record::fixed(tick, layout.carryAxis.decimals)), Align::right);
    }
    painter.setPen(QPen(c.faint, 1, Qt::DashLine));
    const double line = layout.place(0, 0).x;
    painter.drawLine(QPointF(line, 6), QPointF(line, height() - 6));
    if (m_data.aim) {
        const auto at = layout.place(m_data.aim->side, m_data.aim->carry);
        painter.setPen(QPen(c.link, 1.5));
        painter.drawEllipse(QPointF(at.x, at.y), 5, 5);
    }
    for (const picture::PlacedLanding& placed : layout.shots)
        drawKnot(painter, {placed.at.x, placed.at.y}, knotRadius, tagColour(m_clubs[placed.cloud]));
    for (const picture::PlacedLanding& placed : layout.shots)
        if (m_newest && placed.shot == *m_newest)
            drawKnot(painter, {placed.at.x, placed.at.y}, knotRadius + 2.5, c.ink);
}

} // namespace knot::app
