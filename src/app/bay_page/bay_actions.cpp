#include "app/bay_page/bay_actions.h"

#include "app/bay_page/ask_bar.h"
#include "app/bay_page/bay_words.h"

#include <QRandomGenerator>

namespace knot::app {
namespace {

constexpr int callSeconds = 3; // a number waits so long for the player's call

// What players say of a shot they would take back.
QStringList usualReasons() {
    return {BayActions::tr("thin"), BayActions::tr("fat"),     BayActions::tr("toe"),
            BayActions::tr("heel"), BayActions::tr("slipped"), BayActions::tr("disturbed")};
}

} // namespace

BayActions::BayActions(const TestInHand& hand, BayRun& bay, AskBar& ask, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_bay(bay)
    , m_ask(ask) {}

Situation BayActions::situation() const {
    const record::Test& test = m_hand.test();
    Situation now{.test = test, .stand = m_bay.stand(), .last = {}};
    now.last.called = m_bay.isComingCalled();
    if (test.shotIndex(m_last)) {
        now.last.shot = m_last;
        now.last.secondsToNumber = secondsToNumber();
        now.last.onDisk = m_bay.isOnDisk(m_last);
    }
    now.anotherVisit = m_bay.takesShots() && test.stage == record::Stage::test &&
                       now.stand.phase() != bay::Phase::done && now.stand.phase() != bay::Phase::noPlan &&
                       bay::isAnotherVisit(test, m_bay.now().toStdString());
    return now;
}

void BayActions::begin() {
    m_last = record::ShotId::none;
    m_count = 0;
    m_sinceLast.invalidate();
    m_resting.invalidate();
    if (!m_hand.has())
        return;
    const auto& test = m_hand.test();
    m_count = test.shots.size();
    if (!test.sittings.empty() && !test.shots.empty() && test.shots.back().sitting == test.sittings.back().label)
        m_last = test.shots.back().id;
}

BayActions::News BayActions::shotsChanged(std::size_t from) {
    const auto& shots = m_hand.test().shots;
    const std::size_t before = m_count;
    m_count = shots.size();
    if (m_count > before) {
        m_last = (m_count == before + 1 ? shots[std::min(from, m_count - 1)] : shots.back()).id;
        m_sinceLast.start();
        return News::shot;
    }
    if (m_count == before)
        return News::none;
    m_last = shots.empty() ? record::ShotId::none : shots.back().id;
    m_sinceLast.invalidate();
    return News::fewer;
}

int BayActions::secondsToNumber() const {
    const auto& test = m_hand.test();
    const auto at = test.shotIndex(m_last);
    if (!m_sinceLast.isValid() || !at || !maySeeShots(test, Eyes::fitter) ||
        test.shots[*at].status != record::ShotStatus::counted || test.stage != record::Stage::test ||
        test.card.setAsideRule == record::SetAsideRule::keepAll)
        return 0;
    const qint64 left = callSeconds * 1000 - m_sinceLast.elapsed();
    return left > 0 ? static_cast<int>((left + 999) / 1000) : 0;
}

bool BayActions::waitsForNumber() const {
    return m_sinceLast.isValid() && m_sinceLast.elapsed() < callSeconds * 1000 + 600;
}

void BayActions::next() {
    if (m_bay.stand().phase() == bay::Phase::done)
        return emit readingRequested();
    const std::string now = m_bay.now().toStdString();
    m_bay.step(tr("a hand-over"), [&](record::Test& test) {
        if (bay::isAnotherVisit(test, now))
            bay::beginSitting(test, now);
        else
            bay::confirm(test, now);
    });
}

void BayActions::stillLast() {
    m_bay.step(tr("a club that had not changed"), 0,
               [](record::Test& test) { return bay::stillLast(test).value_or(test.shots.size()); });
}

void BayActions::nameTag(std::size_t place) {
    const bay::Stand stand = m_bay.stand();
    const auto* unnamed = stand.as<bay::NameTag>();
    if (unnamed == nullptr || place >= unnamed->stint.inBag.size())
        return;
    m_bay.step(tr("a tag"), 0, [&](record::Test& test) {
        return bay::nameTag(test, unnamed->stint.inBag[place]).value_or(test.shots.size());
    });
}

// Where nothing is planned: one of the clubs by its number, or a new one by its name.
void BayActions::takeClub() {
    QStringList names;
    std::vector<record::BuildAt> places;
    for (record::BuildAt i; i < m_hand.test().builds.size(); ++i)
        if (m_hand.test().builds[i].struckOff.empty()) {
            names << nameOf(m_hand.test(), i);
            places.push_back(i);
        }
    emit asking();
    m_ask.askChoiceOrLine(
        tr("Which club is in hand now? A number, or a new one’s name."), names,
        [=, this](int answer) {
            m_bay.step(tr("another club"),
                       [&](record::Test& test) { bay::takeInHand(test, places[static_cast<std::size_t>(answer)]); });
        },
        [this](const QString& name) {
            m_bay.step(tr("another club"), [&](record::Test& test) { bay::takeNewInHand(test, name.toStdString()); });
        });
}

void BayActions::fairTest() {
    QStringList clubs;
    for (const auto& build : m_hand.test().builds)
        if (build.struckOff.empty())
            clubs << QString::fromStdString(build.name);
    if (clubs.size() < 2)
        return emit complained(tr("A fair test takes two clubs; T takes another one in hand."));
    if (clubs.size() == 2)
        return emit fairTestRequested({clubs[0].toStdString(), clubs[1].toStdString()});
    emit asking();
    m_ask.askChoice(tr("Which two? The first:"), clubs, [=, this](int first) { askOpponent(clubs, first); });
}

void BayActions::askOpponent(const QStringList& clubs, int first) {
    QStringList others = clubs;
    others.removeAt(first);
    emit asking();
    m_ask.askChoice(tr("%1 against which?").arg(clubs[first]), others, [=, this](int second) {
        emit fairTestRequested({clubs[first].toStdString(), others[second].toStdString()});
    });
}

// Of the last shot while its number is not seen, or where nothing is planned; else of the one in the air.
void BayActions::callMishit() {
    const Situation now = situation();
    const record::Shot* last = now.last.in(now.test);
    const bool free = now.stand.phase() == bay::Phase::free;
    const bool unseen = !maySeeShots(now.test, Eyes::fitter) || now.last.secondsToNumber > 0;
    using record::ShotStatus;
    if (last != nullptr && last->status == ShotStatus::setAside) {
        m_bay.changeStatus(tr("a call"), last->id, ShotStatus::counted, bay::momentOf(now.test, true));
    } else if (last != nullptr && last->status == ShotStatus::counted && bay::isRead(*last) && (unseen || free)) {
        m_bay.changeStatus(tr("a call"), last->id, ShotStatus::setAside, bay::momentOf(now.test, !unseen),
                           QStringLiteral("called"));
    } else if (now.stand.phase() == bay::Phase::striking) {
        if (now.test.card.setAsideRule == record::SetAsideRule::keepAll)
            return emit complained(tr("The sheet keeps every shot, so this one too. W puts a word to it."));
        m_bay.callComing(!m_bay.isComingCalled());
        emit changed();
    } else if (last != nullptr && last->status == ShotStatus::counted) {
        emit complained(tr("Its number was seen; S sets it aside and says so."));
    }
}

// With its number seen: kept as such, and the reading says so.
void BayActions::setAsideSeen() {
    const auto& test = m_hand.test();
    const auto at = test.shotIndex(m_last);
    if (!at || test.shots[*at].status != record::ShotStatus::counted)
        return;
    if (test.card.setAsideRule == record::SetAsideRule::keepAll && test.stage == record::Stage::test)
        return emit complained(tr("The sheet keeps every shot, so this one too. W puts a word to it."));
    const record::ShotId shot = m_last;
    emit asking();
    m_ask.askLine(test.card.setsAsideByNumbers() ? tr("Set aside by the sheet's rule: why?")
                                                 : tr("Set aside after its number was seen: why?"),
                  {}, usualReasons(), [this, shot](const QString& reason) {
                      m_bay.changeStatus(tr("a set-aside"), shot, record::ShotStatus::setAside,
                                         bay::momentOf(m_hand.test(), true), reason);
                  });
}

void BayActions::noReading() {
    m_bay.arrive({bay::Arrival{}});
}

void BayActions::strikeAt(double toe, double high) {
    m_bay.stepOn(tr("a strike point"), m_last, [&](record::Shot& shot) {
        shot.readings.measure(record::Metric::strikeToe, toe);
        shot.readings.measure(record::Metric::strikeHigh, high);
    });
}

void BayActions::rest() {
    if (m_resting.isValid()) {
        m_resting.invalidate();
        return emit changed();
    }
    m_resting.start();
    const std::string now = m_bay.now().toStdString();
    m_bay.step(tr("a rest"), [&](record::Test& test) { bay::addEvent(test, record::EventKind::rest, now, ""); });
}

void BayActions::askReason(record::ShotId shot) {
    const auto at = m_hand.test().shotIndex(shot);
    if (!at)
        return;
    emit asking();
    m_ask.askLine(tr("Why was it set aside?"), QString::fromStdString(m_hand.test().shots[*at].reason), usualReasons(),
                  [this, shot](const QString& reason) {
                      m_bay.stepOn(tr("a reason"), shot,
                                   [&](record::Shot& kept) { kept.reason = reason.toStdString(); });
                  });
}

// A reason where the last shot was set aside, else a note to the test.
void BayActions::word() {
    const auto at = m_hand.test().shotIndex(m_last);
    if (at && m_hand.test().shots[*at].status == record::ShotStatus::setAside)
        return askReason(m_last);
    emit asking();
    m_ask.askLine(tr("A note"), {}, {}, [this](const QString& text) {
        const std::string now = m_bay.now().toStdString();
        if (!text.isEmpty())
            m_bay.step(tr("a note"), [&](record::Test& test) {
                bay::addEvent(test, record::EventKind::note, now, text.toStdString());
            });
    });
}

QStringList BayActions::clubNames() const {
    QStringList names;
    const auto& test = m_hand.test();
    const auto& clubs = test.seal.isClosed() && !test.sealedBuilds.empty() ? test.sealedBuilds : test.builds;
    for (const auto& build : clubs)
        names << QString::fromStdString(build.name);
    return names;
}

void BayActions::guess() {
    const auto stint = bay::lastStint(m_hand.test());
    const QStringList clubs = clubNames();
    if (!stint || clubs.isEmpty())
        return;
    if (m_bay.stand().phase() == bay::Phase::done)
        return guessAtEnd(record::BuildAt());
    emit asking();
    m_ask.askChoice(tr("Which club was that, says the player?"), clubs, [=, this](int answer) {
        m_bay.step(tr("a guess"), [&](record::Test& test) {
            bay::setGuess(test, {stint->build, clubs[answer].toStdString(), stint->turn});
        });
    });
}

// Once for every tag, when all is struck.
void BayActions::guessAtEnd(record::BuildAt build) {
    const QStringList clubs = clubNames();
    if (build >= m_hand.test().builds.size())
        return;
    emit asking();
    m_ask.askChoice(tr("Which club was %1?").arg(nameOf(m_hand.test(), build)), clubs, [=, this](int answer) {
        m_bay.step(tr("a guess"), [&](record::Test& test) {
            bay::setGuess(test, {build, clubs[answer].toStdString(), {}});
        });
        guessAtEnd(record::BuildAt(build + 1));
    });
}

void BayActions::scoreFeel(std::size_t scale, int score) {
    if (const auto stint = bay::lastStint(m_hand.test()))
        m_bay.step(tr("a feel"), [&](record::Test& test) {
            auto feel = bay::feelOf(test, *stint);
            feel.scores[scale] = score;
            bay::setFeel(test, feel);
        });
}

void BayActions::wordFeel(const QString& text) {
    if (const auto stint = bay::lastStint(m_hand.test()))
        m_bay.typed(tr("words about a stint"), [&](record::Test& test) {
            auto feel = bay::feelOf(test, *stint);
            feel.words = text.toStdString();
            bay::setFeel(test, feel);
        });
}

void BayActions::setConditions(const record::Conditions& conditions) {
    const std::string now = m_bay.now().toStdString();
    m_bay.typed(tr("the conditions"), [&](record::Test& test) {
        if (test.sittings.empty())
            bay::beginSitting(test, now);
        test.sittings.back().conditions = conditions;
    });
}

void BayActions::mark(record::Mark what) {
    using record::Mark;
    m_bay.step(tr("a mark"), [=](record::Test& test) {
        test.progress.nextMark = test.progress.nextMark == what ? Mark::none : what;
    });
    const bool marked = m_hand.test().progress.nextMark == what;
    if (what == Mark::club)
        emit complained(marked ? tr("From the next shot on this is a changed club. C again takes it back.")
                               : tr("The club is as it was."));
    else
        emit complained(marked ? tr("From the next shot on the player has changed something. P again takes it back.")
                               : tr("The player is as before."));
}

void BayActions::stopForToday() {
    emit asking();
    m_ask.askLine(tr("Stopping. What is it?"), {}, {tr("pain"), tr("tired"), tr("time"), tr("weather")},
                  [this](const QString& text) {
                      const std::string now = m_bay.now().toStdString();
                      m_bay.step(tr("a stop"), [&](record::Test& test) {
                          bay::addEvent(test, record::EventKind::stop, now, text.toStdString());
                      });
                      emit complained(tr("Stopped; the test waits where it stands. Pain in a joint or the back belongs "
                                         "to a doctor or physiotherapist before the next swing."));
                  });
}

void BayActions::newSitting() {
    const std::string now = m_bay.now().toStdString();
    m_bay.step(tr("a new sitting"), [&](record::Test& test) { bay::beginSitting(test, now); });
}

void BayActions::endStint() {
    const QString now = m_bay.now();
    m_bay.step(tr("the end of a stint"), [&](record::Test& test) {
        const bay::Stand stand = m_bay.stand();
        if (bay::endStint(test))
            BayRun::amend(test, now,
                          tr("Stint %1 ended after %2 of %3 shots")
                              .arg(stand.stint()->turn + 1)
                              .arg(stand.stint()->shot - 1)
                              .arg(stand.stint()->shots));
    });
}

void BayActions::leaveClubOut() {
    QStringList names;
    for (record::BuildAt i; i < m_hand.test().builds.size(); ++i)
        names << nameOf(m_hand.test(), i);
    emit asking();
    m_ask.askChoice(tr("Which club is out from now on?"), names, [=, this](int club) {
        emit asking();
        m_ask.askLine(tr("Why is %1 out?").arg(names[club]), {}, {}, [=, this](const QString& reason) {
            const QString now = m_bay.now();
            m_bay.step(tr("a club left out"), [&](record::Test& test) {
                bay::leaveOut(test, record::BuildAt(static_cast<std::size_t>(club)));
                BayRun::amend(test, now,
                              tr("%1 was left out from here on: %2")
                                  .arg(names[club], reason.isEmpty() ? tr("no reason given") : reason));
            });
        });
    });
}

void BayActions::endHere() {
    emit asking();
    m_ask.askLine(tr("The rest of the plan is left out. Why?"), tr("time ran out"), {}, [this](const QString& reason) {
        const QString now = m_bay.now();
        m_bay.step(tr("the end of the test"), [&](record::Test& test) {
            bay::endHere(test);
            BayRun::amend(test, now, tr("Ended before the plan was done: %1").arg(reason));
        });
    });
}

void BayActions::anotherLap() {
    const QString now = m_bay.now();
    const quint64 seed = QRandomGenerator::system()->generate64();
    bool added = false;
    m_bay.step(tr("another lap"), [&](record::Test& test) {
        added = bay::addRound(test, seed);
        if (added)
            BayRun::amend(test, now, tr("A lap was added"));
    });
    emit complained(
        added ? tr("A lap is added and noted. Laps beyond the plan are kept, and judged only up to the planned "
                   "number: going on because a result is open would make luck look real.")
              : tr("A lap takes two clubs that are still in; there is none to add."));
}

void BayActions::keepLaid(const bay::Laying& laying) {
    const QString now = m_bay.now();
    const std::string sitting = laying.shots().empty() || laying.shots().front().takenAt.size() < 10
                                    ? now.left(10).toStdString()
                                    : laying.shots().front().takenAt.substr(0, 10);
    m_bay.step(tr("a file laid on the plan"), m_hand.test().shots.size(), [&](record::Test& test) {
        const std::size_t from = test.shots.size();
        test = laying.applied(std::move(test), sitting);
        return from;
    });
}

} // namespace knot::app
