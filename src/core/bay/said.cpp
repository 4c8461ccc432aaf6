#include "core/bay/said.h"

#include <algorithm>

namespace knot::bay {

using record::Shot;
using record::ShotStatus;
using record::Test;

std::optional<Stint> lastStint(const Test& test) {
    const auto last = std::find_if(test.shots.rbegin(), test.shots.rend(),
                                   [](const Shot& shot) { return shot.status != ShotStatus::warmUp; });
    return last == test.shots.rend() ? std::nullopt : std::optional(Stint{last->turn, last->build});
}

std::optional<Stint> stintInQuestion(const Test& test) {
    const Tally tally(test);
    const Stand stand = standOf(test, tally);
    const auto* striking = stand.as<Striking>();
    if (striking != nullptr && striking->confirmed && !tally.hasStint(turnLabel(test, striking->stint.turn)))
        return Stint{turnLabel(test, striking->stint.turn), striking->stint.build};
    const auto* free = stand.as<Free>();
    if (free != nullptr && free->build && !free->warmingUp && free->shot == 1)
        return Stint{tally.nextLabel(), *free->build};
    return lastStint(test);
}

std::optional<Stint> stintToCome(const Test& test) {
    const Stand stand = standOf(test);
    if (const auto* stint = stand.stint())
        return Stint{turnLabel(test, stint->turn), stint->build};
    return stintInQuestion(test);
}

std::optional<Stint> stintBefore(const Test& test, const Stint& stint) {
    auto isOf = [&](const Shot& shot) { return shot.turn == stint.turn && shot.build == stint.build; };
    const auto own = std::ranges::find_if(test.shots, isOf);
    const std::string player = own != test.shots.end() ? own->player : playerInHand(test);
    for (auto shot = std::make_reverse_iterator(own); shot != test.shots.rend(); ++shot)
        if (shot->status != ShotStatus::warmUp && shot->turn != stint.turn &&
            (player.empty() || shot->player == player))
            return Stint{shot->turn, shot->build};
    return std::nullopt;
}

record::Feel feelOf(const Test& test, const Stint& stint) {
    for (const auto& feel : test.feels)
        if (feel.turn == stint.turn && feel.build == stint.build)
            return feel;
    return {.turn = stint.turn, .build = stint.build, .words = {}};
}

void setFeel(Test& test, const record::Feel& feel) {
    std::erase_if(test.feels, [&](const auto& kept) { return kept.turn == feel.turn && kept.build == feel.build; });
    if (!feel.isEmpty())
        test.feels.push_back(feel);
}

bool compareToLast(Test& test, const Stint& stint, record::Versus versus) {
    const auto before = stintBefore(test, stint);
    if (!before)
        return false;
    auto feel = feelOf(test, stint);
    feel.versus = feel.versus == versus ? record::Versus::notSaid : versus;
    feel.against = feel.versus == record::Versus::notSaid ? std::string() : before->turn;
    setFeel(test, feel);
    return true;
}

void setGuess(Test& test, const record::Guess& guess) {
    std::erase_if(test.guesses, [&](const auto& kept) { return kept.turn == guess.turn && kept.build == guess.build; });
    if (!guess.said.empty())
        test.guesses.push_back(guess);
}

std::string guessOf(const Test& test, const Stint& stint) {
    for (const auto& guess : test.guesses)
        if (guess.turn == stint.turn && guess.build == stint.build)
            return guess.said;
    return {};
}

} // namespace knot::bay
