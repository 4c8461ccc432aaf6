#include "core/record/test.h"

#include <algorithm>
#include <cmath>

namespace knot::record {

std::string outcomeText(const Outcome& outcome) {
    switch (outcome.kind) {
    case OutcomeKind::average:
        return info(outcome.metric).key;
    case OutcomeKind::spread:
        return "spread:" + info(outcome.metric).key;
    case OutcomeKind::area:
        return "area";
    case OutcomeKind::share:
        return "share:" + outcome.shape;
    }
    return {};
}

std::optional<Outcome> outcomeFromText(const std::string& text) {
    if (text == "area")
        return Outcome{.kind = OutcomeKind::area, .metric = Metric::carry, .shape = {}};
    if (text.starts_with("share:") && text.size() > 6)
        return Outcome{.kind = OutcomeKind::share, .metric = Metric::carry, .shape = text.substr(6)};
    const bool spread = text.starts_with("spread:");
    const auto metric = metricFromKey(spread ? std::string_view(text).substr(7) : text);
    if (!metric)
        return std::nullopt;
    return Outcome{.kind = spread ? OutcomeKind::spread : OutcomeKind::average, .metric = *metric, .shape = {}};
}

std::string outcomeLabel(const Outcome& outcome) {
    switch (outcome.kind) {
    case OutcomeKind::average:
        return info(outcome.metric).label;
    case OutcomeKind::spread:
        return info(outcome.metric).spreadLabel;
    case OutcomeKind::area:
        return "landing area";
    case OutcomeKind::share:
        return "share in " + outcome.shape;
    }
    return {};
}

bool Shape::holds(double shotSide, double shotCarry) const {
    const double across = 2 * (shotSide - side) / width;
    const double along = depth > 0 ? 2 * (shotCarry - carry) / depth : 0;
    if (kind == Kind::fairway)
        return std::fabs(across) <= 1;
    if (kind == Kind::rectangle)
        return std::fabs(across) <= 1 && std::fabs(along) <= 1;
    return across * across + along * along <= 1;
}

double Card::margin(Metric metric) const {
    const auto at = margins.find(metric);
    return at == margins.end() ? info(metric).worthwhileGap : at->second;
}

Want Card::want(const Outcome& outcome) const {
    if (const auto at = wants.find(outcome); at != wants.end())
        return at->second;
    const bool wide = outcome.kind == OutcomeKind::spread || outcome.kind == OutcomeKind::area;
    const bool share = outcome.kind == OutcomeKind::share;
    return {.kind = wide ? Want::Kind::less : share ? Want::Kind::more : Want::Kind::none, .value = 0};
}

std::optional<std::size_t> Test::buildIndex(const std::string& name) const {
    const auto at = std::ranges::find(builds, name, &Build::name);
    if (at == builds.end())
        return std::nullopt;
    return static_cast<std::size_t>(at - builds.begin());
}

std::size_t Test::baselineIndex() const {
    return buildIndex(card.baseline).value_or(0);
}

std::vector<Metric> Test::metricsRead() const {
    std::vector<Metric> read;
    for (const Metric metric : allMetrics())
        if (std::ranges::any_of(shots, [&](const Shot& s) { return s.readings.has(metric); }))
            read.push_back(metric);
    return read;
}

} // namespace knot::record
