#pragma once

#include "app/picture/strip.h"
#include "core/record/test.h"

#include <QStringList>
#include <QWidget>

namespace knot::app {

/// A plan as turns on cords. Dragging its end, or Left and Right, asks for other numbers of laps; a
/// drag up or down, or Up and Down, for longer and shorter stints.
class StripView : public QWidget {
    Q_OBJECT

public:
    explicit StripView(QWidget* parent = nullptr);
    /// `players`: who hits, where several do; a lap says whose it is then.
    void setPlan(const std::vector<record::PlannedTurn>& turns, const QStringList& names,
                 const QStringList& players = {});
    /// How many knots of each turn are tied, the turn in hand, and from which turn on clubs are unknown.
    /// Of turns from a place on nobody knows yet which club they are.
    void setUnknownFrom(std::optional<std::size_t> turn);
    void setProgress(std::vector<int> tied, std::optional<std::size_t> current, std::optional<std::size_t> unknownFrom);
    /// The height in the picture where a turn stands.
    int turnY(std::size_t turn) const;
    void setChangeable(bool changeable) { m_changeable = changeable; }
    QSize sizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

signals:
    void lapsWanted(int change);
    void lengthWanted(int change);

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    const picture::StripLayout& layoutFor(int width) const;
    QString roundText(int round, record::PlayerAt player) const;
    void drawTurn(QPainter& painter, const picture::PlacedTurn& placed, double radius) const;

    std::vector<record::PlannedTurn> m_turns;
    std::optional<std::vector<int>> m_tied; ///< nothing: a plan, drawn as if all were tied
    std::optional<std::size_t> m_current, m_unknownFrom;
    mutable picture::StripLayout m_layout; ///< as it was asked for last
    mutable int m_layoutWidth = -1;
    QStringList m_names, m_players;
    bool m_changeable = true;
    std::optional<QPointF> m_grip; ///< where the drag last asked for something
};

/// The names of a test's players.
QStringList playersOf(const record::Test& test);

} // namespace knot::app
