#include "core/ask/outcomes.h"

#include "core/record/text/text.h"
#include "core/record/typed/shape_text.h"

#include <algorithm>
#include <utility>

namespace knot::ask {

using record::Card;
using record::lowerCase;
using record::Metric;
using record::Outcome;
using record::OutcomeKind;
using record::Want;

void setOutcome(Card& card, std::size_t at, const Outcome& outcome, const Want& want) {
    const auto twin = std::ranges::find(card.primary, outcome);
    if (twin == card.primary.end()) {
        if (at < card.primary.size())
            card.primary[at] = outcome;
        else if (card.primary.size() < mostOutcomes)
            card.primary.push_back(outcome);
    } else if (static_cast<std::size_t>(twin - card.primary.begin()) != at && at < card.primary.size()) {
        std::swap(card.primary[at], *twin); // it goes up or down in weight
    }
    card.wants[outcome] = want;
    // Equal delivery means something: what moves a shot most, until it is said otherwise.
    if (outcome.kind == OutcomeKind::equal && card.covariates.empty())
        card.covariates = {Metric::clubSpeed, Metric::strikeHigh, Metric::strikeToe};
}

std::string moveShape(Card& card, std::size_t at, record::Shape shape, const record::DisplayUnits& units) {
    if (at >= card.shapes.size())
        return {};
    shape.name = record::shapeText(shape, units);
    for (std::size_t i = 0; i < card.shapes.size(); ++i)
        if (i != at && card.shapes[i].name == shape.name)
            return "There is a " + shape.name + " already.";
    const std::string former = std::exchange(card.shapes[at], shape).name;
    auto named = [&](Outcome outcome) {
        if (outcome.shape == former)
            outcome.shape = shape.name;
        return outcome;
    };
    for (Outcome& outcome : card.primary)
        outcome = named(outcome);
    for (const auto& [outcome, want] : std::exchange(card.wants, {}))
        card.wants[named(outcome)] = want;
    return {};
}

Edit putPlayer(std::size_t at, const record::Player& player) {
    return [player, at](record::Declared& declared) {
        if (at < declared.players.size())
            declared.players[at] = player;
        else
            declared.players.push_back(player);
    };
}

} // namespace knot::ask
