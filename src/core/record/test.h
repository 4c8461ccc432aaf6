#pragma once

#include "core/record/card.h"
#include "core/record/shot.h"

#include <string>
#include <vector>

namespace knot::record {

/// A club as assembled.
struct Build {
    std::string name;
    std::string note;
    bool operator==(const Build&) const = default;
};

/// A whole test: its card, its builds and every shot in the order struck.
struct Test {
    std::string id; ///< UUID; empty until a logbook has kept it
    std::string title;
    std::string question;
    std::string player;
    std::string createdAt; ///< ISO 8601
    Card card;
    std::vector<Build> builds;
    std::vector<std::string> extraColumns;
    std::vector<Shot> shots;

    /// The index of a build by name, or nothing.
    std::optional<std::size_t> buildIndex(const std::string& name) const;
    /// The index of the baseline: the card's, else the first build. 0 when there are no builds.
    std::size_t baselineIndex() const;
    /// Metrics with at least one reading among the shots of any status, in canonical order.
    std::vector<Metric> metricsRead() const;

    bool operator==(const Test&) const = default;
};

} // namespace knot::record
