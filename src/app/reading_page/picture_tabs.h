#pragma once

#include <QTabBar>

namespace knot::app {

/// The names of the pictures with the number keys that show them; the one that is shown is underlined.
class PictureTabs : public QTabBar {
    Q_OBJECT

public:
    explicit PictureTabs(QWidget* parent = nullptr);

protected:
    QSize tabSizeHint(int index) const override;
    void paintEvent(QPaintEvent* event) override;
};

} // namespace knot::app
