#pragma once

#include "core/flight/impact.h"
#include "core/record/test.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace knot::rack {

/// What a club is: its kind of head, and its number where that is known. A hybrid is a wood; a wedge's number is its
/// loft.
struct ClubKind {
    flight::HeadKind head = flight::HeadKind::wood;
    bool isHybrid = false;
    int number = 0;
    bool operator==(const ClubKind&) const = default;
};

/// "driver", "3-wood", "4-hybrid", "7-iron", "wedge".
std::string kindText(const ClubKind& kind);
/// The same as somebody types it: "7 iron", "iron 7", "7i", "Eisen 7", "PW", "10.5°". Nothing where it is none.
std::optional<ClubKind> kindFromText(std::string_view typed);

/// What kind a head is, as far as its part and its name tell, alone: by volume, else by loft, else by words ("7",
/// "7 iron", "3w", "gap wedge"); unknown heads pass for woods.
flight::HeadKind headKind(const record::Part& head, std::string_view club = {});
flight::HeadKind headKind(const record::Build& build);

/// "driver", "wood", "iron" or "wedge", as tables have it.
std::string_view kindName(flight::HeadKind kind);

/// Who says what kind a club is, the surest first.
enum class ToldBy { person, parts, name, shots, nobody };

struct KindTold {
    ClubKind kind;
    ToldBy by = ToldBy::nobody;
    double chance = 0; ///< of the head's kind
};

/// What the clubs of a test are: what somebody said, else what their parts say, else by their names and what was struck
/// with them together (data/clubs.csv: launch, spin, speeds, descent and carry as they lie for a player of whatever
/// speed). Clubs whose shots lie close and whose names don't differ in kind are taken for one. Rough: meant to be said
/// and put right, never to judge by.
class ClubKinds {
public:
    explicit ClubKinds(const record::Test& test);

    const KindTold& of(record::BuildAt club) const { return m_clubs.at(club); }
    flight::HeadKind head(record::BuildAt club) const { return of(club).kind.head; }
    /// Where they are all of one kind.
    const std::optional<KindTold>& ofAll() const { return m_all; }
    /// A driver and a three-wood lie farther apart than two shafts: whether nothing tells clubs of several kinds, nor
    /// lofts farther apart than those of two neighbouring clubs.
    bool areOne() const { return m_areOne; }
    /// The kind of them all, else of the first club; a wood where nothing is known.
    flight::HeadKind first() const;

private:
    std::vector<KindTold> m_clubs;
    std::optional<KindTold> m_all;
    bool m_areOne = true;
};

} // namespace knot::rack
