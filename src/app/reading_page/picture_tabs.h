#pragma once

#include <QTabBar>

#include <functional>

namespace knot::app {

/// The names of the pictures with the number keys that show them; the one that is shown is underlined.
class PictureTabs : public QTabBar {
    Q_OBJECT

public:
    explicit PictureTabs(QWidget* parent = nullptr);
    /// The key that shows a picture: 1 to 9, 0, − and = as they stand on the keyboard.
    static Qt::Key keyOf(int index);
    void showOnly(const std::function<bool(int)>& isThere);

protected:
    QSize tabSizeHint(int index) const override;
    QSize minimumTabSizeHint(int index) const override;
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    int nameWidth(int index) const;
    void layAgain();
};

} // namespace knot::app
