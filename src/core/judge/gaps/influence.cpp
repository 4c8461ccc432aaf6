#include "core/judge/gaps/influence.h"

#include "core/judge/gaps/average.h"
#include "core/judge/gaps/declared_gaps.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/spreads/consistency.h"
#include "core/judge/spreads/dispersion.h"

#include <algorithm>
#include <functional>
#include <map>
#include <memory>

namespace knot::judge {
namespace {

using record::ShotAt;

// The column without one shot, if it has it.
std::optional<Column> without(const Column& column, BuildAt build, ShotAt shot) {
    const auto& turns = column.builds[build].turns;
    for (std::size_t t = 0; t < turns.size(); ++t)
        if (const auto at = std::ranges::find(turns[t].shots, shot); at != turns[t].shots.end()) {
            Column rest = column;
            auto& own = rest.builds[build].turns;
            const auto place = at - turns[t].shots.begin();
            own[t].values.erase(own[t].values.begin() + place);
            own[t].shots.erase(own[t].shots.begin() + place);
            if (own[t].values.empty())
                own.erase(own.begin() + static_cast<std::ptrdiff_t>(t));
            return rest;
        }
    return std::nullopt;
}

std::optional<Landings> without(const Landings& landings, BuildAt build, ShotAt shot) {
    const auto& turns = landings.builds[build];
    for (std::size_t t = 0; t < turns.size(); ++t)
        if (const auto at = std::ranges::find(turns[t].points, shot, &LandingPoint::shot);
            at != turns[t].points.end()) {
            Landings rest = landings;
            auto& own = rest.builds[build];
            own[t].points.erase(own[t].points.begin() + (at - turns[t].points.begin()));
            if (own[t].points.empty())
                own.erase(own.begin() + static_cast<std::ptrdiff_t>(t));
            return rest;
        }
    return std::nullopt;
}

template<typename Row> Claim claimOr(const std::optional<Row>& row) {
    return row ? row->claim : Claim{.cap = Cap::tooFewShots};
}

// A declared row, and its claim without a shot of one of its two builds; nothing where it never had that shot.
struct Declared {
    Claim* claim = nullptr;
    BuildAt build, against;
    std::function<std::optional<Claim>(BuildAt, ShotAt)> without;
};

// The declared rows of a reading and what each shot's removal does to them.
class Removal {
public:
    Removal(const Case& subject, const std::vector<Column>& columns, Reading& reading)
        : m_subject(subject)
        , m_reading(reading) {
        for (AverageGap& row : reading.average)
            if (const Column* column = columnOf(columns, row.metric))
                add(row, row.claim, *column, [this, &row](const Column& rest) { return claimOr(gapLike(row, rest)); });
        for (SpreadRatio& row : reading.consistency)
            if (const Column* column = columnOf(columns, row.metric))
                add(row, row.claim, *column, [this, &row](const Column& rest) {
                    return claimOr(spreadRatio(rest, row.build, row.against, m_reading.card.sdRatioMargin));
                });
        for (AreaRatio& row : reading.areas)
            add(row, row.claim, landings(), [this, &row](const Landings& rest) {
                return claimOr(areaRatio(rest, row.build, row.against, m_reading.card.areaRatioMargin, std::nullopt));
            });
        for (ShareGap& row : reading.shareGaps)
            add(row.gap, row.gap.claim, hits(row.shape), [&row](const Column& rest) {
                return claimOr(averageGap(rest, row.gap.build, row.gap.against, shareMargin));
            });
    }

    bool hasRows() const { return !m_rows.empty(); }

    void leaveOut(BuildAt build, ShotAt shot) {
        std::vector<Claim> claims;
        std::vector<std::size_t> touched;
        for (std::size_t i = 0; i < m_rows.size(); ++i) {
            const Declared& row = m_rows[i];
            std::optional<Claim> other;
            if (row.build == build || row.against == build)
                other = row.without(build, shot);
            if (other)
                touched.push_back(i);
            claims.push_back(other ? *other : bare(*row.claim));
        }
        if (touched.empty())
            return;
        std::vector<Claim*> family;
        family.reserve(claims.size());
        for (Claim& claim : claims)
            family.push_back(&claim);
        adjustFamilies(family, {}, m_reading.declared, m_reading.allPairsOf);
        for (const std::size_t i : touched) {
            settle(claims[i], m_subject.held(), m_rows[i].claim->level);
            if (claims[i].verdict != m_rows[i].claim->verdict)
                m_rows[i].claim->influence.push_back(
                    {m_subject.test().shots[shot].id, m_subject.numberOf(shot), claims[i].verdict});
        }
    }

private:
    template<typename Row, typename From, typename Judged>
    void add(const Row& row, Claim& claim, const From& from, Judged judged) {
        if (claim.role != Role::primary)
            return;
        m_rows.push_back(
            {&claim, row.build, row.against, [&from, judged](BuildAt build, ShotAt shot) -> std::optional<Claim> {
                 const auto rest = judge::without(from, build, shot);
                 return rest ? std::optional(judged(*rest)) : std::nullopt;
             }});
    }

    static const Column* columnOf(const std::vector<Column>& columns, Metric metric) {
        const auto at = std::ranges::find(columns, metric, &Column::metric);
        return at == columns.end() ? nullptr : &*at;
    }

    // A claim as it stands, without what it had gathered so far.
    static Claim bare(const Claim& claim) {
        return {
            .role = claim.role, .p = claim.p, .pWorthwhile = claim.pWorthwhile, .pSame = claim.pSame, .cap = claim.cap};
    }

    std::optional<AverageGap> gapLike(const AverageGap& row, const Column& rest) const {
        const record::Card& card = m_reading.card;
        if (row.kind == record::OutcomeKind::equal)
            return gapAtEqualDelivery(m_subject.test(), rest, row.build, row.against, card.covariates, row.margin);
        if (row.kind == record::OutcomeKind::typical)
            return gapOfTypicalShot(rest, row.build, row.against, row.margin, {});
        return averageGap(rest, row.build, row.against, row.margin);
    }

    const Landings& landings() {
        if (!m_landings)
            m_landings =
                std::make_unique<Landings>(landingsOf(m_subject.test(), m_subject.structure(), m_subject.taken()));
        return *m_landings;
    }

    const Column& hits(const std::string& shape) {
        auto& column = m_hits[shape];
        if (!column)
            column = std::make_unique<Column>(
                hitsOf(m_subject.test(), m_subject.structure(),
                       *std::ranges::find(m_reading.card.shapes, shape, &record::Shape::name), m_subject.taken()));
        return *column;
    }

    const Case& m_subject;
    Reading& m_reading;
    std::unique_ptr<Landings> m_landings;
    std::map<std::string, std::unique_ptr<Column>> m_hits;
    std::vector<Declared> m_rows;
};

} // namespace

void addInfluence(const Case& subject, const std::vector<Column>& columns, Reading& reading) {
    Removal removal(subject, columns, reading);
    if (!removal.hasRows())
        return;
    for (ShotAt shot; shot < subject.test().shots.size(); ++shot)
        if (isTaken(subject.test().shots[shot], subject.taken()))
            removal.leaveOut(subject.test().shots[shot].build, shot);
}

} // namespace knot::judge
