#pragma once

#include "core/judge/claim.h"
#include "core/judge/columns.h"
#include "core/plan/seal.h"
#include "core/record/roster.h"
#include "core/record/structure.h"

#include <memory>
#include <set>

namespace knot::judge {

/// What may be judged of a test, made in one place: shots whose club nobody has named are left out,
/// a sealed test is seen as sealed, a changed club is a build of its own, and what was struck beyond
/// the plan has no part. The judge, leads, live averages, pictures and the command line take a case
/// and nothing else. It keeps the way back, so that what is said speaks of the record's own shots
/// and clubs. Cheap to copy; never changes.
class Case {
public:
    static Case of(const record::Test& test);

    /// What is judged, and how it falls into turns and rounds.
    const record::Test& test() const { return m_parts->planned ? *m_parts->planned : m_parts->seen; }
    const record::Structure& structure() const { return m_parts->structure; }
    /// The same with what was struck beyond the plan, as pictures show it.
    const record::Test& seen() const { return m_parts->seen; }
    /// Rounds struck beyond the plan.
    std::size_t roundsBeyond() const { return m_parts->roundsBeyond; }
    /// The same without what was done to shots after their numbers were seen; nullptr where nothing was.
    std::shared_ptr<const Case> withoutLateChanges() const { return m_parts->before; }
    /// Which shots verdicts stand on, and the ones that they do not.
    Taken taken() const;
    Taken otherSide() const { return taken() == Taken::counted ? Taken::allRead : Taken::counted; }
    /// A screening or an open sitting: leads, never verdicts.
    bool givesLeadsOnly() const { return test().stage != record::Stage::test; }
    /// Why nothing may be claimed of it, where that is so.
    std::optional<Cap> held() const;

    /// Who hit, and how, where a test has several players or deliveries: what is said of shots is said of each.
    struct Setting {
        std::string player, delivery;
        /// "Runa", "high", "Runa, high"
        std::string name() const { return player + (player.empty() || delivery.empty() ? "" : ", ") + delivery; }
        friend auto operator<=>(const Setting&, const Setting&) = default;
    };
    /// In the order struck; nothing where there is one.
    std::vector<Setting> settings() const;
    /// The same case with the counted shots of one setting; all others stay in their places and count as warm-up.
    Case partOf(const Setting& setting) const;

    /// Who is in it, lap by lap, of the record's clubs.
    const record::Roster& roster() const { return m_parts->roster; }
    /// Whether clubs are struck off at laps fixed beforehand.
    bool strikesOff() const { return m_parts->strikesOff; }
    /// The same where the plan ends before two are left.
    bool endsBeforeTwo() const { return m_parts->endsBeforeTwo; }
    /// How many clubs the record has, without the successors of changed ones.
    std::size_t clubs() const { return m_parts->roster.clubs(); }
    /// The record's club that a build is, or was before it was changed.
    BuildAt clubOf(BuildAt build) const { return m_parts->clubOf[build]; }
    /// The number that the record gives to a shot of `test()`, from 1.
    std::size_t numberOf(record::ShotAt shot) const { return m_parts->numbers[shot]; }
    /// The same for a shot of `seen()`.
    std::size_t numberOfSeen(record::ShotAt shot) const { return m_parts->seenNumbers[shot]; }

private:
    struct Parts {
        record::Roster roster;
        bool strikesOff = false, endsBeforeTwo = false;
        record::Test seen;
        std::optional<record::Test> planned;
        record::Structure structure;
        std::vector<std::size_t> numbers, seenNumbers;
        std::vector<BuildAt> clubOf;
        std::size_t roundsBeyond = 0;
        bool isPart = false;
        std::shared_ptr<const Case> before;
    };
    static Case withoutHistory(const record::Test& test, std::shared_ptr<const Case> before);
    explicit Case(std::shared_ptr<const Parts> parts)
        : m_parts(std::move(parts)) {}
    std::shared_ptr<const Parts> m_parts;
};

/// Rounds that were planned, over all players; 0: none were.
std::size_t plannedRounds(const record::Test& test);

/// Rounds that hold a counted shot of both builds.
std::size_t roundsOfBoth(const record::Test& test, const record::Structure& structure, BuildAt a, BuildAt b);

/// Of each round the record's clubs that have a counted shot in it, and those that it lacks: clubs that were hit
/// elsewhere and were in then.
struct RoundHeld {
    std::set<BuildAt> held, lacking;
};
std::vector<RoundHeld> roundsHeld(const Case& subject);

/// Rounds that lack no club.
std::size_t completeRounds(const Case& subject);

} // namespace knot::judge
