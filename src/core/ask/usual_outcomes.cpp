#include "core/ask/usual_outcomes.h"

#include "core/record/control.h"
#include "core/record/text/names.h"
#include "core/record/text/table.h"

#include <algorithm>
#include <string_view>

namespace knot::embedded {
extern const std::string_view askedTable; // data/asked.csv
}

namespace knot::ask {

using record::Card;

std::vector<std::pair<record::Outcome, record::Want>> usualOutcomes(record::TestKind kind) {
    std::vector<std::pair<record::Outcome, record::Want>> usual;
    for (const auto& row : record::tableRows(embedded::askedTable, 4)) {
        const auto outcome = record::outcomeFromText(row[1]);
        if (row[0] != nameOf(record::kindNames, kind) || !outcome)
            continue;
        record::Want want;
        for (std::size_t i = 0; i < record::wantNames.size(); ++i)
            if (row[2] == record::wantNames[i])
                want.kind = static_cast<record::Want::Kind>(i);
        if (want.kind == record::Want::Kind::near)
            want.value = record::tableNumber(row[3]);
        usual.emplace_back(*outcome, want);
    }
    return usual;
}

namespace {

bool isAsUsual(const Card& card) {
    const auto usual = usualOutcomes(card.kind);
    return card.primary.size() == usual.size() &&
           std::ranges::all_of(usual, [&, i = std::size_t{0}](const auto& one) mutable {
               return card.primary[i++] == one.first && card.want(one.first) == one.second;
           });
}

} // namespace

void setKind(Card& card, record::TestKind kind) {
    const bool isToFollow = card.primary.empty() || isAsUsual(card);
    card.kind = kind;
    card.held = record::heldAsUsual(kind);
    if (!isToFollow)
        return;
    card.primary.clear();
    for (const auto& [outcome, want] : usualOutcomes(kind)) {
        card.primary.push_back(outcome);
        card.wants[outcome] = want;
    }
}

} // namespace knot::ask
