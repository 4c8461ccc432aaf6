#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace knot::record {

/// More clubs than anybody compares: a column that was taken for clubs holds something else.
inline constexpr std::size_t mostClubs = 200;

/// What a declaration may not hold, as sentences that say what and what may be. Pages, readers, the
/// command line and the logbook ask these: what can't be read back can't be saved. Empty: sound.
std::vector<std::string> faultsOf(const Card& card);
std::vector<std::string> faultsOf(const Plan& plan, std::size_t builds);
std::vector<std::string> faultsOf(const Club& club);
std::vector<std::string> faultsOf(const Player& player);
/// All of a test but its shots, and that nothing in it names what it has not.
std::vector<std::string> headFaultsOf(const Test& test);
/// Its shots from a place on.
std::vector<std::string> shotFaultsOf(const Test& test, std::size_t from = 0);
/// Both.
std::vector<std::string> faultsOf(const Test& test);

/// The most laps that are planned, and looks taken.
inline constexpr int mostRounds = 1000;

} // namespace knot::record
