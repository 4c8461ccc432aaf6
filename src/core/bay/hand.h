#pragma once

#include "core/bay/stand.h"
#include "core/bay/status.h"

/// Who hits, with what, at what: what changes hands in the bay.
namespace knot::bay {

/// Takes up another club where nothing is planned.
void takeInHand(record::Test& test, BuildAt build);
/// The same with a club of this name, which is put on the rack where it is not there; "Club 2" and so on where it has
/// none. A club in hand that has only a number so far, and no shot that counts, is the one that is named.
void takeNewInHand(record::Test& test, const std::string& name);
/// A name that no club of the test has: "Club 1".
std::string freeClubName(const record::Declared& test);
/// The club in hand with another shaft, head or grip of this name, which is put on the rack where that has no
/// such club; what they have in common is the same part. "Shaft 2" and so on where it has no name.
void takeOtherPart(record::Test& test, record::PartKind kind, const std::string& name);

/// Who hits now; the first one where nobody was said, nobody at all where the test has no players.
record::Player hitterOf(const record::Test& test);
/// Says who hits, and has hit so far: names the one player of a test, or puts another name to them. Nobody's shots
/// become a warm-up by that. Returns the first shot that names somebody else now.
From nameHitter(record::Test& test, const record::Player& player);
/// Hands over to a player; who has swung in this sitting is warm.
void handTo(record::Test& test, record::PlayerAt player);
/// Another player hits from now on. Where stints are planned, theirs come first of those that are not begun;
/// one that is begun is struck to its end. Their warm-up is due where they have not swung in this sitting.
void takePlayer(record::Test& test, record::PlayerAt player);
/// The same with a player whom the test may not have; a name that it has is that player. Shots that named
/// nobody become the first one's, who is `before` where nobody was named yet. In a planned test the new one has
/// the same laps, their order turned by one club. Returns the first shot that names somebody else now.
From takeNewPlayer(record::Test& test, const record::Player& player,
                   const record::Player& before = {.id = {}, .name = "Player 1"});

/// What is asked of the player from now on: a delivery or a shot; empty: nothing.
void askDelivery(record::Test& test, const std::string& delivery);
/// The deliveries that were asked for, in the order in which they came.
std::vector<std::string> deliveriesOf(const record::Test& test);

/// The day is another from the next shot on, with conditions of its own; taken back where it was said already
/// and nothing was struck since.
void changeDay(record::Test& test, const std::string& at);

} // namespace knot::bay
