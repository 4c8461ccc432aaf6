#pragma once

#include "core/flight/impact.h"
#include "core/record/test.h"

#include <vector>

namespace knot::picture {

using FaceKind = flight::HeadKind;

/// What kind of face a test is hit with, hidden or not.
FaceKind faceKind(const record::Test& test);

/// Which way the toe points. A face is looked at from where the ball goes.
enum class Toe { left, right };

struct FacePoint {
    double x = 0, y = 0;
};

/// A face placed in a box: its outline and score lines in pixels, and a scale for mm. The centre of
/// the face is what strike points are measured from, + toward the toe and above.
struct FaceLayout {
    std::vector<FacePoint> outline;
    struct Line {
        FacePoint from, to;
    };
    std::vector<Line> grooves;
    FacePoint centre;
    double pixelsPerMm = 1;
    Toe toe = Toe::left;

    FacePoint place(double toeMm, double highMm) const;
    /// mm from the centre; `x` toward the toe, `y` up.
    FacePoint strikeAt(double x, double y) const;
    /// Whether a point lies on the face or within 10 mm around it.
    bool holds(double x, double y) const;
    double heelX = 0, toeX = 0, bottom = 0;
};

FaceLayout layOutFace(FaceKind kind, Toe toe, double left, double top, double width, double height);

} // namespace knot::picture
