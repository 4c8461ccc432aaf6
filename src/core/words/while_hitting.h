#pragma once

#include "core/judge/case.h"
#include "core/record/units.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

// What is said between two shots. Only what was seen: nothing here is a finding.
namespace knot::words {

/// The most numbers that stand in the bay at once.
inline constexpr std::size_t mostNumbers = 4;

/// The numbers that are looked at while hitting: those chosen for the kind of club; else the declared averages and what
/// is usual for the kind. Where shots were read, only what was.
std::vector<record::Metric> numbersFor(const record::Test& test, const std::vector<record::Metric>& chosen);

/// One number of the club in hand so far, by who hits now and as is asked for now.
struct NumberSoFar {
    record::Metric metric = record::Metric::carry;
    std::size_t shots = 0;
    double mean = 0, low = 0, high = 0;
    std::optional<double> onOwn; ///< the mean less that of one's own club; nothing for that one itself
};
std::vector<NumberSoFar> numbersSoFar(const judge::Case& subject, record::BuildAt club,
                                      std::span<const record::Metric> numbers);

/// "152.3 (148 to 157)", and on a line of its own "+4.1"
std::string soFarText(const NumberSoFar& number, const record::DisplayUnits& units);

/// Whether somebody else may have taken over: the last two shots lie far from the others of their player with this club
/// in speed, both to one side. Said once, at the second of them; else empty. Of 1,000 sittings of 40 shots by one
/// player it speaks up in fewer than five (tests/simulation/while_hitting_test.cpp).
std::string somebodyElse(const record::Test& test, const record::DisplayUnits& units);

/// One shot beside the others with its club: how it was delivered, where it was struck, how it flew. Needs three
/// others.
std::string shotExplained(const record::Test& test, record::ShotAt shot, const record::DisplayUnits& units);

} // namespace knot::words
