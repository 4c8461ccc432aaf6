#include "app/sheet_page/takes_panel.h"

#include "app/picture/swarm.h"
#include "app/session/book.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"
#include "app/sheet_page/sheet_html.h"
#include "app/style/fonts.h"
#include "app/style/glyphs.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/plan/planner.h"
#include "core/random.h"
#include "core/record/text/number_text.h"

#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using record::MetricFormat;

constexpr int mostKnots = 24;
constexpr double halfRange = 3.2; // SDs to either side

} // namespace

TakesView::TakesView() {
    setObjectName(QStringLiteral("takesPicture"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void TakesView::display(const plan::Takes& takes, int laps, int shots, const record::DisplayUnits& units) {
    Random random(7); // the same picture each time: it shows how much scatter there is, and no result
    const bool ratio = record::isRatio(takes.outcome);
    const int stints = std::max(2, std::min(laps, mostKnots / std::max(1, std::min(shots, 6))));
    for (int cord = 0; cord < 2; ++cord) {
        m_cords[cord].values.clear();
        const double scale = ratio && cord == 1 ? takes.gap : 1;
        for (int stint = 0; stint < stints; ++stint) {
            const double middle = takes.spreads.sdTurn * random.normal() + (ratio || cord == 0 ? 0 : takes.gap);
            for (int shot = 0; shot < std::min(shots, 6); ++shot)
                m_cords[cord].values.push_back(middle + scale * takes.spreads.sdShot * random.normal());
        }
    }
    const double range = halfRange * std::hypot(takes.spreads.sdShot, takes.spreads.sdTurn) * (ratio ? takes.gap : 1) +
                         (ratio ? 0 : takes.gap);
    for (Cord& cord : m_cords)
        for (double& value : cord.values)
            value = std::clamp(value / range, -1.0, 1.0);
    m_band = ratio ? 0 : takes.gap / range;
    m_under = ratio ? tr("the lower cord spreads %1 as far").arg(gapText(takes.outcome, takes.gap, units))
                    : tr("%1 either way: too small to matter").arg(gapText(takes.outcome, takes.gap, units));
    setAccessibleName(tr("As this plan might strike it. %1").arg(m_under));
    update();
}

void TakesView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    const double middle = width() / 2.0;
    const double reach = width() / 2.0 - 10;
    constexpr double radius = 4.5;
    constexpr double tops[] = {38, 86};
    if (m_band > 0) {
        const double half = std::min(reach, m_band * reach);
        painter.fillRect(QRectF(middle - half, 4, 2 * half, 92), c.band);
    }
    for (int i = 0; i < 2; ++i) {
        painter.setPen(QPen(tagColour(static_cast<std::size_t>(i)), 1.5));
        painter.drawLine(QPointF(4, tops[i]), QPointF(width() - 4, tops[i]));
        std::vector<double> x;
        for (const double value : m_cords[i].values)
            x.push_back(middle + value * reach);
        const auto levels = picture::swarmLevels(x, 2 * radius);
        for (std::size_t k = 0; k < x.size(); ++k)
            drawKnot(painter, {x[k], tops[i] - 1.7 * radius * std::min(levels[k], 3)}, radius,
                     tagColour(static_cast<std::size_t>(i)));
    }
    painter.setFont(typeface(size::caption));
    painter.setPen(c.faint);
    painter.drawText(QRectF(0, 98, width(), 18), Qt::AlignCenter, m_under);
}

TakesPanel::TakesPanel(const TestInHand& hand, const Book& book, const EarlierTests& earlier)
    : m_hand(hand)
    , m_book(book)
    , m_earlier(earlier)
    , m_whose(captionLabel("takesWhose"))
    , m_view(new TakesView)
    , m_words(richLabel()) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(2 * size::grid, 12, 2 * size::grid, 12);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    head->addWidget(headingLabel(tr("What that takes")));
    head->addStretch();
    m_whose->setWordWrap(false);
    head->addWidget(m_whose);
    column->addLayout(head);
    column->addWidget(m_view);
    m_words->setObjectName(QStringLiteral("takes"));
    m_words->setWordWrap(true);
    m_words->setAlignment(Qt::AlignTop);
    column->addWidget(m_words, 1);
}

void TakesPanel::refresh() {
    if (!m_hand.has())
        return;
    const record::Test& test = m_hand.test();
    const auto takes = m_earlier.takesOf(test);
    const bool isOwn = std::ranges::any_of(
        takes, [&](const plan::Takes& one) { return m_earlier.learnt().own.contains(one.outcome.metric); });
    m_whose->setText(isOwn ? tr("this player's scatter") : tr("a club player's scatter"));
    m_view->setVisible(!takes.empty());
    if (takes.empty())
        return m_words->setText(tr("Say what it is judged by, and here stands how often it would be seen."));
    const int shots = plan::shotsATurn(test.plan);
    m_view->display(takes.front(), test.plan.rounds, shots, m_book.units());
    m_words->setText(takesHtml(test, takes, m_book.units(), colours().link));
}

} // namespace knot::app
