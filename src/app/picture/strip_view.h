#pragma once

#include "app/picture/strip.h"

#include <QStringList>
#include <QWidget>

namespace knot::app {

/// A plan as turns on cords. Dragging its end, or Left and Right, asks for other numbers of laps; a
/// drag up or down, or Up and Down, for longer and shorter stints.
class StripView : public QWidget {
    Q_OBJECT

public:
    explicit StripView(QWidget* parent = nullptr);
    void setPlan(const std::vector<record::PlannedTurn>& turns, const QStringList& names);
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
    std::vector<record::PlannedTurn> m_turns;
    QStringList m_names;
    bool m_changeable = true;
    std::optional<QPointF> m_grip; ///< where the drag last asked for something
};

} // namespace knot::app
