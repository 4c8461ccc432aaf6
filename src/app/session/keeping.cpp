#include "app/session/keeping.h"

#include "app/session/book.h"
#include "app/session/test_in_hand.h"

#include <QDir>

namespace knot::app {

bool keepByItself(TestInHand& hand, Book& book) {
    if (!hand.has() || hand.isKept())
        return hand.isKept();
    const bool opens = !book.isOpen();
    if (opens && !book.openOrMake(ownLogbookPath()))
        return false;
    record::Test& test = hand.edit();
    test.nameShots();
    const auto id = book.save(test);
    if (!id)
        return false;
    test.id = *id;
    test.nameClubs(); // as the book did
    takeKeptPlayers(test, book);
    if (opens)
        emit book.noted(Book::tr("Saved in %1.").arg(QDir::toNativeSeparators(book.path())));
    return true;
}

void takeKeptPlayers(record::Test& test, Book& book) {
    auto players = book.playersOf(test.id);
    if (players.size() != test.players.size())
        return;
    for (record::Shot& shot : test.shots)
        if (const auto at = shot.player.empty() ? std::nullopt : test.playerIndex(shot.player))
            shot.player = players[*at].name;
    test.players = std::move(players);
}

} // namespace knot::app
