#pragma once

#include "app/picture/axis.h"

#include <QRectF>
#include <QString>

class QColor;
class QPainter;

namespace knot::app {

/// Lines across a ground at an upright scale's ticks with their numbers left of it; the unit stands at `unitY`.
void paintUpright(QPainter& painter, const QRectF& ground, const picture::Axis& axis, const QString& unit,
                  double unitY);

/// A scale below a ground with its numbers, and what it is of.
void paintAlong(QPainter& painter, const QRectF& ground, const picture::Axis& axis, const QString& title);

/// An interval about a point that stands upright.
void paintWhisker(QPainter& painter, double x, double low, double high, const QColor& colour);

/// Moves labels of one column apart so that none lies on another: the places wanted, changed where they stand.
void spreadApart(std::vector<double>& places, double height);

} // namespace knot::app
