#include "app/bay_page/entry/figure_keys.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/hand_actions.h"

namespace knot::app {
namespace {

constexpr int together = 700; // ms within which figures belong together

} // namespace

bool FigureKeys::goesOn() const {
    return m_since.isValid() && m_since.elapsed() < together && m_actions.test().shots.size() == m_shots;
}

QString FigureKeys::take(const QString& typed) {
    const bool isMore = goesOn();
    m_since.invalidate();
    if (isMore) {
        if (m_tookClub)
            m_actions.run().undo();
        return m_before + typed;
    }
    const record::Progress before = m_actions.test().progress;
    const bool mayTake = m_actions.run().stand().phase() == bay::Phase::free;
    if (!mayTake || !m_actions.hands().takeClub(typed[0].digitValue()))
        return typed;
    m_before = typed;
    m_tookClub = before != m_actions.test().progress;
    m_shots = m_actions.test().shots.size();
    m_since.start();
    return {};
}

} // namespace knot::app
