#pragma once

#include <QTabBar>

#include <functional>
#include <map>
#include <utility>

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
    int nameWidth(const QFontMetrics& metrics, int index) const;
    void layAgain();
    mutable std::map<std::pair<QString, int>, int> m_widths; ///< of names, by the height of their type
};

} // namespace knot::app
