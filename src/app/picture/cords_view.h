#pragma once

#include "app/picture/cords.h"

#include <QStringList>
#include <QWidget>

class QPainter;

namespace knot::app {

/// What the cords picture shows, ready for drawing: geometry data in display units, and words.
struct CordsPicture {
    picture::CordsData data;
    std::vector<std::size_t> builds; ///< beside data.cords: place in the test, for tag and colour
    QStringList names, notes;        ///< notes may be empty; "own club" under a name
    QStringList means;               ///< the mean as text
    QStringList knotTexts;           ///< by shot index: what pointing at it says
    QString unit;
};

/// Where everything stands in a box.
picture::CordsLayout cordsLayout(const CordsPicture& picture, const QRectF& box);

/// Draws the picture as it was laid out for a box; `lit` is the knot pointed at. The same for screen
/// and paper.
void paintCords(QPainter& painter, const CordsPicture& picture, const picture::CordsLayout& layout, const QRectF& box,
                std::optional<std::size_t> lit);

/// The cords picture on a page. Pointing at a knot says what it is; so do the arrow keys, from
/// left to right along a cord and up and down between cords.
class CordsView : public QWidget {
    Q_OBJECT

public:
    explicit CordsView(QWidget* parent = nullptr);
    void setPicture(CordsPicture picture);
    const CordsPicture& picture() const { return m_picture; }
    /// Text about the knot pointed at; empty when none is.
    QString litText() const;

signals:
    void litChanged(const QString& text);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void light(std::optional<std::size_t> knot);
    void step(int along, int across);

    CordsPicture m_picture;
    picture::CordsLayout m_layout;    ///< of the picture at this size
    std::optional<std::size_t> m_lit; ///< index into the layout's knots
};

} // namespace knot::app
