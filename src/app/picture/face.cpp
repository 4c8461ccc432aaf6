#include "app/picture/face.h"

#include "core/rack/club_kind.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace knot::picture {
namespace {

// Half an outline is enough to draw by: width and height in mm, how much higher the toe side stands,
// and how square the corners are (2: an ellipse).
struct FaceShape {
    double width, height, rise, squareness;
    int grooves;
};

constexpr std::array<FaceShape, 4> shapes = {
    {{112, 58, 2, 2.6, 0}, {88, 38, 2, 2.7, 4}, {78, 50, 13, 3.4, 7}, {80, 60, 17, 3.1, 9}}};
constexpr int corners = 72;
constexpr double around = 10; // mm

const FaceShape& shapeOf(FaceKind kind) {
    return shapes[static_cast<std::size_t>(kind)];
}

double power(double value, double exponent) {
    return std::copysign(std::pow(std::fabs(value), exponent), value);
}

// A rounded box whose top rises toward the toe; x + toward the toe, y up, mm from the centre.
FacePoint outlineAt(const FaceShape& shape, double angle) {
    const double x = shape.width / 2 * power(std::cos(angle), 2 / shape.squareness);
    double y = shape.height / 2 * power(std::sin(angle), 2 / shape.squareness);
    const double slope = shape.rise / shape.width;
    y += y > 0 ? slope * x : 0.15 * slope * x;
    return {x, y};
}

} // namespace

FaceKind faceKind(const record::Test& test) {
    return rack::ClubKinds(test).first();
}

FacePoint FaceLayout::place(double toeMm, double highMm) const {
    const double side = toe == Toe::left ? -1 : 1;
    return {centre.x + side * toeMm * pixelsPerMm, centre.y - highMm * pixelsPerMm};
}

FacePoint FaceLayout::strikeAt(double x, double y) const {
    const double side = toe == Toe::left ? -1 : 1;
    return {side * (x - centre.x) / pixelsPerMm, (centre.y - y) / pixelsPerMm};
}

bool FaceLayout::holds(double x, double y) const {
    double left = outline.front().x;
    double right = left;
    double top = outline.front().y;
    double low = top;
    for (const auto& point : outline) {
        left = std::min(left, point.x);
        right = std::max(right, point.x);
        top = std::min(top, point.y);
        low = std::max(low, point.y);
    }
    const double margin = around * pixelsPerMm;
    return x >= left - margin && x <= right + margin && y >= top - margin && y <= low + margin;
}

FaceLayout layOutFace(FaceKind kind, Toe toe, double left, double top, double width, double height) {
    const FaceShape& shape = shapeOf(kind);
    FaceLayout layout;
    layout.toe = toe;
    layout.pixelsPerMm =
        std::max(0.1, std::min(width / (shape.width + 2 * around), height / (shape.height + shape.rise + 2 * around)));
    layout.centre = {left + width / 2, top + height / 2 + shape.rise / 4 * layout.pixelsPerMm};
    for (int i = 0; i < corners; ++i) {
        const auto point = outlineAt(shape, 2 * std::numbers::pi * i / corners);
        layout.outline.push_back(layout.place(point.x, point.y));
    }
    for (int i = 0; i < shape.grooves; ++i) {
        const double y = shape.height * 0.72 * ((i + 0.5) / shape.grooves - 0.5);
        layout.grooves.push_back({layout.place(-0.36 * shape.width, y), layout.place(0.3 * shape.width, y)});
    }
    layout.heelX = layout.place(-shape.width / 2, 0).x;
    layout.toeX = layout.place(shape.width / 2, 0).x;
    layout.bottom = layout.place(0, -shape.height / 2).y;
    return layout;
}

} // namespace knot::picture
