#pragma once

#include "core/record/bay.h"
#include "core/record/card.h"
#include "core/record/club.h"
#include "core/record/decision.h"
#include "core/record/plan.h"
#include "core/record/player.h"
#include "core/record/seal.h"
#include "core/record/shot.h"

#include <string>
#include <vector>

namespace knot::record {

/// A club on test, and how it is made.
struct Build {
    std::string name;
    std::string note;
    std::string tag;       ///< its blind label, known beside the name after the reveal
    std::string struckOff; ///< why it left a screening; empty while it is in
    Club club;
    bool operator==(const Build&) const = default;
};

/// What the player said a build was: once for the whole test (`turn` empty) or for one stint.
struct Guess {
    BuildAt build;    ///< the one in hand
    std::string said; ///< the name of the build it was taken for
    std::string turn;
    bool operator==(const Guess&) const = default;
};

/// A change of the card after the first counted shot, or of shots after their numbers were seen.
struct Amendment {
    std::string at; ///< ISO 8601
    std::string text;
    std::vector<Shot> was; ///< shots that it changed, as they were before
    bool operator==(const Amendment&) const = default;
};

/// How much is declared: nothing, candidates that come and go, or a test.
enum class Stage { test, screening, openSitting };

/// A whole test: its card, its builds and every shot in the order struck.
struct Test {
    std::string id;      ///< UUID; empty until a logbook has kept it
    std::string repeats; ///< the id of the first test of those that are the same on several days; empty in that one
    std::string title;
    std::string question;
    std::string createdAt; ///< ISO 8601
    Stage stage = Stage::test;
    /// Who hits, by names of their own. Shots name theirs; a shot that names nobody is the first one's.
    std::vector<Player> players;
    Card card;
    Plan plan;
    Seal seal;
    /// While the seal is closed these are the tags, and `sealedBuilds` lists what they hide, in the
    /// order of the test sheet, which says nothing about the tags.
    std::vector<Build> builds;
    std::vector<Build> sealedBuilds;
    std::vector<std::string> extraColumns;
    std::vector<Shot> shots;
    std::vector<Guess> guesses;
    std::vector<Amendment> amendments;
    std::vector<Feel> feels;
    std::vector<Sitting> sittings; ///< those of the bay; a file's shots may name others
    std::vector<Event> events;
    Progress progress;
    Choices choices;
    Decision decision;
    std::string frozenAt, frozenHash; ///< the first counted shot, and the SHA-256 of the card then

    /// The place of a build by name, or nothing.
    std::optional<BuildAt> buildIndex(const std::string& name) const;
    /// The index of the baseline: the card's, else the first build. 0 when there are no builds.
    BuildAt baselineIndex() const;
    /// The place of a player by name, or nothing.
    std::optional<PlayerAt> playerIndex(const std::string& name) const;
    /// The player who is in it first, or nobody.
    Player firstPlayer() const { return players.empty() ? Player{} : players.front(); }
    /// The names of the players, one after another: "Marit Aasgaard, Odd Farstad".
    std::string playerNames() const;
    /// Adds players for the names in the shots that have none.
    void namePlayers();
    /// The place of a shot by its id, or nothing. Looks from the last shot back.
    std::optional<ShotAt> shotIndex(ShotId named) const;
    /// The id that the next shot gets: one more than any shot has.
    ShotId nextShotId() const;
    /// Gives ids to the shots that have none, or that of a shot before them, in their order.
    void nameShots();
    /// Takes a build out that no shot, feel or guess is of; those after it move up everywhere. False,
    /// and no change, where one is. The planned turns go: they are to be made anew.
    bool removeBuild(BuildAt gone);
    /// Metrics with at least one reading among the shots of any status, in canonical order.
    std::vector<Metric> metricsRead() const;

    bool operator==(const Test&) const = default;
};

} // namespace knot::record
