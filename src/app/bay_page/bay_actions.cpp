#include "app/bay_page/bay_actions.h"

#include "app/bay_page/bay_words.h"
#include "app/bay_page/hand_actions.h"
#include "app/bay_page/number_actions.h"
#include "app/bay_page/said_actions.h"
#include "app/form/ask_bar.h"
#include "app/session/book.h"
#include "core/bay/hand.h"
#include "core/bay/strike.h"
#include "core/plan/strike_off.h"
#include "core/record/roster.h"
#include "core/record/typed/club_names.h"

#include <QRandomGenerator>

namespace knot::app {
namespace {

constexpr int callSeconds = 3; // a number waits so long for the player's call

} // namespace

// What players say of a shot they would take back.
QStringList BayActions::usualReasons() {
    return {tr("thin"), tr("fat"), tr("toe"), tr("heel"), tr("slipped"), tr("disturbed")};
}

BayActions::BayActions(const TestInHand& hand, BayRun& bay, AskBar& ask, Book& book, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_bay(bay)
    , m_ask(ask)
    , m_hands(new HandActions(*this, book))
    , m_said(new SaidActions(*this))
    , m_numbers(new NumberActions(*this))
    , m_book(book) {}

AskBar& BayActions::ask() {
    emit asking();
    return m_ask;
}

Situation BayActions::situation() const {
    const record::Test& test = m_hand.test();
    Situation now{.test = test, .stand = m_bay.stand(), .last = {}};
    now.last.called = m_bay.isComingCalled();
    now.last.call = m_bay.comingCall();
    if (test.shotIndex(m_last)) {
        now.last.shot = m_last;
        now.last.secondsToNumber = secondsToNumber();
        now.last.onDisk = m_bay.isOnDisk(m_last);
    }
    now.numbers = m_numbers->shown();
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
        test.shots[*at].status != record::ShotStatus::counted ||
        (test.stage == record::Stage::test && test.card.setAsideRule == record::SetAsideRule::keepAll))
        return 0;
    const qint64 left = callSeconds * 1000 - m_sinceLast.elapsed();
    return left > 0 ? static_cast<int>((left + 999) / 1000) : 0;
}

bool BayActions::waitsForNumber() const {
    return m_sinceLast.isValid() && m_sinceLast.elapsed() < callSeconds * 1000 + 600;
}

void BayActions::next() {
    if (m_bay.stand().phase() == bay::Phase::done)
        return plan::cutDue(m_hand.test()) ? askWhoStays() : emit readingRequested();
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

bool BayActions::isSeen(const Situation& now) {
    return maySeeShots(now.test, Eyes::fitter) && now.last.secondsToNumber == 0;
}

// Of the last shot while its number is not seen; else of the one in the air, or, where nothing is planned, which
// of the two is asked.
void BayActions::callMishit() {
    const Situation now = situation();
    const record::Shot* last = now.last.in(now.test);
    const bool free = now.stand.phase() == bay::Phase::free;
    const bool seen = isSeen(now);
    using record::ShotStatus;
    const bool counts = last != nullptr && last->status == ShotStatus::counted && bay::isRead(*last);
    if (last != nullptr && last->status == ShotStatus::setAside) {
        m_bay.changeStatus(tr("a call"), last->id, ShotStatus::counted, bay::momentOf(now.test, seen));
    } else if (counts && !seen) {
        m_bay.changeStatus(tr("a call"), last->id, ShotStatus::setAside, bay::momentOf(now.test, false),
                           QStringLiteral("called"));
    } else if (free && counts && !m_bay.isComingCalled()) {
        ask().askChoice(tr("Which one was bad?"), {tr("the last one, its number seen"), tr("the one in the air")},
                        [this](int answer) {
                            if (answer == 0)
                                return setAsideSeen();
                            m_bay.callComing(true);
                            emit changed();
                        });
    } else if (now.stand.phase() == bay::Phase::striking || free) {
        if (!free && now.test.card.setAsideRule == record::SetAsideRule::keepAll)
            return emit complained(tr("The sheet keeps every shot, so this one too. W puts a word to it."));
        m_bay.callComing(!m_bay.isComingCalled());
        emit changed();
    } else if (counts) {
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
    ask().askLine(test.card.setsAsideByNumbers() ? tr("Set aside by the sheet's rule: why?")
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

void BayActions::setConditions(const record::Conditions& conditions) {
    const std::string now = m_bay.now().toStdString();
    m_bay.typed(tr("the conditions"), [&](record::Test& test) {
        if (test.sittings.empty())
            bay::beginSitting(test, now);
        test.sittings.back().present() = conditions;
    });
}

void BayActions::stopForToday() {
    ask().askLine(tr("Stopping. What is it?"), {}, {tr("pain"), tr("tired"), tr("time"), tr("weather")},
                  [this](const QString& text) {
                      if (text.contains(tr("pain"), Qt::CaseInsensitive) ||
                          text.contains(tr("hurt"), Qt::CaseInsensitive))
                          return hurts(text);
                      const std::string now = m_bay.now().toStdString();
                      m_bay.step(tr("a stop"), [&](record::Test& test) {
                          bay::addEvent(test, record::EventKind::stop, now, text.toStdString());
                      });
                      emit complained(tr("Stopped; the test waits where it stands."));
                  });
}

// The club goes first. What hurt is kept with the club and with the player, who is asked about it next time.
void BayActions::hurts(const QString& words) {
    const auto inHand = m_bay.inHand();
    const QString club = inHand ? nameOf(m_hand.test(), inHand->build) : QString();
    ask().askChoice(
        tr("It hurts: what now?"),
        {club.isEmpty() ? tr("go on with another club") : tr("%1 goes, others go on").arg(club), tr("stop for today")},
        [this, words, club, inHand](int answer) {
            const std::string now = m_bay.now().toStdString();
            const QString with = club.isEmpty() ? words : tr("%1 with %2").arg(words, club);
            record::Player player = bay::hitterOf(m_hand.test());
            player.health += (player.health.empty() ? "" : "; ") +
                             tr("%1 (%2)").arg(with, QString::fromStdString(record::Moment(now).shown())).toStdString();
            m_bay.step(tr("what hurt"), [&](record::Test& test) {
                bay::addEvent(test, answer == 0 ? record::EventKind::note : record::EventKind::stop, now,
                              with.toStdString());
                for (record::Player& own : test.players)
                    if (record::isSamePlayer(own, player))
                        own.health = player.health;
                if (answer == 0 && inHand && record::Roster(test).left().size() > 1) {
                    bay::leaveOut(test, inHand->build);
                    if (!test.standings.empty())
                        test.standings.back().why = words.toStdString();
                }
            });
            if (!player.id.empty())
                m_book.savePlayer(player);
            emit complained(tr("Pain in a joint or the back belongs to a doctor or physiotherapist before the next "
                               "swing."));
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
    ask().askChoice(tr("Which club is out from now on?"), names, [=, this](int club) {
        ask().askLine(tr("Why is %1 out?").arg(names[club]), {}, {}, [=, this](const QString& reason) {
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

// By the declared outcome, and where that does not decide, by whoever types.
void BayActions::askWhoStays() {
    const record::Test& test = m_hand.test();
    const auto order = bay::orderSoFar(test);
    const std::size_t stay = plan::stayAfter(order.size(), *plan::cutDue(test));
    std::vector<std::string> first;
    QStringList names;
    for (std::size_t i = 0; i < order.size(); ++i) {
        names << nameOf(test, order[i]);
        if (i < stay)
            first.push_back(test.builds[order[i]].name);
    }
    ask().askLine(tr("%1 of %2 stay. By the numbers so far: %3")
                      .arg(stay)
                      .arg(order.size())
                      .arg(names.join(QStringLiteral(", "))),
                  QString::fromStdString(record::orderText(first)), {}, [this, stay](const QString& typed) {
                      const auto said = record::orderFromText(typed.toStdString(), m_hand.test().builds);
                      std::vector<record::BuildAt> staying;
                      for (const std::string& name : said.value_or(std::vector<std::string>{}))
                          if (const auto build = m_hand.test().buildIndex(name))
                              staying.push_back(*build);
                      bool struck = false;
                      m_bay.step(tr("who stays"),
                                 [&](record::Test& changed) { struck = bay::strikeOff(changed, staying); });
                      if (!struck)
                          emit complained(said ? tr("%1 clubs stay that are still in; Enter asks again.").arg(stay)
                                               : QString::fromStdString(said.error()));
                  });
}

void BayActions::endHere() {
    ask().askLine(tr("The rest of the plan is left out. Why?"), tr("time ran out"), {}, [this](const QString& reason) {
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
    const std::string sitting = laying.shots().empty() || laying.shots().front().takenAt.text().size() < 10
                                    ? now.left(10).toStdString()
                                    : laying.shots().front().takenAt.text().substr(0, 10);
    m_bay.step(tr("a file matched to the plan"), m_hand.test().shots.size(), [&](record::Test& test) {
        const std::size_t from = test.shots.size();
        test = laying.applied(std::move(test), sitting);
        return from;
    });
}

} // namespace knot::app
