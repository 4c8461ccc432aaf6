#include "core/judge/influence.h"

#include "core/judge/average.h"
#include "core/judge/verdict.h"

#include <algorithm>

namespace knot::judge {
namespace {

Column without(Column column, BuildAt build, std::size_t turn, std::size_t place) {
    auto& turns = column.builds[build].turns;
    auto& values = turns[turn].values;
    values.erase(values.begin() + static_cast<std::ptrdiff_t>(place));
    turns[turn].shots.erase(turns[turn].shots.begin() + static_cast<std::ptrdiff_t>(place));
    if (values.empty())
        turns.erase(turns.begin() + static_cast<std::ptrdiff_t>(turn));
    return column;
}

// A row of the reading, the shot, and what the verdict is without it.
struct Found {
    std::size_t row = 0;
    record::ShotAt shot;
    Verdict without = Verdict::open;
};

// The declared rows with their raw p's, and what each shot's removal does to them.
class Removal {
public:
    Removal(const Reading& reading)
        : m_reading(reading) {
        for (std::size_t i = 0; i < reading.average.size(); ++i)
            if (reading.average[i].claim.role == Role::primary) {
                m_rows.push_back(i);
                m_claims.push_back(reading.average[i].claim);
            }
        auto declaredElsewhere = [this](const auto& rows) {
            for (const auto& row : rows)
                if (row.claim.role == Role::primary)
                    m_others.push_back(row.claim);
        };
        declaredElsewhere(reading.consistency);
        declaredElsewhere(reading.areas);
        for (const ShareGap& row : reading.shareGaps)
            if (row.gap.claim.role == Role::primary)
                m_others.push_back(row.gap.claim);
    }

    void leaveOut(const Column& column, BuildAt build, std::size_t turn, std::size_t place,
                  std::vector<Found>& found) const {
        auto claims = m_claims;
        const Column rest = without(column, build, turn, place);
        for (std::size_t i = 0; i < m_rows.size(); ++i) {
            const AverageGap& row = m_reading.average[m_rows[i]];
            if (row.metric != column.metric || (row.build != build && row.against != build))
                continue;
            const auto gap = averageGap(rest, row.build, row.against, row.margin);
            claims[i] = gap ? gap->claim : Claim{.cap = Cap::tooFewShots};
            claims[i].role = Role::primary;
        }
        auto others = m_others; // of the same family, and as they are
        std::vector<Claim*> family;
        family.reserve(claims.size() + others.size());
        for (Claim& claim : claims)
            family.push_back(&claim);
        for (Claim& claim : others)
            family.push_back(&claim);
        adjustFamilies(family, {}, m_reading.declared);
        for (std::size_t i = 0; i < m_rows.size(); ++i) {
            const AverageGap& row = m_reading.average[m_rows[i]];
            if (row.metric != column.metric || (row.build != build && row.against != build))
                continue;
            decide(claims[i], m_reading.level);
            if (claims[i].verdict != row.claim.verdict)
                found.push_back({m_rows[i], column.builds[build].turns[turn].shots[place], claims[i].verdict});
        }
    }

private:
    const Reading& m_reading;
    std::vector<std::size_t> m_rows;
    std::vector<Claim> m_claims, m_others;
};

} // namespace

void addInfluence(const Case& subject, const std::vector<Column>& columns, Reading& reading) {
    std::vector<Found> found;
    const Removal removal(reading);
    for (const Column& column : columns) {
        const bool declared = std::ranges::any_of(reading.average, [&](const AverageGap& row) {
            return row.metric == column.metric && row.claim.role == Role::primary;
        });
        for (BuildAt b; declared && b < column.builds.size(); ++b)
            for (std::size_t t = 0; t < column.builds[b].turns.size(); ++t)
                for (std::size_t i = 0; i < column.builds[b].turns[t].values.size(); ++i)
                    removal.leaveOut(column, b, t, i, found);
    }
    for (const Found& one : found)
        reading.average[one.row].influence.push_back(
            {subject.test().shots[one.shot].id, subject.numberOf(one.shot), one.without});
}

} // namespace knot::judge
