#include "core/rack/club_kind.h"

#include "core/rack/club_name.h"
#include "core/rack/figures.h"
#include "core/record/text/table.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>
#include <utility>

namespace knot::embedded {
extern const std::string_view clubTable; // data/clubs.csv
} // namespace knot::embedded

namespace knot::rack {
namespace {

using flight::HeadKind;
using record::BuildAt;
using record::Metric;

// A row of data/clubs.csv: how a club lies for a player who swings a driver at `referenceSpeed`.
struct UsualClub {
    ClubKind kind;
    double loft = 0, share = 1, smash = 1.4, launch = 0, spin = 0, descent = 0, carry = 0, often = 1;
};
constexpr double referenceSpeed = 45; // m/s

const std::vector<UsualClub>& usualClubs() {
    static const auto all = [] {
        std::vector<UsualClub> rows;
        for (const auto& cells : record::tableRows(embedded::clubTable, 10)) {
            auto number = [&](std::size_t at) { return record::tableNumber(cells[at]); };
            rows.push_back({.kind = {.head = cells[0] == "driver"  ? HeadKind::driver
                                             : cells[0] == "iron"  ? HeadKind::iron
                                             : cells[0] == "wedge" ? HeadKind::wedge
                                                                   : HeadKind::wood,
                                     .isHybrid = cells[0] == "hybrid",
                                     .number = static_cast<int>(number(1))},
                            .loft = number(2),
                            .share = number(3),
                            .smash = number(4),
                            .launch = number(5),
                            .spin = number(6),
                            .descent = number(7),
                            .carry = number(8),
                            .often = number(9)});
        }
        return rows;
    }();
    return all;
}

// How likely each row is, as logarithms that are known up to a constant.
using Likely = std::vector<double>;

Likely nothingKnown() {
    return Likely(usualClubs().size(), 0);
}

void add(Likely& to, const Likely& more) {
    for (std::size_t i = 0; i < to.size(); ++i)
        to[i] += more[i];
}

constexpr double certain = 8, strong = 6, weak = 2; // how much less likely all others are, as logarithms

Likely ofKind(const ClubKind& kind, double surely) {
    Likely likely = nothingKnown();
    const auto& rows = usualClubs();
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const ClubKind& own = rows[i].kind;
        const bool isKind = own.head == kind.head && (own.isHybrid == kind.isHybrid || kind.head != HeadKind::wood);
        const double apart =
            kind.number == 0 ? 0 : std::fabs(own.number - kind.number) / (kind.head == HeadKind::wedge ? 5 : 1);
        likely[i] = isKind ? -std::min(surely, 2 * apart) : -surely;
    }
    return likely;
}

Likely ofLoft(double loft, double surely) {
    Likely likely = nothingKnown();
    const auto& rows = usualClubs();
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const double off = (loft - rows[i].loft) / (rows[i].kind.head == HeadKind::driver ? 1.6 : 2.2);
        likely[i] = -std::min(surely, off * off / 2);
    }
    return likely;
}

// What a name says, alone.
Likely ofName(std::string_view name) {
    const auto pieces = piecesOf(name);
    if (const auto said = kindSaid(pieces))
        return ofKind(*said, strong);
    if (const auto loft = loftIn(pieces))
        return ofLoft(*loft, strong);
    const auto number = std::ranges::find_if(pieces, isClubNumber);
    if (number != pieces.end() && !isCounted(pieces)) // irons are called by their number alone, behind a make or not
        return ofKind({.head = HeadKind::iron, .number = static_cast<int>(*number->number)}, weak);
    if (pieces.size() == 1 && pieces[0].number && pieces[0].isWhole && *pieces[0].number >= 44 &&
        *pieces[0].number <= 64)
        return ofLoft(*pieces[0].number, weak);
    return nothingKnown();
}

bool says(const Likely& likely) {
    return std::ranges::any_of(likely, [&](double one) { return one != likely.front(); });
}

Likely ofParts(const record::Part& head, const std::string& name) {
    if (!head.volume && !head.loft)
        return nothingKnown();
    ClubKind kind{.head = headKind(head)};
    constexpr double largestHybrid = 135; // cm³
    kind.isHybrid = kind.head == HeadKind::wood && head.volume && *head.volume < largestHybrid;
    Likely likely = ofKind(kind, certain);
    if (head.loft)
        add(likely, ofLoft(*head.loft, strong));
    if (const auto said = kindSaid(piecesOf(name)); said && said->head == kind.head)
        add(likely, ofKind(*said, strong));
    return likely;
}

// What was read of one club, by one player.
struct Seen {
    std::map<Metric, std::vector<double>> values;
    bool isStruck = false;
    std::size_t looked = 0;
    void add(const record::Shot& shot) {
        constexpr std::size_t mostLooked = 500; // a club is known long before
        isStruck = true;
        if (++looked > mostLooked)
            return;
        for (const Metric metric :
             {Metric::ballSpeed, Metric::clubSpeed, Metric::launch, Metric::spin, Metric::descent, Metric::carry})
            if (const auto value = shot.readings.at(metric))
                values[metric].push_back(*value);
    }
    /// The middle one, which no mishit moves far.
    std::optional<double> middle(Metric metric) const {
        const auto at = values.find(metric);
        if (at == values.end())
            return std::nullopt;
        std::vector<double> sorted = at->second;
        const auto half = sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2);
        std::ranges::nth_element(sorted, half);
        return *half;
    }
    /// How far or how fast alone tells no club: it takes how high, with how much spin, or how steeply.
    bool tells() const {
        return values.contains(Metric::launch) || values.contains(Metric::spin) || values.contains(Metric::descent);
    }
    std::size_t shots() const {
        std::size_t most = 0;
        for (const auto& [metric, all] : values)
            most = std::max(most, all.size());
        return most;
    }
};

double off(double seen, double usual, double sd) {
    return -(seen - usual) * (seen - usual) / (2 * sd * sd);
}

// Shots outweigh a figure in a name, and no word for a kind: a badly hit driver is one.
Likely belowWords(Likely shots) {
    constexpr double most = 5.5;
    const double best = *std::ranges::max_element(shots);
    for (double& one : shots)
        one = std::max(one, best - most);
    return shots;
}

// What was read, for each row, over all speeds a player may have.
Likely ofShots(const Seen& seen, const record::Player& player) {
    Likely likely = nothingKnown();
    if (!seen.tells())
        return likely;
    const auto& rows = usualClubs();
    const bool isKnown = player.clubSpeed || player.ironSpeed;
    const double middle = player.clubSpeed ? *player.clubSpeed : player.ironSpeed ? *player.ironSpeed / 0.82 : 42;
    const double sd = isKnown ? 2.5 : 6;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const UsualClub& row = rows[i];
        double best = -1e9;
        double sum = 0;
        for (double speed = 24; speed <= 60; speed += 1.5) {
            const double share = speed / referenceSpeed;
            const double clubSpeed = speed * row.share;
            double one = off(speed, middle, sd);
            if (const auto value = seen.middle(Metric::clubSpeed))
                one += off(*value / clubSpeed, 1, 0.04);
            if (const auto value = seen.middle(Metric::ballSpeed)) {
                const auto club = seen.middle(Metric::clubSpeed);
                one += off(*value / (club.value_or(clubSpeed) * row.smash), 1, club ? 0.03 : 0.05);
            }
            // The slower, the higher, and the less spin.
            if (const auto value = seen.middle(Metric::launch))
                one += off(*value, row.launch + 0.1 * (referenceSpeed - speed), 2 + 0.05 * row.launch);
            if (const auto value = seen.middle(Metric::spin))
                one += off(std::log(std::max(1.0, *value)), std::log(row.spin) + 0.85 * std::log(share), 0.15);
            if (const auto value = seen.middle(Metric::descent))
                one += off(*value, row.descent - 0.35 * (referenceSpeed - speed), 4);
            if (const auto value = seen.middle(Metric::carry))
                one += off(std::log(std::max(1.0, *value)), std::log(row.carry) + 1.25 * std::log(share), 0.07);
            best = std::max(best, one);
            sum += std::exp(one);
        }
        likely[i] = sum > 0 ? std::log(sum) : best;
    }
    return likely;
}

KindTold told(Likely likely, ToldBy by) {
    const auto& rows = usualClubs();
    for (std::size_t i = 0; i < rows.size(); ++i)
        likely[i] += std::log(rows[i].often);
    const double most = *std::ranges::max_element(likely);
    double whole = 0;
    std::map<std::pair<HeadKind, bool>, double> kinds;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const double chance = std::exp(likely[i] - most);
        whole += chance;
        kinds[{rows[i].kind.head, rows[i].kind.isHybrid}] += chance;
    }
    const auto best = std::ranges::max_element(kinds, {}, [](const auto& one) { return one.second; });
    KindTold result{.kind = {}, .by = by, .chance = best->second / whole};
    double highest = -1e300;
    for (std::size_t i = 0; i < rows.size(); ++i)
        if (std::pair(rows[i].kind.head, rows[i].kind.isHybrid) == best->first && likely[i] > highest) {
            highest = likely[i];
            result.kind = rows[i].kind;
        }
    return result;
}

// What is said of a test beside its clubs' names: in its title, its question, a column that never changes.
Likely aroundClubs(const record::Test& test) {
    Likely likely = nothingKnown();
    for (const std::string& text : {test.title, test.question})
        if (const auto said = kindSaid(piecesOf(text)))
            add(likely, ofKind(*said, strong / 2));
    for (std::size_t column = 0; column < test.extraColumns.size(); ++column) {
        std::string entry;
        bool isOne = !test.shots.empty();
        for (const record::Shot& shot : test.shots) {
            const std::string cell = column < shot.extra.size() ? shot.extra[column] : std::string();
            isOne = isOne && (entry.empty() || cell == entry);
            entry = cell;
        }
        if (const auto said = isOne ? kindSaid(piecesOf(entry)) : std::nullopt)
            add(likely, ofKind(*said, strong / 2));
    }
    return likely;
}

constexpr double farApart = 0.12; // ball speeds: more than two neighbouring clubs
constexpr double higher = 6;      // launch, degrees

// Clubs that lie so close together that they may be of one kind.
bool lieClose(const std::vector<Seen>& clubs) {
    for (const auto& [metric, most] :
         {std::pair(Metric::ballSpeed, farApart), std::pair(Metric::carry, 2 * farApart)}) {
        double low = 1e9;
        double high = 0;
        for (const Seen& seen : clubs)
            if (const auto value = seen.middle(metric)) {
                low = std::min(low, *value);
                high = std::max(high, *value);
            }
        if (high > low * (1 + most))
            return false;
    }
    double low = 1e9;
    double high = -1e9;
    for (const Seen& seen : clubs)
        if (const auto value = seen.middle(Metric::launch)) {
            low = std::min(low, *value);
            high = std::max(high, *value);
        }
    return high - low <= higher;
}

} // namespace

ClubKinds::ClubKinds(const record::Test& test) {
    const bool isSealed = !test.sealedBuilds.empty();
    const auto& clubs = isSealed ? test.sealedBuilds : test.builds;
    // Of each player apart, since one kind of club is not one speed.
    std::map<std::string, std::vector<Seen>> byPlayer;
    std::vector<Seen> pooled(test.builds.size());
    for (const record::Shot& shot : test.shots)
        if (shot.status == record::ShotStatus::counted && shot.build < test.builds.size()) {
            auto& own = byPlayer[shot.player];
            own.resize(test.builds.size());
            own[shot.build].add(shot);
            pooled[shot.build].add(shot);
        }
    auto shotsOf = [&](BuildAt club) {
        Likely likely = nothingKnown();
        for (const auto& [name, seen] : byPlayer) {
            const auto at = test.playerIndex(name);
            add(likely, ofShots(seen[club], at ? test.players[*at] : test.firstPlayer()));
        }
        return likely;
    };
    const auto said = kindFromText(test.card.clubKind);
    const Likely around = aroundClubs(test);
    const bool counts = areCounted(clubs);
    std::vector<Likely> names;
    Likely together = around;
    bool isNamed = says(around);
    bool isMade = false;
    for (const record::Build& club : clubs) {
        Likely own = ofParts(club.club.head, club.name);
        const bool made = says(own);
        if (!made)
            own = ofName(club.club.head.name);
        if (!says(own) && !counts)
            own = ofName(club.name);
        isMade = isMade || made;
        isNamed = isNamed || says(own);
        add(together, own);
        names.push_back(std::move(own));
    }
    // Whether the names by themselves tell clubs of several kinds.
    std::vector<ClubKind> kinds;
    std::set<double> lofts;
    const bool isAnyStruck = std::ranges::any_of(pooled, &Seen::isStruck);
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (isAnyStruck && !isSealed && !pooled[i].isStruck) // it stays on the rack
            continue;
        if (says(names[i]) && *std::ranges::min_element(names[i]) <= -strong)
            kinds.push_back(told(names[i], ToldBy::name).kind);
        if (const auto loft = figuresOf(clubs[i].club).loft)
            lofts.insert(*loft);
    }
    const bool differ = std::ranges::any_of(kinds, [&](const ClubKind& kind) {
        return kind.head != kinds.front().head || kind.isHybrid != kinds.front().isHybrid ||
               std::abs(kind.number - kinds.front().number) > (kind.head == HeadKind::wedge ? 4 : 0);
    });
    constexpr double oneNumber = 4.5; // degrees
    bool alike = !differ && (isSealed || lieClose(pooled));
    for (const auto& [name, seen] : byPlayer)
        alike = alike && (isSealed || byPlayer.size() == 1 || lieClose(seen));
    // Shots alone part clubs only where each of two tells its kind surely, and they lie far apart.
    std::set<HeadKind> surely;
    constexpr std::size_t fewest = 3;
    constexpr double sure = 0.9;
    for (BuildAt club; !alike && club < test.builds.size(); ++club)
        if (pooled[club].tells() && pooled[club].shots() >= fewest)
            if (const KindTold one = told(shotsOf(club), ToldBy::shots); one.chance > sure)
                surely.insert(one.kind.head);
    m_areOne =
        !differ && (alike || surely.size() < 2) && (lofts.empty() || *lofts.rbegin() - *lofts.begin() <= oneNumber);
    if (clubs.empty())
        alike = false;
    if (said && alike) {
        m_all = KindTold{*said, ToldBy::person, 1};
    } else if (alike) {
        // Shots of clubs that are one kind tell no more than those of one club: the mean of what they tell.
        Likely shots = nothingKnown();
        for (BuildAt club; club < test.builds.size(); ++club)
            add(shots, shotsOf(club));
        const auto counted = std::ranges::count_if(pooled, [](const Seen& seen) { return seen.tells(); });
        for (double& one : shots)
            one /= static_cast<double>(std::max<std::ptrdiff_t>(1, counted));
        const bool isSeen = says(shots);
        add(together, belowWords(shots));
        if (isNamed || isSeen)
            m_all = told(together, isMade ? ToldBy::parts : isNamed ? ToldBy::name : ToldBy::shots);
    }
    for (BuildAt club; club < test.builds.size(); ++club) {
        if (m_all) {
            m_clubs.push_back(*m_all);
            continue;
        }
        Likely own = isSealed ? nothingKnown() : names[club];
        const bool byName = says(own);
        const Likely shots = shotsOf(club);
        add(own, belowWords(shots));
        m_clubs.push_back(byName || says(shots) ? told(own, byName ? ToldBy::name : ToldBy::shots) : KindTold{});
    }
}

HeadKind headKind(const record::Part& head, std::string_view club) {
    constexpr double driverVolume = 300; // cm³
    constexpr double woodVolume = 60;
    constexpr double wedgeLoft = 44;
    constexpr double ironLoft = 24;
    constexpr double woodLoft = 13;
    if (head.volume)
        return *head.volume > driverVolume ? HeadKind::driver
               : *head.volume > woodVolume ? HeadKind::wood
                                           : HeadKind::iron;
    if (head.loft)
        return *head.loft >= wedgeLoft ? HeadKind::wedge
               : *head.loft > ironLoft ? HeadKind::iron
               : *head.loft < woodLoft ? HeadKind::driver
                                       : HeadKind::wood;
    for (const std::string_view name : {std::string_view(head.name), club})
        if (const Likely own = ofName(name); says(own))
            return told(own, ToldBy::name).kind.head;
    return HeadKind::wood;
}

HeadKind headKind(const record::Build& build) {
    return headKind(build.club.head, build.name);
}

std::string_view kindName(HeadKind kind) {
    constexpr std::array<std::string_view, 4> names = {"driver", "wood", "iron", "wedge"};
    return names.at(static_cast<std::size_t>(kind));
}

flight::HeadKind ClubKinds::first() const {
    return m_all ? m_all->kind.head : m_clubs.empty() ? HeadKind::wood : m_clubs.front().kind.head;
}

std::string kindText(const ClubKind& kind) {
    const std::string name = kind.isHybrid ? "hybrid" : std::string(kindName(kind.head));
    const bool isNumbered = kind.number > 0 && kind.head != HeadKind::driver && kind.head != HeadKind::wedge;
    return isNumbered ? std::to_string(kind.number) + "-" + name : name;
}

std::optional<ClubKind> kindFromText(std::string_view typed) {
    const auto pieces = piecesOf(typed);
    if (const auto said = kindSaid(pieces))
        return said;
    if (const auto loft = loftIn(pieces))
        return told(ofLoft(*loft, strong), ToldBy::person).kind;
    if (pieces.size() == 1 && isClubNumber(pieces[0]))
        return ClubKind{.head = HeadKind::iron, .number = static_cast<int>(*pieces[0].number)};
    return std::nullopt;
}

} // namespace knot::rack
