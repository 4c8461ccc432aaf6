#include "app/bay_page/bay_words.h"

#include "app/session/earlier_tests.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/judge/bets/leads.h"
#include "core/plan/strike_off.h"
#include "core/plan/worth.h"
#include "core/record/text/number_text.h"

#include <QCoreApplication>
#include <QDate>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using bay::Phase;
using record::Metric;

struct Words {
    Q_DECLARE_TR_FUNCTIONS(Bay)
};

QString number(const record::Shot& shot, Metric metric, const record::DisplayUnits& units) {
    const auto value = shot.readings.at(metric);
    if (value && metric == Metric::side) // as it is said in a bay
        return QString::fromStdString(record::MetricFormat(metric, units).withUnit(std::fabs(*value))) +
               (*value < 0 ? Words::tr(" left") : Words::tr(" right"));
    return value ? QString::fromStdString(record::MetricFormat(metric, units).withUnit(*value)) : QStringLiteral("–");
}

// "34 swings today", or of the sitting that is in hand still.
QString swingsText(const record::Test& test, const bay::Stand& stand) {
    const QString swings = QString::fromStdString(record::counted(static_cast<std::size_t>(stand.swings), "swing"));
    const bool today = !test.sittings.empty() && QString::fromStdString(test.sittings.back().startedAt.text())
                                                     .startsWith(QDate::currentDate().toString(Qt::ISODate));
    return today ? Words::tr("%1 today").arg(swings) : Words::tr("%1 in the last sitting").arg(swings);
}

QStringList numbersOf(const Situation& now, const record::Shot& shot, const record::DisplayUnits& units) {
    QStringList numbers;
    for (const Metric metric : now.numbers)
        numbers << number(shot, metric, units) + QLatin1Char('\n') + QString::fromStdString(record::info(metric).label);
    return numbers;
}

// What the player has said is to be looked after; empty where it is nothing.
QString lookAfter(const record::Test& test, const QString& sentence) {
    const std::string health = bay::hitterOf(test).health;
    return health.empty() ? QString() : sentence.arg(QString::fromStdString(health));
}

// Nobody has said who hits, and it is still the first club's turn: it is asked then and not again.
QString askedWho(const Situation& now, Eyes eyes) {
    const auto& shots = now.test.shots;
    const bool isFirst = std::ranges::all_of(shots, [&](const record::Shot& shot) {
        return shot.status == record::ShotStatus::warmUp || shot.turn == shots.back().turn;
    });
    return eyes == Eyes::fitter && now.stand.as<bay::Free>() != nullptr && now.test.players.size() < 2 &&
                   now.test.firstPlayer().name.empty() && isFirst
               ? Words::tr(" · who hits? O")
               : QString();
}

QString fate(const Situation& now, Eyes eyes) {
    const record::Shot* struck = now.last.in(now.test);
    const Phase phase = now.stand.phase();
    if (now.last.called)
        return Words::tr("the coming shot is called a mishit");
    if (now.last.call != record::Call::none)
        return Words::tr("the coming shot is called %1; it counts").arg(callWord(now.last.call));
    const auto* free = now.stand.as<bay::Free>();
    if (struck == nullptr && (phase == Phase::warmUp || (free != nullptr && free->warmingUp)))
        return Words::tr("Clear room all round and above, net sound, heads tight, nobody beside or in front.") +
               (eyes == Eyes::fitter ? lookAfter(now.test, Words::tr(" To look after: %1. How is it today?"))
                                     : QString());
    if (struck == nullptr)
        return phase == Phase::handOver || phase == Phase::done ? QString() : Words::tr("waiting for a shot");
    const record::Shot& shot = *struck;
    if (!now.last.onDisk)
        return Words::tr("last shot: here, not on disk yet");
    if (!bay::isRead(shot))
        return shot.note.empty()
                   ? Words::tr("last shot: not measured, hit it again")
                   : Words::tr("last shot: not measured (%1), hit it again").arg(QString::fromStdString(shot.note));
    if (shot.status == record::ShotStatus::setAside)
        return Words::tr("last shot: set aside, %1")
            .arg(shot.reason.empty() ? Words::tr("no reason given") : QString::fromStdString(shot.reason));
    if (shot.status == record::ShotStatus::warmUp)
        return shot.reason.empty()
                   ? Words::tr("last shot: kept, not counted")
                   : Words::tr("last shot: kept, not counted (%1)").arg(QString::fromStdString(shot.reason));
    const QString called =
        shot.call == record::Call::none
            ? QString()
            : Words::tr(", called %1").arg(shot.note.empty() ? callWord(shot.call) : QString::fromStdString(shot.note));
    return now.last.secondsToNumber > 0 && maySeeShots(now.test, eyes)
               ? Words::tr("last shot: kept%1, its number in %2 s").arg(called).arg(now.last.secondsToNumber)
               : Words::tr("last shot: kept%1").arg(called) + askedWho(now, eyes);
}

void fillWarmUp(const bay::Stand& stand, NowPicture& now) {
    now.caption = Words::tr("Warm up, not counted");
    now.name = stand.warmUp >= stand.warmUpPlanned ? Words::tr("Warm") : Words::tr("Any club");
    now.count =
        Words::tr("swing %1 of %2").arg(std::min(stand.warmUp + 1, stand.warmUpPlanned)).arg(stand.warmUpPlanned);
    if (stand.warmUp >= stand.warmUpPlanned)
        now.count = Words::tr("%1 of %2 swings").arg(stand.warmUp).arg(stand.warmUpPlanned);
    now.tied = std::min(stand.warmUp, stand.warmUpPlanned);
    now.knots = stand.warmUpPlanned;
    now.then = {};
}

// The player's window waits while a club changes and never names what the player may not know.
void hideTag(const bay::Stand& stand, NowPicture& now) {
    now.build.reset();
    now.next.reset();
    now.then.clear();
    if (stand.phase() == Phase::handOver) {
        now.caption = Words::tr("The next club is coming");
        now.name = Words::tr("Wait");
    } else if (stand.phase() == Phase::striking) {
        now.caption = {};
        now.name = Words::tr("Swing");
    }
}

} // namespace

QString callWord(record::Call call) {
    return call == record::Call::good   ? Words::tr("good")
           : call == record::Call::soSo ? Words::tr("so-so")
           : call == record::Call::bad  ? Words::tr("bad")
                                        : QString();
}

QString nameOf(const record::Test& test, record::BuildAt build) {
    return QString::fromStdString(test.builds[build].name);
}

std::vector<Metric> firstMetrics(const record::Card& card) {
    std::vector<Metric> metrics;
    auto add = [&](Metric metric) {
        if (std::ranges::find(metrics, metric) == metrics.end())
            metrics.push_back(metric);
    };
    for (const auto& outcome : card.primary) {
        const bool isOnGround = outcome.kind == record::OutcomeKind::area || outcome.kind == record::OutcomeKind::share;
        if (!isOnGround) {
            add(outcome.metric);
        } else {
            add(Metric::carry);
            add(Metric::side);
        }
    }
    if (metrics.empty()) {
        add(Metric::carry);
        add(Metric::ballSpeed);
    }
    return metrics;
}

namespace {

// What was said of the club in hand against the one before.
QString versusWords(const record::Test& test) {
    const auto stint = bay::stintInQuestion(test);
    const auto versus = stint ? bay::feelOf(test, *stint).versus : record::Versus::notSaid;
    return versus == record::Versus::better  ? Words::tr("better than the one before")
           : versus == record::Versus::worse ? Words::tr("worse than the one before")
           : versus == record::Versus::same  ? Words::tr("can’t be told from the one before")
                                             : QString();
}

// Who does it, where a test has several players, what was said of it, and what they are asked for.
QString ofWhom(const Situation& at, const QString& caption) {
    QStringList parts;
    if (at.test.players.size() > 1)
        parts << QString::fromStdString(bay::hitterOf(at.test).name);
    parts << caption;
    const auto stint = bay::stintInQuestion(at.test);
    if (const QString said = versusWords(at.test); !said.isEmpty())
        parts << said;
    if (const std::string guess = stint ? bay::guessOf(at.test, *stint) : std::string(); !guess.empty())
        parts << Words::tr("taken for %1").arg(QString::fromStdString(at.test.nameOf(guess)));
    if (const std::string expected = stint ? bay::feelOf(at.test, *stint).expected : std::string(); !expected.empty())
        parts << Words::tr("expected: %1").arg(QString::fromStdString(expected));
    if (!at.test.progress.delivery.empty())
        parts << Words::tr("asked for: %1").arg(QString::fromStdString(at.test.progress.delivery));
    return parts.join(QStringLiteral(" · "));
}

void fillStint(const Situation& at, const bay::PlannedStint& stint, NowPicture& now) {
    const Phase phase = at.stand.phase();
    const bool handOver = phase == Phase::handOver;
    const bool nameTag = phase == Phase::nameTag;
    const auto* striking = at.stand.as<bay::Striking>();
    now.count = handOver ? QString::fromStdString(record::counted(static_cast<std::size_t>(stint.shots), "shot"))
                         : Words::tr("shot %1 of %2").arg(stint.shot).arg(stint.shots);
    now.tied = nameTag ? stint.shots : stint.shot - 1;
    now.knots = stint.shots;
    if (stint.drawn) {
        now.caption = nameTag    ? Words::tr("Look at the tag now")
                      : handOver ? Words::tr("Draw a club, don't look")
                                 : Words::tr("Swing");
        now.name = nameTag ? Words::tr("Which was it?") : Words::tr("Unseen");
        if (nameTag)
            now.count = Words::tr("stint struck");
        return;
    }
    if (striking != nullptr)
        now.caption =
            striking->confirmed ? ofWhom(at, Words::tr("Swing")) : Words::tr("Is this in hand? It was not confirmed");
    else if (stint.anotherPlayer)
        now.caption = Words::tr("Now %1 hits").arg(QString::fromStdString(at.test.players[stint.player].name));
    else
        now.caption = stint.anew ? Words::tr("Put it down and hand it over anew") : Words::tr("Hand over");
    now.name = nameOf(at.test, stint.build);
    now.build = stint.build;
    now.then = stint.next              ? Words::tr("then %1").arg(nameOf(at.test, *stint.next))
               : plan::cutDue(at.test) ? Words::tr("then: who stays?")
                                       : Words::tr("then done");
    if (stint.next)
        now.next = *stint.next;
}

void fillFree(const Situation& at, const bay::Free& free, NowPicture& now) {
    now.caption = ofWhom(at, Words::tr("In hand"));
    if (!free.build) {
        now.name = at.test.builds.empty() ? Words::tr("No club yet") : Words::tr("No club is in");
        now.count = Words::tr("The Clubs page takes one in");
        return;
    }
    now.name = nameOf(at.test, *free.build);
    now.build = *free.build;
    if (free.warmingUp) {
        now.caption = ofWhom(at, Words::tr("Warm up, not counted"));
        now.count = Words::tr("swing %1").arg(at.stand.warmUp + 1);
        now.then = Words::tr("Enter counts from here on");
        return;
    }
    now.count = Words::tr("shot %1 of this stint").arg(free.shot);
}

} // namespace

NowPicture nowPicture(const Situation& at, const record::DisplayUnits& units, Eyes eyes) {
    NowPicture now;
    switch (at.stand.phase()) {
    case Phase::noPlan:
        now.caption = Words::tr("No plan yet");
        now.name = Words::tr("Two clubs make a plan");
        return now;
    case Phase::warmUp:
        fillWarmUp(at.stand, now);
        now.caption = ofWhom(at, now.caption);
        break;
    case Phase::free:
        fillFree(at, *at.stand.as<bay::Free>(), now);
        break;
    case Phase::handOver:
    case Phase::striking:
    case Phase::nameTag:
        fillStint(at, *at.stand.stint(), now);
        break;
    case Phase::done:
        if (const auto lap = plan::cutDue(at.test)) {
            now.caption = Words::tr("Lap %1 is struck").arg(*lap);
            now.name = Words::tr("Who stays?");
        } else {
            now.caption = Words::tr("The plan is struck");
            now.name = Words::tr("Done");
        }
        now.count = swingsText(at.test, at.stand);
        break;
    }
    if (!maySeeTag(at.test, eyes))
        hideTag(at.stand, now);
    now.below = fate(at, eyes);
    const record::Shot* last = at.last.in(at.test);
    if (last != nullptr && at.last.secondsToNumber == 0 && bay::isRead(*last) && maySeeShots(at.test, eyes))
        now.last = numbersOf(at, *last, units);
    return now;
}

NowPicture anotherVisitPicture(const record::Test& test, const bay::Stand& stand) {
    NowPicture now;
    now.caption = Words::tr("The last shot is hours ago");
    now.name = Words::tr("A new sitting");
    now.below = Words::tr("Enter, or the first swing, begins it.");
    if (const auto* stint = stand.stint()) {
        now.count = Words::tr("goes on in lap %1").arg(stint->round);
        now.then = stint->drawn ? QString() : Words::tr("with %1").arg(nameOf(test, stint->build));
    }
    return now;
}

namespace {

// Empty but at a lap's end.
QString worthSoFar(const record::Test& test, const bay::Stand& stand, const EarlierTests& earlier) {
    const auto* stint = stand.stint();
    const bool isDone = stand.phase() == Phase::done && !plan::cutDue(test);
    const bool isBetween = stand.phase() == Phase::handOver && stint->shot == 1 &&
                           (stint->turn == record::PlannedAt(0) ||
                            test.turns[static_cast<std::size_t>(stint->turn) - 1].round != stint->round);
    const int laps = isDone ? stand.rounds : isBetween ? stint->round - 1 : 0;
    if (laps == 0 || test.builds.size() < 2 || test.plan.schedule == record::Schedule::oneRunEach ||
        test.card.primary.empty() || test.card.want(test.card.primary.front()).kind == record::Want::Kind::none)
        return {};
    const record::Outcome& outcome = test.card.primary.front();
    const double tau = plan::scaleOf(test, outcome, earlier.gapScale(outcome.metric));
    const plan::Spreads spreads = earlier.spreads(outcome);
    const auto share = [&](int n) {
        return qRound(100 * plan::worthOfPlan(test, outcome, spreads, tau, n).worth.share);
    };
    const int shots = plan::shotsATurn(test.plan);
    const double minutes =
        static_cast<double>(test.builds.size()) * (test.plan.changeSeconds + shots * test.plan.shotSeconds) / 60;
    return isDone ? Words::tr("%1 of 100 for the choice").arg(share(laps))
                  : Words::tr("so far %1 of 100 for the choice; one more lap, %2 minutes: %3")
                        .arg(share(laps))
                        .arg(std::max(1, qRound(minutes)))
                        .arg(share(laps + 1));
}

} // namespace

QString courseLine(const record::Test& test, const bay::Stand& stand, const EarlierTests& earlier) {
    QStringList parts;
    if (test.stage == record::Stage::test && stand.phase() != Phase::noPlan)
        parts << Words::tr("lap %1 of %2")
                     .arg(stand.stint() != nullptr ? stand.stint()->round : stand.rounds)
                     .arg(stand.rounds);
    if (stand.swings > 0)
        parts << swingsText(test, stand);
    if (test.plan.restEvery > 0 && stand.swings > 0 && stand.sinceRest >= test.plan.restEvery)
        parts << Words::tr("%1 without a rest: time for one").arg(stand.sinceRest);
    if (const QString after = lookAfter(test, Words::tr("to look after: %1")); stand.swings > 0 && !after.isEmpty())
        parts << after;
    if (const QString worth = worthSoFar(test, stand, earlier); !worth.isEmpty())
        parts << worth;
    return parts.join(QStringLiteral(" · "));
}

QStringList soFarWords(const Situation& now, const std::vector<words::NumberSoFar>& soFar,
                       const record::DisplayUnits& units) {
    QStringList lines;
    bool isAny = false;
    for (const Metric metric : now.numbers) {
        const auto at = std::ranges::find(soFar, metric, &words::NumberSoFar::metric);
        isAny = isAny || at != soFar.end();
        QString line = at == soFar.end() ? QString() : QString::fromStdString(words::soFarText(*at, units));
        if (at != soFar.end() && at->onOwn)
            line +=
                Words::tr(" on %1").arg(lines.isEmpty() ? nameOf(now.test, now.test.baselineIndex()) : Words::tr("it"));
        lines << line;
    }
    return isAny ? lines : QStringList();
}

QString averagesLine(record::Test test, const record::DisplayUnits& units) {
    if (!maySeeAverages(test, Eyes::fitter) || test.shots.empty())
        return {};
    const std::string hitter = bay::playerInHand(test);
    if (!hitter.empty()) // nobody's shots are averaged with another's
        std::erase_if(test.shots, [&](const record::Shot& shot) { return shot.player != hitter; });
    if (!test.shots.empty()) { // nor of one way of hitting with those of another
        const std::string asked = test.shots.back().delivery;
        std::erase_if(test.shots, [&](const record::Shot& shot) { return shot.delivery != asked; });
    }
    const auto subject = judge::Case::of(test);
    const Metric metric = firstMetrics(test.card).front();
    QStringList parts;
    for (const auto& average : judge::liveAverages(subject, metric))
        parts << nameOf(subject.test(), average.build) + QLatin1Char(' ') +
                     QString::fromStdString(record::MetricFormat(metric, units).withUnit(average.mean));
    if (parts.isEmpty())
        return {};
    const QString label = QString::fromStdString(record::info(metric).label);
    const QString whose = hitter.empty()
                              ? Words::tr("average %1 so far: ").arg(label)
                              : Words::tr("average %1 of %2 so far: ").arg(label, QString::fromStdString(hitter));
    return whose + parts.join(QStringLiteral(", "));
}

QString resumedWords(const Situation& now) {
    const auto* stint = now.stand.stint();
    if (now.test.sittings.empty() || stint == nullptr || now.anotherVisit)
        return {};
    const QString kept = Words::tr("Everything struck is here.");
    if (now.stand.phase() == Phase::warmUp)
        return Words::tr("Resumed in the warm-up, after %1. %2")
            .arg(QString::fromStdString(record::counted(static_cast<std::size_t>(now.stand.warmUp), "swing")), kept);
    return Words::tr("Resumed in lap %1: %2, shot %3 of %4. %5")
        .arg(stint->round)
        .arg(stint->drawn ? Words::tr("an unseen club") : nameOf(now.test, stint->build))
        .arg(stint->shot)
        .arg(stint->shots)
        .arg(kept);
}

} // namespace knot::app
