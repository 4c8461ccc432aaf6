#include "core/record/test.h"

#include "core/record/text/digest.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>
#include <unordered_set>
#include <utility>

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

namespace {

// The id first, and the name last: a name may be anything.
const Build* calledAmong(const std::vector<Build>& builds, const std::string& who) {
    if (who.empty())
        return nullptr;
    for (const auto member : {&Build::id, &Build::tag, &Build::name})
        if (const auto at = std::ranges::find(builds, who, member); at != builds.end())
            return &*at;
    return nullptr;
}

} // namespace

std::optional<BuildAt> Declared::buildIndex(const std::string& who) const {
    const Build* build = calledAmong(builds, who);
    return build == nullptr ? std::nullopt : std::optional(BuildAt(static_cast<std::size_t>(build - builds.data())));
}

const Build* Declared::buildCalled(const std::string& who) const {
    const Build* build = calledAmong(builds, who);
    return build != nullptr ? build : calledAmong(sealedBuilds, who);
}

const std::string& Declared::nameOf(const std::string& who) const {
    const Build* build = buildCalled(who);
    return build == nullptr ? who : build->name;
}

std::vector<std::string> Declared::namesOf(const std::vector<std::string>& whose) const {
    std::vector<std::string> names;
    names.reserve(whose.size());
    for (const std::string& who : whose)
        names.push_back(nameOf(who));
    return names;
}

std::optional<PlayerAt> Declared::playerIndex(const std::string& name) const {
    const auto at = std::ranges::find(players, name, &Player::name);
    if (at == players.end())
        return std::nullopt;
    return PlayerAt(static_cast<std::size_t>(at - players.begin()));
}

std::string Declared::playerNames() const {
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

namespace {

// "Own 7", "my driver", "7 iron (mine)"
bool isCalledOwn(const std::string& name) {
    std::string word;
    for (const char c : lowerCase(name) + " ")
        if ((c >= 'a' && c <= 'z') || static_cast<unsigned char>(c) >= 0x80)
            word += c;
        else if (const std::string whole = std::exchange(word, {}); whole == "own" || whole == "mine" || whole == "my")
            return true;
    return false;
}

} // namespace

BuildAt Test::baselineIndex() const {
    if (const auto said = buildIndex(card.baseline))
        return *said;
    if (!turns.empty())
        return BuildAt();
    const auto own = std::ranges::find_if(builds, isCalledOwn, &Build::name);
    if (own != builds.end())
        return BuildAt(static_cast<std::size_t>(own - builds.begin()));
    const auto first = std::ranges::find(shots, ShotStatus::counted, &Shot::status);
    return first == shots.end() ? BuildAt() : first->build;
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

namespace {

void nameEach(std::vector<Build>& builds, const std::string& first) {
    std::set<std::string> taken;
    for (Build& build : builds) {
        if (!build.id.empty() && taken.insert(build.id).second)
            continue;
        std::string text = first + '\n' + build.name;
        while (!taken.insert(build.id = idMadeOf(text)).second)
            text += '\n';
    }
}

} // namespace

void Test::nameClubs() {
    nameEach(sealedBuilds, firstOf(*this));
    if (!seal.isClosed()) {         // a tag is no club
        for (Build& build : builds) // that was sealed, and stands there with its id
            if (const auto at = std::ranges::find(sealedBuilds, build.name, &Build::name);
                build.id.empty() && at != sealedBuilds.end())
                build.id = at->id;
        nameEach(builds, firstOf(*this));
    }
    nameByIds(*this);
}

void nameByIds(Test& test) {
    forEachClubNamed(test, [&](std::string& who) {
        const Build* build = test.buildCalled(who);
        if (build != nullptr && build->tag != who && !build->id.empty())
            who = build->id;
    });
}

Test withNames(Test test) {
    const Declared named = test;
    forEachClubNamed(test, [&](std::string& who) {
        if (const Build* build = named.buildCalled(who); build != nullptr && build->tag != who)
            who = build->name;
    });
    return test;
}

std::vector<Metric> Test::metricsRead() const {
    std::vector<Metric> read;
    for (const Metric metric : judgedMetrics())
        if (std::ranges::any_of(shots, [&](const Shot& struck) { return struck.readings.has(metric); }))
            read.push_back(metric);
    return read;
}

} // namespace knot::record
