#pragma once

#include <optional>
#include <string>

namespace knot::record {

enum class PartKind { head, shaft, grip, ball };

/// A part of a club, or a ball. Masses in g, lengths and places in mm, angles in degrees; what is
/// not known is absent.
struct Part {
    std::string id; ///< UUID; empty until a logbook has kept it
    PartKind kind = PartKind::shaft;
    std::string name;
    std::optional<double> mass;
    std::optional<double> loft, lie, volume; ///< head; volume in cm³
    std::optional<double> offset, bounce;    ///< head: the face behind the shaft's axis, mm; degrees
    std::string sizeClass;                   ///< head or grip, in words
    std::string sole, topLine, weights;      ///< head, in words; `weights`: the movable ones and where
    std::optional<double> length, tipTrim;   ///< shaft; `tipTrim` was cut off the thin end
    std::optional<double> step;    ///< shaft: of the set, how many clubs longer (−, softer) or shorter (+, stiffer)
    std::optional<double> balance; ///< shaft, grip: centre of mass from the butt end
    std::string material, flex;    ///< shaft
    std::optional<double> buttStiffness, tipStiffness; ///< shaft, on whatever scale its maker uses
    std::string price;                                 ///< in the shop's words
    bool operator==(const Part&) const = default;
};

/// What a setting of an adjustable sleeve does to loft, face (+ open) and lie together, degrees.
struct Sleeve {
    std::string setting;
    double loft = 0, face = 0, lie = 0;
    bool operator==(const Sleeve&) const = default;
};

/// A club as assembled, each part as it was then.
struct Club {
    Part head{.kind = PartKind::head}, shaft{.kind = PartKind::shaft}, grip{.kind = PartKind::grip};
    std::string ball;
    std::optional<double> length;     ///< mm from butt to sole
    std::optional<double> headAt;     ///< mm from the butt to the head's centre of mass
    double lead = 0;                  ///< g added at the head
    double bentLoft = 0, bentLie = 0; ///< degrees
    double grippedDown = 0;           ///< mm
    Sleeve sleeve;

    Part& part(PartKind kind) { return kind == PartKind::head ? head : kind == PartKind::grip ? grip : shaft; }
    bool operator==(const Club&) const = default;
};

} // namespace knot::record
