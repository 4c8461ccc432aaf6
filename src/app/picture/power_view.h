#pragma once

#include "app/picture/power.h"

#include <QString>
#include <QWidget>

namespace knot::app {

/// How often a gap is seen, by its size: the plan against three shots each, with the worthwhile gap.
class PowerView : public QWidget {
    Q_OBJECT

public:
    struct Picture {
        picture::PowerCurve curve;
        QString unit;
    };
    explicit PowerView(QWidget* parent = nullptr);
    void setPicture(Picture picture);
    QSize sizeHint() const override { return {420, 210}; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void layOut();

    Picture m_picture;
    picture::PowerLayout m_layout;
};

} // namespace knot::app
