#pragma once

#include <QElapsedTimer>
#include <QString>

namespace knot::app {

class BayActions;

/// Figures typed in the bay. One is a club's number, at once; a second one soon after, or a decimal mark, makes a shot
/// of them, and the club is as it was.
class FigureKeys {
public:
    explicit FigureKeys(BayActions& actions)
        : m_actions(actions) {}

    /// What a shot begins with now; empty where a club was taken.
    QString take(const QString& typed);
    /// Whether what is typed now belongs to the figure before.
    bool goesOn() const;

private:
    BayActions& m_actions;
    QString m_before;        ///< typed a moment ago, for a club
    QElapsedTimer m_since;   ///< since then
    std::size_t m_shots = 0; ///< that there were
    bool m_tookClub = false; ///< another one than was in hand
};

} // namespace knot::app
