#pragma once

#include <QFont>
#include <QPointF>
#include <QString>

class QPainter;

namespace knot::app {

/// Text whose digits all take the width of the widest, so that columns of numbers line up.
double tabularWidth(const QFont& font, const QString& text);

enum class Align { left, centre, right };

/// Draws such text with its baseline at `at`, in the painter's pen.
void drawTabular(QPainter& painter, const QFont& font, QPointF at, const QString& text, Align align);

} // namespace knot::app
