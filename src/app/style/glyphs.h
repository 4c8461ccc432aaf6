#pragma once

#include "core/judge/reading.h"

#include <QColor>
#include <QPointF>
#include <QRectF>

class QPainter;

namespace knot::app {

/// The shape and colour of a build's tag by its place in the test; told apart without colour.
void drawTag(QPainter& painter, const QRectF& box, std::size_t build);

/// A knot tied in a cord: a counted shot.
void drawKnot(QPainter& painter, QPointF centre, double radius, const QColor& colour);

/// A verdict as a knot: tight (real), small (slight), cords side by side (same), loose (size open),
/// an open loop (open), a frayed end (uncontrolled).
void drawVerdict(QPainter& painter, const QRectF& box, judge::Verdict verdict);

} // namespace knot::app
