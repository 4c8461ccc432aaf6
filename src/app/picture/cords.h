#pragma once

#include "app/picture/axis.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace knot::picture {

/// What the cords picture shows of one build, in display units.
struct CordData {
    std::vector<double> values;
    std::vector<std::size_t> shots; ///< beside `values`: whose they are
    double mean = 0;
    std::optional<double> low, high; ///< 95 % interval of the mean
};

struct CordsData {
    std::vector<CordData> cords;
    std::size_t baseline = 0;
    struct Band {
        double low = 0, high = 0;
    };
    std::optional<Band> band; ///< what is too small to matter, about the baseline's mean
};

struct PlacedKnot {
    double x = 0, y = 0;
    std::size_t cord = 0, shot = 0;
    double value = 0;
};

struct PlacedCord {
    double top = 0, y = 0; ///< upper edge of the row, and the cord itself
    double intervalY = 0, meanX = 0;
    std::optional<double> lowX, highX;
    bool empty = true;
};

struct CordsLayout {
    Axis axis;
    std::vector<PlacedCord> cords;
    std::vector<PlacedKnot> knots;
    double knotRadius = 6;
    double bandLeft = 0, bandRight = 0, top = 0, bottom = 0;
    bool hasBand = false;
};

struct Frame {
    double left = 0, top = 0, right = 0, bottom = 0;
};

/// Places cords one under another in a frame (the area for cords and knots; tick labels come
/// below it). Knots shrink until the tallest stack fits its row. No cords, or cords without
/// values, give an empty picture.
CordsLayout layOutCords(const CordsData& data, const Frame& frame);

} // namespace knot::picture
