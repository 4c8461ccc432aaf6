#include "core/record/test.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <unordered_set>

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
    case OutcomeKind::equal:
        return "equal:" + info(outcome.metric).key;
    case OutcomeKind::typical:
        return "typical:" + info(outcome.metric).key;
    }
    return {};
}

std::optional<Outcome> outcomeFromText(const std::string& text) {
    if (text == "area")
        return Outcome{.kind = OutcomeKind::area, .metric = Metric::carry, .shape = {}};
    if (text.starts_with("share:") && text.size() > 6)
        return Outcome{.kind = OutcomeKind::share, .metric = Metric::carry, .shape = text.substr(6)};
    constexpr std::array<std::pair<std::string_view, OutcomeKind>, 4> kinds{{{"spread:", OutcomeKind::spread},
                                                                             {"equal:", OutcomeKind::equal},
                                                                             {"typical:", OutcomeKind::typical},
                                                                             {"", OutcomeKind::average}}};
    const auto& [begin, kind] =
        *std::ranges::find_if(kinds, [&](const auto& one) { return text.starts_with(one.first); });
    const auto metric = metricFromKey(std::string_view(text).substr(begin.size()));
    if (!metric)
        return std::nullopt;
    return Outcome{.kind = kind, .metric = *metric, .shape = {}};
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
    case OutcomeKind::equal:
        return info(outcome.metric).label + " at equal delivery";
    case OutcomeKind::typical:
        return "typical " + info(outcome.metric).label;
    }
    return {};
}

bool Shape::holds(double shotSide, double shotCarry) const {
    if (isBeyond())
        return kind == Kind::beyondLeft ? shotSide < side : shotSide > side;
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
    switch (outcome.kind) {
    case OutcomeKind::spread:
    case OutcomeKind::area:
        return {.kind = Want::Kind::less, .value = 0};
    case OutcomeKind::share: {
        const auto shape = std::ranges::find(shapes, outcome.shape, &Shape::name);
        return {.kind = shape != shapes.end() && shape->isBeyond() ? Want::Kind::less : Want::Kind::more, .value = 0};
    }
    case OutcomeKind::equal:
    case OutcomeKind::typical: // what is hoped for in the average is hoped for here
        return want({.kind = OutcomeKind::average, .metric = outcome.metric, .shape = {}});
    case OutcomeKind::average:
        break;
    }
    return {.kind = outcome.metric == Metric::miss ? Want::Kind::less : Want::Kind::none, .value = 0};
}

std::optional<BuildAt> Test::buildIndex(const std::string& name) const {
    const auto at = std::ranges::find(builds, name, &Build::name);
    if (at == builds.end())
        return std::nullopt;
    return BuildAt(static_cast<std::size_t>(at - builds.begin()));
}

std::optional<PlayerAt> Test::playerIndex(const std::string& name) const {
    const auto at = std::ranges::find(players, name, &Player::name);
    if (at == players.end())
        return std::nullopt;
    return PlayerAt(static_cast<std::size_t>(at - players.begin()));
}

std::string Test::playerNames() const {
    std::string names;
    for (const Player& player : players)
        names += (names.empty() ? "" : ", ") + player.name;
    return names;
}

void Test::namePlayers() {
    const std::string* last = nullptr; // many shots in a row are one player's
    for (const Shot& shot : shots) {
        if (shot.player.empty() || (last != nullptr && *last == shot.player))
            continue;
        last = &shot.player;
        if (!playerIndex(shot.player))
            players.push_back({.id = {}, .name = shot.player});
    }
}

BuildAt Test::baselineIndex() const {
    return buildIndex(card.baseline).value_or(BuildAt());
}

std::optional<ShotAt> Test::shotIndex(ShotId named) const {
    for (std::size_t i = shots.size(); i-- > 0;)
        if (shots[i].id == named && named != ShotId::none)
            return ShotAt(i);
    return std::nullopt;
}

ShotId Test::nextShotId() const {
    std::int64_t most = 0;
    for (const Shot& shot : shots)
        most = std::max(most, static_cast<std::int64_t>(shot.id));
    return ShotId{most + 1};
}

void Test::nameShots() {
    auto next = static_cast<std::int64_t>(nextShotId());
    std::unordered_set<std::int64_t> taken;
    for (Shot& shot : shots)
        if (shot.id == ShotId::none || !taken.insert(static_cast<std::int64_t>(shot.id)).second)
            shot.id = ShotId{next++};
}

bool Test::removeBuild(BuildAt gone) {
    auto isOf = [&](BuildAt build) { return build == gone; };
    if (gone >= builds.size() || std::ranges::any_of(shots, isOf, &Shot::build) ||
        std::ranges::any_of(feels, isOf, &Feel::build) || std::ranges::any_of(guesses, isOf, &Guess::build) ||
        std::ranges::any_of(amendments,
                            [&](const Amendment& one) { return std::ranges::any_of(one.was, isOf, &Shot::build); }))
        return false;
    auto moveUp = [&](BuildAt& build) {
        if (build > gone)
            build = BuildAt(build - 1);
    };
    builds.erase(builds.begin() + static_cast<std::ptrdiff_t>(gone));
    plan.turns.clear();
    std::erase_if(plan.changeTimes, [&](const ChangeTime& time) { return isOf(time.a) || isOf(time.b); });
    for (ChangeTime& time : plan.changeTimes) {
        moveUp(time.a);
        moveUp(time.b);
    }
    for (Shot& shot : shots)
        moveUp(shot.build);
    for (Amendment& amendment : amendments)
        for (Shot& shot : amendment.was)
            moveUp(shot.build);
    for (Feel& feel : feels)
        moveUp(feel.build);
    for (Guess& guess : guesses)
        moveUp(guess.build);
    moveUp(progress.inHand);
    if (progress.inHand >= builds.size())
        progress.inHand = BuildAt(builds.empty() ? 0 : builds.size() - 1);
    return true;
}

std::vector<Metric> Test::metricsRead() const {
    std::vector<Metric> read;
    for (const Metric metric : judgedMetrics())
        if (std::ranges::any_of(shots, [&](const Shot& struck) { return struck.readings.has(metric); }))
            read.push_back(metric);
    return read;
}

} // namespace knot::record
