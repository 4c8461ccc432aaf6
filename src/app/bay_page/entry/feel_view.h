#pragma once

#include "core/record/struck.h"

#include <QWidget>

namespace knot::app {

/// Nine scales of ten dots. Up and Down choose a scale, 1 to 9 and 0 for ten say a value, Left and
/// Right change it, Backspace takes it back; a click does all at once.
class FeelView : public QWidget {
    Q_OBJECT

public:
    explicit FeelView(QWidget* parent = nullptr);
    void setScores(const std::array<int, record::feelScaleCount>& scores);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {180, sizeHint().height()}; }

signals:
    void scored(std::size_t scale, int score);
    /// The user is done here.
    void left();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void say(int score);
    double dotX(int dot) const;

    std::array<int, record::feelScaleCount> m_scores{};
    std::size_t m_scale = 0;
};

} // namespace knot::app
