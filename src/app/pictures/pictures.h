#pragma once

#include "app/picture/picture.h"
#include "core/judge/case.h"
#include "core/judge/reading.h"
#include "core/reach/chart.h"
#include "core/record/units.h"

#include <memory>

namespace knot::app {

/// The pictures of the Reading page in the order of their keys.
enum class PictureKind {
    table,
    cords,
    landing,
    flight,
    face,
    order,
    luck,
    parts,
    along,
    factors,
    window,
    delivery,
    bag
};
inline constexpr int pictureKinds = 13;

/// What is looked at: a case, its reading, the number in hand and the pair in hand.
struct Looked {
    const judge::Case& subject;
    const judge::Reading& reading;
    record::Metric metric = record::Metric::carry;
    record::BuildAt build;
    record::OutcomeKind kind = record::OutcomeKind::average; ///< spreads are drawn as distances
    const record::DisplayUnits& units;
    const record::Structure& structure;       ///< of what is seen
    std::vector<record::Metric> columns = {}; ///< of the table; none: as is usual
    double wind = 0;                          ///< m/s along the flights, + with them
    const reach::Chart* chart = nullptr;      ///< of what is wanted, where there is one of one's own
};

/// One of the pictures below; nothing where the number in hand has none.
std::unique_ptr<Picture> pictureOf(PictureKind kind, const Looked& looked);
/// Whether a reading has this picture of any number.
bool isThere(PictureKind kind, const record::Test& seen, const judge::Reading& reading);
/// Whether it is of one number, which can be chosen.
bool isOfOneNumber(PictureKind kind);
/// Whether it shows shots and their middles, which are one player's with one delivery, and not gaps or the whole order.
bool isOfShots(PictureKind kind);

/// Means, scatter and counts of every club, ranked by the number in hand.
std::unique_ptr<Picture> tablePicture(const Looked& looked);
/// Every counted shot on the cord of its club; of a spread, how far each was from the middle of its stint.
std::unique_ptr<Picture> cordsPicture(const Looked& looked);
/// Where the shots came down, from above. Nothing without sides and carries.
std::unique_ptr<Picture> landingPicture(const Looked& looked);
/// The clubs' mean flights, from the side and from above; the way between what was measured is modelled. Nothing
/// without ball speed, launch and spin.
std::unique_ptr<Picture> flightPicture(const Looked& looked);
/// Where the ball met the face of each club. Nothing without strike points.
std::unique_ptr<Picture> facePicture(const Looked& looked);
/// The number in hand in the order struck.
std::unique_ptr<Picture> orderPicture(const Looked& looked);
/// The gap in hand among those that luck gives. Nothing where it was not shuffled.
std::unique_ptr<Picture> luckPicture(const Looked& looked);
/// Where the gap in hand comes from, and whose doing the scatter is. Nothing where neither is known.
std::unique_ptr<Picture> partsPicture(const Looked& looked);
/// The number in hand along the clubs' weights, lofts or lengths. Nothing where no trend was asked for.
std::unique_ptr<Picture> alongPicture(const Looked& looked);
/// The clubs' means with each delivery, player or other second factor. Nothing without one.
std::unique_ptr<Picture> factorsPicture(const Looked& looked);
/// Launch and spin against what is wanted of that ball speed, or what lofts can give. Nothing without both.
std::unique_ptr<Picture> windowPicture(const Looked& looked);
/// Delivered against static loft, attack and spin loft, by club and delivery. Nothing without dynamic loft or attack.
std::unique_ptr<Picture> deliveryPicture(const Looked& looked);

/// The clubs of a bag and the gaps between them. Nothing where the clubs are rivals.
std::unique_ptr<Picture> bagPicture(const Looked& looked);

/// "Fern, shot 7, lap 2: 176.0 m": what pointing at a shot says.
QString shotText(const judge::Case& subject, const record::Structure& structure, std::size_t shot,
                 const QString& value);
QString shotText(const Looked& looked, std::size_t shot, const QString& value);
/// The name of a build as it is shown.
QString nameOf(const Looked& looked, record::BuildAt build);

} // namespace knot::app
