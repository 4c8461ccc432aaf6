#pragma once

#include "core/record/test.h"

#include <QObject>
#include <QStringList>

namespace knot::app {

class BayActions;
class Book;

/// Who hits, with what, at what, and on what day: what changes hands in the bay.
class HandActions : public QObject {
    Q_OBJECT

public:
    HandActions(BayActions& actions, Book& book);

    void takeClub();
    /// The club by its number on the rack, where nothing is planned; false where there is none.
    bool takeClub(int number);
    /// The club in hand with another shaft, or another head.
    void anotherPart();
    /// Who hits, and has hit: names them, or another name of them; where there are several, who of them hits now.
    void whoHits();
    /// Another player from now on, who may be new.
    void nextPlayer();
    /// The club in hand is the player's own: others are held against it.
    void ownClub();
    /// The delivery or shot that the player is asked for.
    void askDelivery();
    /// Wind, light or balls are other ones from now on; the conditions take them.
    void changeDay();
    void mark(record::Mark what);
    /// Two of the clubs that were hit go into a fair test; which is asked where there are more.
    void fairTest();

private:
    void askOpponent(const QStringList& clubs, int first);
    void takePart(record::PartKind kind, const QString& name);
    void askNewPlayer();
    void takeNewPlayer(const QString& name);

    BayActions& m_at;
    Book& m_book;
};

} // namespace knot::app
