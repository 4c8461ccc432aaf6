#pragma once

#include "core/record/card.h"
#include "core/record/club.h"
#include "core/record/decision.h"
#include "core/record/plan.h"
#include "core/record/player.h"
#include "core/record/seal.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// A club on test, and how it is made.
struct Build {
    std::string name;
    std::string note;
    std::string tag; ///< its blind label, known beside the name after the reveal
    Club club;
    std::string id; ///< UUID; kept under every other name and in tests that follow; empty until `nameClubs` gave it

    /// What names it for good inside its test: the tag where it has one, else the id, else the name.
    const std::string& who() const { return !tag.empty() ? tag : !id.empty() ? id : name; }
    bool isCalled(const std::string& one) const { return !one.empty() && (one == id || one == tag || one == name); }
    bool operator==(const Build&) const = default;
};

/// How much is declared: nothing, candidates that come and go, or a test.
enum class Stage { test, screening, openSitting };

/// What is declared of a test: its sheet, the rule of its plan, its clubs as made, who hits, and in the end what is
/// done. The Sheet, the Rack, the Plan and the decision change it.
struct Declared {
    std::string title;
    std::string question;
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
    Decision decision;

    /// The place of a build by its id, its tag or its name, or nothing.
    std::optional<BuildAt> buildIndex(const std::string& who) const;
    /// The same among what is sealed where it is not among the builds: a club by what names it, or nothing.
    const Build* buildCalled(const std::string& who) const;
    /// The name of a club by what names it; that itself where no club is called so.
    const std::string& nameOf(const std::string& who) const;
    std::vector<std::string> namesOf(const std::vector<std::string>& whose) const;
    /// The place of a player by name, or nothing.
    std::optional<PlayerAt> playerIndex(const std::string& name) const;
    /// The player who is in it first, or nobody.
    Player firstPlayer() const { return players.empty() ? Player{} : players.front(); }
    /// The names of the players, one after another: "Marit Aasgaard, Odd Farstad".
    std::string playerNames() const;

    bool operator==(const Declared&) const = default;
};

} // namespace knot::record
