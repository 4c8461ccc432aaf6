#pragma once

#include "app/picture/picture.h"

#include <QWidget>

#include <memory>

namespace knot::app {

/// A picture on a page. Pointing at a mark says what it is; so do the arrow keys, along a row and between rows.
/// Ctrl+C copies the picture's text.
class PictureView : public QWidget {
    Q_OBJECT

public:
    explicit PictureView(QWidget* parent = nullptr);
    ~PictureView() override;

    void setPicture(std::unique_ptr<Picture> picture);
    const Picture* picture() const { return m_picture.get(); }
    /// Lights the shot of another picture up here too, where it is shown.
    void light(std::optional<std::size_t> shot);
    std::optional<std::size_t> lit() const { return m_lit; }
    QString litText() const;

signals:
    void litChanged(const QString& text);
    /// A shot is held out of the picture (X, or the mouse's button held on it), or let go.
    void lifted(std::optional<std::size_t> shot);
    /// A shape was dragged.
    void dragged(const Picture::Dragged& shape);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    const Picture::Mark* markOf(std::optional<std::size_t> shot) const;
    void step(int along, int across);
    void describe();
    void lift(bool out);

    std::unique_ptr<Picture> m_picture;
    std::optional<std::size_t> m_lit; ///< the shot pointed at
    bool m_isLifted = false;          ///< that shot is held out
    bool m_isDragging = false;        ///< a shape of the picture
};

} // namespace knot::app
