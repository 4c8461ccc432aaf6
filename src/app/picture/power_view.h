#pragma once

#include <QString>
#include <QWidget>

#include <vector>

namespace knot::app {

/// How often a gap is seen, by its size: the plan against three shots each, with the worthwhile gap.
class PowerView : public QWidget {
    Q_OBJECT

public:
    struct Picture {
        double largest = 1;             ///< the gap at the right edge, in the user's unit
        std::vector<double> plan, runs; ///< chances at even steps from 0 to `largest`
        double worthwhile = 0;
        QString unit;
        int decimals = 1;
    };
    explicit PowerView(QWidget* parent = nullptr);
    void setPicture(Picture picture);
    QSize sizeHint() const override { return {420, 210}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Picture m_picture;
};

} // namespace knot::app
