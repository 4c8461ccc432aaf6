#pragma once

#include "core/bay/stand.h"

/// What is said in the bay of a stint: how the club felt, which one it was taken for.
namespace knot::bay {

/// The stint struck last, as the label and club that feels and guesses carry. Nothing before the first shot.
struct Stint {
    std::string turn;
    BuildAt build;
    bool operator==(const Stint&) const = default;
};
std::optional<Stint> lastStint(const record::Test& test);
/// The stint that is talked about now: of the club that was taken up and not struck yet, else the last one.
std::optional<Stint> stintInQuestion(const record::Test& test);
/// The stint that comes next or is being struck: what is expected before it is said of it. Nothing where no club is in
/// hand.
std::optional<Stint> stintToCome(const record::Test& test);
/// The stint struck before one of those, with the same player where there are several.
std::optional<Stint> stintBefore(const record::Test& test, const Stint& stint);

/// What was said of a stint so far; empty where nothing was.
record::Feel feelOf(const record::Test& test, const Stint& stint);
/// Keeps a feel for its stint; an empty one is taken away.
void setFeel(record::Test& test, const record::Feel& feel);
/// Says of a stint's club that it is better or worse than the one before, or that nobody can tell; the same
/// once more takes it back. False where there is no club before.
bool compareToLast(record::Test& test, const Stint& stint, record::Versus versus);
/// Keeps a guess for its stint (`turn` empty: for the club over the whole test); an empty one goes.
void setGuess(record::Test& test, const record::Guess& guess);
std::string guessOf(const record::Test& test, const Stint& stint);

} // namespace knot::bay
