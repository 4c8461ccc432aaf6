#pragma once

#include "core/judge/reading.h"

#include <QColor>
#include <QFontMetrics>
#include <QPointF>
#include <QRectF>
#include <QStringList>

class QPainter;

namespace knot::app {

/// The shape and colour of a build's tag by its place in the test; told apart without colour.
void drawTag(QPainter& painter, const QRectF& box, std::size_t build);

/// A club's name in a width. Where it has no room the words go that others of `all` begin with as well, then its
/// middle: names of clubs often differ at their end.
QString clubName(const QFontMetrics& metrics, const QString& name, double width, const QStringList& all = {});
QString clubName(const QPainter& painter, const QString& name, double width, const QStringList& all = {});

/// The names of clubs, for telling them apart.
template<typename Clubs> QStringList namesOf(const Clubs& clubs) {
    QStringList names;
    for (const auto& club : clubs)
        names << club.name;
    return names;
}

/// A knot tied in a cord: a counted shot.
void drawKnot(QPainter& painter, QPointF centre, double radius, const QColor& colour);

/// A verdict as a knot: tight (real), small (slight), cords side by side (same), loose (size open),
/// an open loop (open), a frayed end (uncontrolled). `frayed`: the colour of that end; none is the one of faults.
void drawVerdict(QPainter& painter, const QRectF& box, judge::Verdict verdict, const QColor& frayed = {});

} // namespace knot::app
