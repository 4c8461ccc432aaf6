#pragma once

#include "core/plan/ways.h"

#include <QString>
#include <QWidget>

#include <vector>

namespace knot::app {

/// What a plan is worth, or how often it proves the worthwhile gap, by the minutes there are: a curve for each way to
/// spend them, and the plan in hand as a knot. Left and Right move the minutes, Up and Down the way in hand, Enter or a
/// click takes it into the plan.
class WaysView : public QWidget {
    Q_OBJECT

public:
    struct Curve {
        plan::Way way = plan::Way::asPlanned;
        std::vector<std::optional<plan::WayOption>> at; ///< at even steps of minutes from `first` to `last`
        std::optional<plan::WayOption> now;             ///< in the minutes there are
    };
    enum class Measure { worth, proof }; ///< of 100 to be had, or times in 100
    struct Picture {
        Measure measure = Measure::worth;
        double first = 10, last = 120, minutes = 45;
        std::vector<Curve> curves;
        std::optional<QPointF> plan = {}; ///< the plan in hand: its minutes, and what it gets
    };

    explicit WaysView(QWidget* parent = nullptr);
    void setPicture(Picture picture);
    QSize sizeHint() const override { return {420, 210}; }
    static QString nameOf(plan::Way way);
    /// What is said of the way in hand: "Short stints, 7 laps of 1 in 45 minutes: seen 10 times in 100".
    QString said() const;

signals:
    void minutesWanted(double minutes);
    void taken(const plan::WayOption& option);
    void looked(); ///< at another way

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    QRectF field() const;
    QPointF placeOf(double minutes, double chance) const;
    std::vector<double> labelPlaces() const;
    void look(int at);
    void drawScale(QPainter& painter, const QRectF& box) const;
    void drawCurve(QPainter& painter, const Curve& curve, bool isLit) const;
    void drawPlan(QPainter& painter) const;
    void drawMore(QPainter& painter) const;

    Picture m_picture;
    int m_at = 1;
};

} // namespace knot::app
