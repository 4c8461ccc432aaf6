#include "app/bay_page/course_strip.h"

#include "app/bay_page/bay_words.h"
#include "app/picture/strip_view.h"

#include <algorithm>

namespace knot::app {
namespace {

constexpr int mostHeight = 92;

} // namespace

CourseStrip::CourseStrip()
    : m_strip(new StripView) {
    m_strip->setObjectName(QStringLiteral("bayStrip"));
    m_strip->setChangeable(false);
    m_strip->setFocusPolicy(Qt::NoFocus);
    setFrameShape(QFrame::NoFrame);
    setWidgetResizable(true);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);
    viewport()->setAutoFillBackground(false);
    setWidget(m_strip); // which makes it fill its background
    m_strip->setAutoFillBackground(false);
    setMaximumHeight(mostHeight);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void CourseStrip::refresh(const Situation& now, const bay::Tally& tally) {
    const auto& test = now.test;
    const bool planned = test.stage == record::Stage::test && !test.turns.empty();
    setVisible(planned);
    if (!planned)
        return;
    QStringList names;
    for (record::BuildAt i; i < test.builds.size(); ++i)
        names << nameOf(test, i);
    m_strip->setPlan(test.turns, names, playersOf(test));
    const auto* stint = now.stand.stint();
    // Alone nobody knows the clubs to come, and the strip must not tell.
    std::optional<std::size_t> knownTurns;
    if (stint != nullptr && stint->drawn)
        knownTurns = now.stand.phase() == bay::Phase::warmUp ? static_cast<std::size_t>(test.progress.named)
                                                             : std::size_t{stint->turn};
    std::optional<std::size_t> present;
    if (stint != nullptr && now.stand.phase() != bay::Phase::warmUp)
        present = stint->turn;
    m_strip->setProgress(tally.filled(), present, knownTurns);
    setFixedHeight(std::min(mostHeight, m_strip->heightForWidth(viewport()->width())));
    if (present)
        ensureVisible(0, m_strip->turnY(*present), 0, 46);
}

} // namespace knot::app
