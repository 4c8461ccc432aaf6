#include "app/session/declared_sentence.h"

#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/test_in_hand.h"

namespace knot::app {
namespace {

ask::Known knownOf(Book& book, const EarlierTests* earlier) {
    ask::Known known{.units = book.units(), .players = {}, .mark = book.typing().mark};
    for (const auto& entry : book.players())
        known.players.push_back(entry.player);
    if (earlier != nullptr)
        known.changeSeconds = earlier->learnt().pace.changeSeconds;
    return known;
}

// Empty where it was taken.
QString take(const ask::Chip& chip, const QString& typed, const TestInHand& hand, Declaring& declaring, Book& book,
             const EarlierTests* earlier) {
    if (!hand.has())
        return {};
    const auto edit = ask::taken(chip, typed.toStdString(), hand.test(), knownOf(book, earlier));
    if (!edit)
        return QString::fromStdString(edit.error());
    const bool isPlayer = chip.part == ask::Part::player; // each name is a step of its own
    declaring.change(isPlayer ? Declaring::tr("the player %1").arg(typed) : QString::fromStdString(ask::nameOf(chip)),
                     [&](record::Declared& test) {
                         (*edit)(test);
                         for (record::Player& player : test.players) // who is new gets an identity
                             if (player.id.empty())
                                 player = book.playerCalled(player.name);
                     });
    return {};
}

} // namespace

SentenceSource declaredSentence(const TestInHand& hand, Declaring& declaring, Book& book,
                                std::function<std::vector<ask::Piece>(const record::Test& test)> pieces,
                                std::function<bool(const ask::Chip& chip)> stands, const EarlierTests* earlier) {
    return {
        .pieces = [&hand,
                   pieces = std::move(pieces)] { return hand.has() ? pieces(hand.test()) : std::vector<ask::Piece>(); },
        .answers =
            [&hand, &book, earlier](const ask::Chip& chip) {
                return hand.has() ? ask::answersFor(chip, hand.test(), knownOf(book, earlier))
                                  : std::vector<ask::Answer>();
            },
        .take = [&hand, &declaring, &book,
                 earlier](const ask::Chip& chip,
                          const QString& typed) { return take(chip, typed, hand, declaring, book, earlier); },
        .stands = [&hand, stands = std::move(stands)](const ask::Chip& chip) { return hand.has() && stands(chip); }};
}

} // namespace knot::app
