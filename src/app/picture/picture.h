#pragma once

#include "core/record/card.h"

#include <QPointF>
#include <QRectF>
#include <QString>

#include <optional>
#include <vector>

class QPainter;

namespace knot::app {

/// One picture of a reading, laid out for a box and painted the same way on screen, on paper and into a file.
class Picture {
public:
    /// Something that can be pointed at: mostly a shot.
    struct Mark {
        QPointF at;
        double reach = 6;     ///< pixels within which it is meant
        std::size_t shot = 0; ///< of the case that is seen
        std::size_t row = 0;  ///< arrows go along a row, and up and down between rows
        QString text;
    };

    Picture() = default;
    Picture(const Picture&) = delete;
    Picture& operator=(const Picture&) = delete;
    virtual ~Picture() = default;

    /// What it shows, as one sentence, for screen readers.
    virtual QString finding() const = 0;
    /// What stands under it on a page; nothing where the picture has the words in it.
    virtual QString under() const { return finding(); }
    /// What stands above it while nothing is pointed at.
    virtual QString legend() const;
    /// Places everything in a box, in logical pixels.
    virtual void layOut(const QRectF& box) = 0;
    /// Paints what was laid out; the shot that is pointed at stands out.
    virtual void paint(QPainter& painter, std::optional<std::size_t> lit) const = 0;
    /// What copying it gives.
    virtual QString asText() const { return finding(); }

    /// A shape on the ground that was dragged elsewhere, by its place on the card.
    struct Dragged {
        std::size_t at = 0;
        record::Shape shape;
    };
    /// Takes hold of what can be dragged at a point; false where nothing can.
    virtual bool grab(QPointF) { return false; }
    /// Moves it there, or its edge.
    virtual void dragTo(QPointF) {}
    /// What was dragged, once it is let go.
    virtual std::optional<Dragged> letGo() { return std::nullopt; }

    /// Of the last layout.
    const std::vector<Mark>& marks() const { return m_marks; }

protected:
    std::vector<Mark> m_marks;
};

} // namespace knot::app
