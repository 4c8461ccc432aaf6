#pragma once

#include "app/picture/face.h"

#include <QWidget>

#include <optional>

namespace knot::app {

/// Where the ball met the face. A click, or the arrow keys, says it for the last shot.
class FaceView : public QWidget {
    Q_OBJECT

public:
    struct Strike {
        double toe = 0, high = 0; ///< mm
        bool operator==(const Strike&) const = default;
    };

    explicit FaceView(QWidget* parent = nullptr);
    void setFace(picture::FaceKind kind, picture::Toe toe);
    /// Earlier strikes of the stint, and the last one in the club's colour.
    void setStrikes(const std::vector<Strike>& earlier, std::optional<Strike> last, std::size_t build);
    void setChangeable(bool changeable);
    QSize sizeHint() const override { return {300, 190}; }
    QSize minimumSizeHint() const override { return {200, 120}; }

signals:
    void struck(knot::app::FaceView::Strike strike);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void layOut();
    void describe();

    picture::FaceKind m_kind = picture::FaceKind::wood;
    picture::Toe m_toe = picture::Toe::left;
    std::vector<Strike> m_earlier;
    std::optional<Strike> m_last;
    std::size_t m_build = 0;
    picture::FaceLayout m_layout;
    bool m_changeable = false;
};

} // namespace knot::app
