#include "app/bay_page/hand_actions.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_words.h"
#include "app/bay_page/number_actions.h"
#include "app/bay_page/said_actions.h"
#include "app/form/ask_bar.h"
#include "app/session/book.h"
#include "core/bay/hand.h"
#include "core/record/roster.h"

namespace knot::app {
namespace {

// Clubs that can be taken up, with their places.
struct Takeable {
    QStringList names;
    std::vector<record::BuildAt> places;
};

Takeable takeableIn(const record::Test& test) {
    Takeable clubs;
    for (const record::BuildAt club : record::Roster(test).left()) {
        clubs.names << nameOf(test, club);
        clubs.places.push_back(club);
    }
    return clubs;
}

} // namespace

HandActions::HandActions(BayActions& actions, Book& book)
    : QObject(&actions)
    , m_at(actions)
    , m_book(book) {}

// Where nothing is planned: one of the clubs by its number, or a new one by its name.
void HandActions::takeClub() {
    const Takeable clubs = takeableIn(m_at.test());
    m_at.ask().askChoiceOrLine(
        tr("Which club is in hand now? A number, or a new one’s name."), clubs.names,
        [this](int answer) { takeClub(answer + 1); },
        [this](const QString& name) {
            m_at.numbers().sayWhatWasExpected(m_at.test());
            m_at.run().step(tr("another club"),
                            [&](record::Test& test) { bay::takeNewInHand(test, name.toStdString()); });
        });
}

bool HandActions::takeClub(int number) {
    const Takeable clubs = takeableIn(m_at.test());
    if (number < 1 || number > static_cast<int>(clubs.places.size()))
        return false;
    if (clubs.places[static_cast<std::size_t>(number - 1)] != m_at.test().progress.inHand)
        m_at.numbers().sayWhatWasExpected(m_at.test());
    m_at.run().step(tr("another club"), [&](record::Test& test) {
        bay::takeInHand(test, clubs.places[static_cast<std::size_t>(number - 1)]);
    });
    return true;
}

void HandActions::anotherPart() {
    const auto* free = m_at.run().stand().as<bay::Free>();
    if (free == nullptr || !free->build)
        return;
    m_at.ask().askChoiceOrLine(
        tr("Another shaft in %1: its name.").arg(nameOf(m_at.test(), *free->build)),
        {tr("another head on this shaft"), tr("another grip")},
        [this](int answer) {
            const auto kind = answer == 0 ? record::PartKind::head : record::PartKind::grip;
            m_at.ask().askLine(answer == 0 ? tr("The other head: its name.") : tr("The other grip: its name."), {}, {},
                               [this, kind](const QString& name) { takePart(kind, name); });
        },
        [this](const QString& name) { takePart(record::PartKind::shaft, name); });
}

void HandActions::takePart(record::PartKind kind, const QString& name) {
    m_at.run().step(tr("another club"),
                    [&](record::Test& test) { bay::takeOtherPart(test, kind, name.toStdString()); });
    if (kind != record::PartKind::grip)
        m_at.say(
            tr("Tighten the screw to the torque that its maker gives, see that the head sits fast, and keep people "
               "out of the line of the first swing."));
}

void HandActions::whoHits() {
    const record::Test& test = m_at.test();
    if (test.players.size() > 1)
        return nextPlayer();
    QStringList known;
    for (const auto& entry : m_book.players())
        if (!test.playerIndex(entry.player.name))
            known << QString::fromStdString(entry.player.name);
    const QString present = QString::fromStdString(test.firstPlayer().name);
    m_at.ask().askLine(
        present.isEmpty() ? tr("Who hits?") : tr("Who hits? J brings another player."), present, known.mid(0, 6),
        [this, present](const QString& name) {
            if (name.trimmed().isEmpty() || name.trimmed() == present)
                return;
            const record::Player player = m_book.playerCalled(name.trimmed().toStdString(), {});
            const QString now = m_at.run().now();
            m_at.run().step(tr("who hits"), 0, [&](record::Test& changed) {
                if (!present.isEmpty() && changed.stage == record::Stage::test)
                    BayRun::amend(changed, now, tr("%1 hit, not %2").arg(QString::fromStdString(player.name), present));
                return bay::nameHitter(changed, player);
            });
        });
}

void HandActions::ownClub() {
    const auto* free = m_at.run().stand().as<bay::Free>();
    if (free == nullptr || !free->build)
        return;
    const record::BuildAt club = *free->build;
    m_at.run().step(tr("one's own club"), [&](record::Test& test) { test.card.baseline = test.builds[club].who(); });
    m_at.say(tr("%1 is the player's own; the others are held against it.").arg(nameOf(m_at.test(), club)));
}

// The other one of two; one of several by number; a new one by name.
void HandActions::nextPlayer() {
    const record::Test& test = m_at.test();
    if (test.card.alone && test.stage == record::Stage::test)
        return m_at.say(tr("A test alone is one player's; start another one for somebody else."));
    if (test.players.size() < 2)
        return askNewPlayer();
    QStringList names;
    for (const record::Player& player : test.players)
        names << QString::fromStdString(player.name);
    m_at.ask().askChoiceOrLine(
        tr("Who hits now? A number, or somebody’s name."), names,
        [this](int answer) {
            m_at.run().callNothing(); // what was called was another's
            m_at.run().step(tr("another player"), [&](record::Test& changed) {
                bay::takePlayer(changed, record::PlayerAt(static_cast<std::size_t>(answer)));
            });
        },
        [this](const QString& name) { takeNewPlayer(name); });
}

void HandActions::askNewPlayer() {
    QStringList known;
    for (const auto& entry : m_book.players())
        if (!m_at.test().playerIndex(entry.player.name))
            known << QString::fromStdString(entry.player.name);
    m_at.ask().askLine(tr("Who hits now?"), {}, known.mid(0, 6), [this](const QString& name) { takeNewPlayer(name); });
}

void HandActions::takeNewPlayer(const QString& name) {
    auto others = m_at.test().players;
    const record::Player before = m_book.playerCalled({}, others); // where nobody was named yet
    if (others.empty())
        others.push_back(before);
    const record::Player player = m_book.playerCalled(name.toStdString(), others);
    const QString now = m_at.run().now();
    const bool isNew = !m_at.test().playerIndex(player.name);
    m_at.run().callNothing();
    m_at.run().step(tr("another player"), 0, [&](record::Test& test) {
        const bay::From from = bay::takeNewPlayer(test, player, before);
        if (isNew && test.stage == record::Stage::test)
            BayRun::amend(test, now, tr("%1 joined, for the same laps").arg(QString::fromStdString(player.name)));
        return from;
    });
}

void HandActions::askDelivery() {
    QStringList known;
    for (const std::string& delivery : bay::deliveriesOf(m_at.test()))
        known << QString::fromStdString(delivery);
    auto take = [this](const QString& delivery) {
        m_at.run().step(tr("what is asked for"),
                        [&](record::Test& test) { bay::askDelivery(test, delivery.toStdString()); });
    };
    m_at.ask().askChoiceOrLine(
        tr("Which delivery or shot is asked for? Enter alone: none."), known,
        [take, known](int answer) { take(known[answer]); }, take);
}

void HandActions::changeDay() {
    const std::string now = m_at.run().now().toStdString();
    m_at.run().step(tr("another day"), [&](record::Test& test) { bay::changeDay(test, now); });
    if (m_at.test().progress.nextMark == record::Mark::day)
        emit m_at.conditionsRequested();
    else
        m_at.say(tr("The day is as before."));
}

void HandActions::mark(record::Mark what) {
    using record::Mark;
    m_at.run().step(tr("a mark"), [=](record::Test& test) {
        test.progress.nextMark = test.progress.nextMark == what ? Mark::none : what;
    });
    const bool marked = m_at.test().progress.nextMark == what;
    if (what == Mark::player && marked)
        return m_at.said().askChange();
    if (what == Mark::club)
        m_at.say(marked ? tr("From the next shot on this is a changed club. W says what; C again takes it back.")
                        : tr("The club is as it was."));
    else
        m_at.say(tr("The player is as before."));
}

void HandActions::fairTest() {
    const QStringList clubs = takeableIn(m_at.test()).names;
    if (clubs.size() < 2)
        return m_at.say(tr("A fair test takes two clubs; T takes another one in hand."));
    if (clubs.size() == 2)
        return emit m_at.fairTestRequested({clubs[0].toStdString(), clubs[1].toStdString()});
    m_at.ask().askChoice(tr("Which two? The first:"), clubs, [=, this](int first) { askOpponent(clubs, first); });
}

void HandActions::askOpponent(const QStringList& clubs, int first) {
    QStringList others = clubs;
    others.removeAt(first);
    m_at.ask().askChoice(tr("%1 against which?").arg(clubs[first]), others, [=, this](int second) {
        emit m_at.fairTestRequested({clubs[first].toStdString(), others[second].toStdString()});
    });
}

} // namespace knot::app
