#include "app/bay_page/bay_words.h"

#include "core/judge/columns.h"
#include "core/judge/summary.h"
#include "core/record/number_text.h"
#include "core/record/structure.h"

#include <QCoreApplication>

#include <QDate>

#include <algorithm>
#include <cmath>

namespace knot::app {
namespace {

using bay::Phase;
using record::Metric;

QString tr(const char* text) {
    return QCoreApplication::translate("Bay", text);
}

bool maySee(record::Sees sees, Eyes eyes) {
    return sees == record::Sees::everyone || (sees == record::Sees::fitter && eyes == Eyes::fitter);
}

QString number(const record::Shot& shot, Metric metric, const record::DisplayUnits& units) {
    const auto value = shot.readings.at(metric);
    if (value && metric == Metric::side) // as it is said in a bay
        return QString::fromStdString(record::MetricFormat(metric, units).withUnit(std::fabs(*value))) +
               (*value < 0 ? tr(" left") : tr(" right"));
    return value ? QString::fromStdString(record::MetricFormat(metric, units).withUnit(*value)) : QStringLiteral("–");
}

// "34 swings today", or of the sitting that is in hand still.
QString swingsText(const record::Test& test, const bay::Stand& stand) {
    const QString swings = QString::fromStdString(record::counted(static_cast<std::size_t>(stand.swings), "swing"));
    const bool today =
        !test.sittings.empty() &&
        QString::fromStdString(test.sittings.back().startedAt).startsWith(QDate::currentDate().toString(Qt::ISODate));
    return today ? tr("%1 today").arg(swings) : tr("%1 in the last sitting").arg(swings);
}

QStringList numbersOf(const record::Test& test, const record::Shot& shot, const record::DisplayUnits& units) {
    QStringList numbers;
    for (const Metric metric : firstMetrics(test.card))
        numbers << number(shot, metric, units) + QLatin1Char('\n') + QString::fromStdString(record::info(metric).label);
    return numbers;
}

QString fate(const record::Test& test, const LastShot& last, const bay::Stand& stand, Eyes eyes) {
    if (last.called)
        return tr("the coming shot is called a mishit");
    if (!last.shot && stand.phase == Phase::warmUp)
        return tr("Clear room all round and above, net sound, heads tight, nobody beside or in front.");
    if (!last.shot)
        return stand.phase == Phase::handOver || stand.phase == Phase::done ? QString() : tr("waiting for a shot");
    const record::Shot& shot = test.shots[*last.shot];
    if (!bay::isRead(shot))
        return shot.note.empty()
                   ? tr("last shot: no reading, hit it again")
                   : tr("last shot: no reading (%1), hit it again").arg(QString::fromStdString(shot.note));
    if (shot.status == record::ShotStatus::setAside)
        return tr("last shot: set aside, %1")
            .arg(shot.reason.empty() ? tr("no reason given") : QString::fromStdString(shot.reason));
    if (shot.status == record::ShotStatus::warmUp)
        return shot.reason.empty() ? tr("last shot: kept, not counted")
                                   : tr("last shot: kept, not counted (%1)").arg(QString::fromStdString(shot.reason));
    return last.secondsToNumber > 0 && maySeeShots(test, eyes)
               ? tr("last shot: kept, its number in %1 s").arg(last.secondsToNumber)
               : tr("last shot: kept");
}

void fillWarmUp(const bay::Stand& stand, NowPicture& now) {
    now.caption = tr("Warm up, not counted");
    now.name = stand.warmUp >= stand.warmUpPlanned ? tr("Warm") : tr("Any club");
    now.count = tr("swing %1 of %2").arg(std::min(stand.warmUp + 1, stand.warmUpPlanned)).arg(stand.warmUpPlanned);
    if (stand.warmUp >= stand.warmUpPlanned)
        now.count = tr("%1 of %2 swings").arg(stand.warmUp).arg(stand.warmUpPlanned);
    now.tied = std::min(stand.warmUp, stand.warmUpPlanned);
    now.knots = stand.warmUpPlanned;
    now.then = {};
}

// The player's window waits while a club changes and never names what the player may not know.
void hideTag(const bay::Stand& stand, NowPicture& now) {
    now.build.reset();
    now.next.reset();
    now.then.clear();
    if (stand.phase == Phase::handOver) {
        now.caption = tr("The next club is coming");
        now.name = tr("Wait");
    } else if (stand.phase == Phase::striking) {
        now.caption = {};
        now.name = tr("Swing");
    }
}

} // namespace

QString nameOf(const record::Test& test, std::size_t build) {
    return QString::fromStdString(test.builds[build].name);
}

bool maySeeShots(const record::Test& test, Eyes eyes) {
    return maySee(test.card.visibility.shots, eyes);
}

bool maySeeAverages(const record::Test& test, Eyes eyes) {
    return maySee(test.card.visibility.averages, eyes);
}

bool maySeeTag(const record::Test& test, Eyes eyes) {
    const bool playerBlind =
        test.card.blinding == record::Blinding::playerBlind || test.card.blinding == record::Blinding::bothBlind;
    return eyes == Eyes::fitter || !playerBlind;
}

std::vector<Metric> firstMetrics(const record::Card& card) {
    std::vector<Metric> metrics;
    auto add = [&](Metric metric) {
        if (std::ranges::find(metrics, metric) == metrics.end())
            metrics.push_back(metric);
    };
    for (const auto& outcome : card.primary) {
        if (outcome.kind == record::OutcomeKind::average || outcome.kind == record::OutcomeKind::spread)
            add(outcome.metric);
        else {
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

NowPicture nowPicture(const record::Test& test, const bay::Stand& stand, const LastShot& last,
                      const record::DisplayUnits& units, Eyes eyes) {
    NowPicture now;
    switch (stand.phase) {
    case Phase::noPlan:
        now.caption = tr("No plan yet");
        now.name = tr("Two clubs make a plan");
        return now;
    case Phase::warmUp:
        fillWarmUp(stand, now);
        break;
    case Phase::free:
        now.caption = tr("In hand");
        now.name = test.builds.empty() ? tr("No club yet") : nameOf(test, stand.build);
        if (!test.builds.empty())
            now.build = stand.build;
        now.count = tr("shot %1 of this stint").arg(stand.shot);
        break;
    case Phase::handOver:
    case Phase::striking:
    case Phase::nameTag: {
        const bool handOver = stand.phase == Phase::handOver;
        const bool nameTag = stand.phase == Phase::nameTag;
        now.count = handOver ? QString::fromStdString(record::counted(static_cast<std::size_t>(stand.shots), "shot"))
                             : tr("shot %1 of %2").arg(stand.shot).arg(stand.shots);
        now.tied = nameTag ? stand.shots : stand.shot - 1;
        now.knots = stand.shots;
        if (stand.drawn) {
            now.caption = nameTag ? tr("Look at the tag now") : handOver ? tr("Draw a club, don't look") : tr("Swing");
            now.name = nameTag ? tr("Which was it?") : tr("Unseen");
            now.count = nameTag ? tr("stint struck") : now.count;
            break;
        }
        now.caption = !stand.confirmed && !handOver ? tr("Is this in hand? It was not confirmed")
                      : handOver ? (stand.anew ? tr("Put it down and hand it over anew") : tr("Hand over"))
                                 : tr("Swing");
        now.name = nameOf(test, stand.build);
        now.build = stand.build;
        if (stand.next) {
            now.then = tr("then %1").arg(nameOf(test, *stand.next));
            now.next = stand.next;
        } else {
            now.then = tr("then done");
        }
        break;
    }
    case Phase::done:
        now.caption = tr("The plan is struck");
        now.name = tr("Done");
        now.count = swingsText(test, stand);
        break;
    }
    if (!maySeeTag(test, eyes))
        hideTag(stand, now);
    now.below = fate(test, last, stand, eyes);
    const bool shown = last.shot && last.secondsToNumber == 0 && bay::isRead(test.shots[*last.shot]);
    if (shown && maySeeShots(test, eyes))
        now.last = numbersOf(test, test.shots[*last.shot], units);
    return now;
}

NowPicture anotherVisitPicture(const record::Test& test, const bay::Stand& stand) {
    NowPicture now;
    now.caption = tr("The last shot is hours ago");
    now.name = tr("A new sitting");
    now.count = tr("goes on in lap %1").arg(stand.round);
    now.below = tr("Enter, or the first swing, begins it.");
    if (stand.turn)
        now.then = stand.drawn ? QString() : tr("with %1").arg(nameOf(test, stand.build));
    return now;
}

QList<KeyRow::Entry> keysFor(const record::Test& test, const bay::Stand& stand, const LastShot& last) {
    QList<KeyRow::Entry> keys;
    if (test.builds.empty())
        return keys;
    const QString tag = stand.drawn ? tr("the club") : nameOf(test, stand.build);
    const KeyRow::Entry feel{Qt::Key_F, QStringLiteral("F"), tr("feel"), tr("how was that stint?"), false};
    const KeyRow::Entry guess{Qt::Key_G, QStringLiteral("G"), tr("guess"), tr("which one was that?"), false};
    const KeyRow::Entry undo{Qt::Key_U, QStringLiteral("U"), tr("undo"), tr("Shift+U does it again"), false};
    const KeyRow::Entry rest{Qt::Key_R, QStringLiteral("R"), tr("rest"),
                             stand.sinceRest > 0 ? tr("%1 swings without one").arg(stand.sinceRest) : QString(),
                             test.plan.restEvery > 0 && stand.sinceRest >= test.plan.restEvery};
    const KeyRow::Entry hand{Qt::Key_H, QStringLiteral("H"), tr("type a shot"), tr("or just begin with its number"),
                             false};
    const bool setAside = last.shot && test.shots[*last.shot].status == record::ShotStatus::setAside;
    const KeyRow::Entry call{Qt::Key_Space, QStringLiteral("Space"),
                             setAside ? tr("count it after all") : tr("called a mishit"), tr("before its number shows"),
                             false};
    switch (stand.phase) {
    case Phase::noPlan:
        return keys;
    case Phase::warmUp:
        keys << KeyRow::Entry{Qt::Key_Return, QStringLiteral("Enter"), tr("warm enough"),
                              tr("the first club comes next"), stand.warmUp >= stand.warmUpPlanned};
        return keys << hand << undo << rest;
    case Phase::nameTag:
        for (std::size_t i = 0; i < stand.inBag.size() && i < 9; ++i)
            keys << KeyRow::Entry{
                Qt::Key_1 + static_cast<int>(i), QString::number(i + 1), nameOf(test, stand.inBag[i]), {}, true};
        return keys << feel << undo;
    case Phase::done:
        keys << KeyRow::Entry{Qt::Key_Return, QStringLiteral("Enter"), tr("read it"), tr("what the shots say"), true};
        return keys << guess << feel << undo;
    case Phase::handOver:
        keys << KeyRow::Entry{Qt::Key_Return,
                              QStringLiteral("Enter"),
                              stand.drawn ? tr("drawn") : tr("%1 is in hand").arg(tag),
                              {},
                              true};
        if (last.shot)
            keys << call;
        return keys << feel << guess << rest << undo << hand;
    case Phase::free:
        keys << KeyRow::Entry{Qt::Key_T, QStringLiteral("T"), tr("another club"), tr("from the rack"), false};
        keys << KeyRow::Entry{Qt::Key_Return, QStringLiteral("Enter"), tr("new stint"), tr("same club, taken up anew"),
                              false};
        break;
    case Phase::striking:
        if (!stand.confirmed) {
            keys << KeyRow::Entry{Qt::Key_Return, QStringLiteral("Enter"), tr("yes, %1").arg(tag), {}, true};
            keys << KeyRow::Entry{Qt::Key_L, QStringLiteral("L"), tr("no, still the last"),
                                  tr("the club had not changed"), true};
        }
        break;
    }
    keys << call;
    keys << KeyRow::Entry{Qt::Key_N, QStringLiteral("N"), tr("no reading"), tr("hit it again"), false};
    keys << hand << undo << feel << guess << rest;
    if (keys.size() < 8)
        keys << KeyRow::Entry{Qt::Key_W, QStringLiteral("W"), tr("a word"), tr("reason, or a note"), false};
    return keys;
}

QString courseLine(const record::Test& test, const bay::Stand& stand) {
    QStringList parts;
    if (test.stage == record::Stage::test && stand.phase != Phase::noPlan)
        parts << tr("lap %1 of %2").arg(stand.round).arg(stand.rounds);
    if (stand.swings > 0)
        parts << swingsText(test, stand);
    if (test.plan.restEvery > 0 && stand.swings > 0 && stand.sinceRest >= test.plan.restEvery)
        parts << tr("%1 without a rest: time for one").arg(stand.sinceRest);
    return parts.join(QStringLiteral(" · "));
}

QString averagesLine(const record::Test& test, const record::DisplayUnits& units) {
    if (!maySeeAverages(test, Eyes::fitter) || test.shots.empty())
        return {};
    const record::Test known = bay::withoutUnnamed(test);
    const auto structure = record::structureOf(known);
    const Metric metric = firstMetrics(test.card).front();
    const auto column = judge::columnOf(known, structure, metric, judge::Taken::counted);
    QStringList parts;
    for (std::size_t build = 0; build < known.builds.size(); ++build)
        if (const auto summary = judge::summarise(column, build))
            parts << nameOf(known, build) + QLatin1Char(' ') +
                         QString::fromStdString(record::MetricFormat(metric, units).withUnit(summary->mean));
    return parts.isEmpty() ? QString()
                           : tr("average %1 so far: ").arg(QString::fromStdString(record::info(metric).label)) +
                                 parts.join(QStringLiteral(", "));
}

} // namespace knot::app
