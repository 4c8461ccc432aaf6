#include "app/bay_page/commands.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_page.h"
#include "app/bay_page/bay_words.h"

#include <QCoreApplication>

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

using bay::Phase;

struct Words {
    Q_DECLARE_TR_FUNCTIONS(Bay)
};

// The clubs that a tag can be entered for.
const std::vector<record::BuildAt>* inBag(const Situation& now) {
    const auto* unnamed = now.stand.as<bay::NameTag>();
    return unnamed != nullptr ? &unnamed->stint.inBag : nullptr;
}

bool isStruck(const Situation& now) { // a swing may come at any moment
    return now.stand.phase() == Phase::free || now.stand.phase() == Phase::striking;
}

bool isWarmingUp(const Situation& now) {
    const auto* free = now.stand.as<bay::Free>();
    return now.stand.phase() == Phase::warmUp || (free != nullptr && free->warmingUp);
}

bool unconfirmed(const Situation& now) {
    const auto* striking = now.stand.as<bay::Striking>();
    return striking != nullptr && !striking->confirmed;
}

template<Due due> Due always(const Situation& now) {
    return now.stand.phase() == Phase::noPlan ? Due::no : due;
}

Due whileStruck(const Situation& now) {
    return isStruck(now) ? Due::shown : Due::no;
}

// In another visit only what speaks of the stint before it.
Due unlessNewVisit(const Situation& now) {
    if (now.stand.phase() == Phase::noPlan)
        return Due::no;
    return now.anotherVisit ? Due::works : Due::shown;
}

Due aboutStint(const Situation& now) {
    return now.stand.phase() == Phase::noPlan || isWarmingUp(now) ? Due::no : Due::shown;
}

template<std::size_t place> constexpr BayCommand tag(int key, const char* cap) {
    return {.key = key,
            .cap = cap,
            .title =
                [](const Situation& now) {
                    const auto* bag = inBag(now);
                    return bag != nullptr && place < bag->size() ? nameOf(now.test, (*bag)[place]) : QString();
                },
            .due =
                [](const Situation& now) {
                    const auto* bag = inBag(now);
                    return bag != nullptr && place < bag->size() ? Due::next : Due::no;
                },
            .run = [](BayPage& page) { page.actions().nameTag(place); }};
}

QString nextTitle(const Situation& now) {
    const auto& stand = now.stand;
    if (now.anotherVisit)
        return Words::tr("begin a sitting");
    if (const auto* due = stand.as<bay::HandOver>())
        return due->stint.drawn ? Words::tr("drawn")
                                : Words::tr("%1 is in hand").arg(nameOf(now.test, due->stint.build));
    if (const auto* striking = stand.as<bay::Striking>())
        return Words::tr("yes, %1").arg(striking->stint.drawn ? Words::tr("the club")
                                                              : nameOf(now.test, striking->stint.build));
    if (isWarmingUp(now))
        return Words::tr("warm enough");
    switch (stand.phase()) {
    case Phase::done:
        return Words::tr("read it");
    default:
        return Words::tr("new stint");
    }
}

QString nextHint(const Situation& now) {
    if (now.anotherVisit)
        return Words::tr("with its own warm-up");
    switch (now.stand.phase()) {
    case Phase::warmUp:
        return Words::tr("the first club comes next");
    case Phase::done:
        return Words::tr("what the shots say");
    case Phase::free:
        return isWarmingUp(now) ? Words::tr("shots count from here on") : Words::tr("same club, taken up anew");
    default:
        return {};
    }
}

Due nextDue(const Situation& now) {
    const auto& stand = now.stand;
    if (now.anotherVisit)
        return Due::next;
    switch (stand.phase()) {
    case Phase::warmUp:
        return stand.warmUp >= stand.warmUpPlanned ? Due::next : Due::shown;
    case Phase::free:
        return isWarmingUp(now) ? Due::next : Due::shown;
    case Phase::handOver:
    case Phase::done:
        return Due::next;
    case Phase::striking:
        return unconfirmed(now) ? Due::next : Due::works;
    default:
        return Due::no;
    }
}

Due callDue(const Situation& now) {
    const record::Shot* last = now.last.in(now.test);
    if (isWarmingUp(now))
        return Due::no;
    switch (now.stand.phase()) {
    case Phase::free:
    case Phase::striking:
        return Due::shown;
    case Phase::handOver:
        return last != nullptr && !now.anotherVisit ? Due::shown : Due::no;
    case Phase::done:
    case Phase::nameTag:
        return last != nullptr ? Due::works : Due::no;
    default:
        return Due::no;
    }
}

const std::array commands = {
    BayCommand{.key = Qt::Key_T,
               .cap = "T",
               .help = QT_TRANSLATE_NOOP("Bay", "takes another club where nothing is planned"),
               .title = [](const Situation&) { return Words::tr("another club"); },
               .hint = [](const Situation&) { return Words::tr("or type a new one"); },
               .due = [](const Situation& now) { return now.stand.phase() == Phase::free ? Due::shown : Due::no; },
               .run = [](BayPage& page) { page.actions().takeClub(); }},
    BayCommand{.key = Qt::Key_Return,
               .cap = "Enter",
               .help = QT_TRANSLATE_NOOP("Bay", "confirms what is due"),
               .title = nextTitle,
               .hint = nextHint,
               .due = nextDue,
               .run = [](BayPage& page) { page.actions().next(); }},
    BayCommand{.key = Qt::Key_L,
               .cap = "L",
               .help = QT_TRANSLATE_NOOP("Bay", "lists the shots to put the record right, or says that the club had "
                                                "not changed yet"),
               .title =
                   [](const Situation& now) {
                       return unconfirmed(now) ? Words::tr("no, still the last") : Words::tr("the shots");
                   },
               .hint =
                   [](const Situation& now) {
                       return unconfirmed(now) ? Words::tr("the club had not changed") : Words::tr("to put right");
                   },
               .due =
                   [](const Situation& now) {
                       if (unconfirmed(now))
                           return Due::next;
                       if (now.stand.phase() == Phase::noPlan || now.test.shots.empty())
                           return Due::no;
                       return now.anotherVisit ? Due::works : Due::shown;
                   },
               .run =
                   [](BayPage& page) {
                       unconfirmed(page.actions().situation()) ? page.actions().stillLast() : page.showShots();
                   }},
    tag<0>(Qt::Key_1, "1"),
    tag<1>(Qt::Key_2, "2"),
    tag<2>(Qt::Key_3, "3"),
    tag<3>(Qt::Key_4, "4"),
    tag<4>(Qt::Key_5, "5"),
    tag<5>(Qt::Key_6, "6"),
    tag<6>(Qt::Key_7, "7"),
    tag<7>(Qt::Key_8, "8"),
    tag<8>(Qt::Key_9, "9"),
    tag<9>(Qt::Key_0, "0"),
    tag<10>(Qt::Key_A, "A"),
    tag<11>(Qt::Key_B, "B"),
    BayCommand{.key = Qt::Key_Space,
               .cap = "Space",
               .help = QT_TRANSLATE_NOOP("Bay", "calls a mishit before its number shows, or counts it after all"),
               .title =
                   [](const Situation& now) {
                       const record::Shot* last = now.last.in(now.test);
                       if (last != nullptr && last->status == record::ShotStatus::setAside)
                           return Words::tr("count it after all");
                       return now.stand.phase() == Phase::free ? Words::tr("a mishit") : Words::tr("called a mishit");
                   },
               .hint =
                   [](const Situation& now) {
                       return now.stand.phase() == Phase::free ? Words::tr("the last shot")
                                                               : Words::tr("before its number shows");
                   },
               .due = callDue,
               .run = [](BayPage& page) { page.actions().callMishit(); }},
    BayCommand{.key = Qt::Key_S,
               .cap = "S",
               .help = QT_TRANSLATE_NOOP("Bay", "sets the last shot aside with its number seen"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().setAsideSeen(); }},
    BayCommand{.key = Qt::Key_N,
               .cap = "N",
               .help = QT_TRANSLATE_NOOP("Bay", "says that nothing was read"),
               .title = [](const Situation&) { return Words::tr("no reading"); },
               .hint = [](const Situation&) { return Words::tr("hit it again"); },
               .due = whileStruck,
               .run = [](BayPage& page) { page.actions().noReading(); }},
    BayCommand{.key = Qt::Key_H,
               .cap = "H",
               .help = QT_TRANSLATE_NOOP("Bay", "types a shot, as a digit does"),
               .title = [](const Situation&) { return Words::tr("type a shot"); },
               .hint = [](const Situation&) { return Words::tr("or just begin with its number"); },
               .due =
                   [](const Situation& now) {
                       const Phase phase = now.stand.phase();
                       if (phase == Phase::noPlan || phase == Phase::nameTag)
                           return Due::no;
                       return now.anotherVisit || phase == Phase::done ? Due::works : Due::shown;
                   },
               .run = [](BayPage& page) { page.typeShot({}); }},
    BayCommand{.key = Qt::Key_U,
               .cap = "U",
               .help = QT_TRANSLATE_NOOP("Bay", "takes back, and Shift+U does it again"),
               .title = [](const Situation&) { return Words::tr("undo"); },
               .hint = [](const Situation&) { return Words::tr("Shift+U does it again"); },
               .due = unlessNewVisit,
               .run = [](BayPage& page) { page.actions().undo(); }},
    BayCommand{.key = Qt::Key_F,
               .cap = "F",
               .help = QT_TRANSLATE_NOOP("Bay", "feel"),
               .title = [](const Situation&) { return Words::tr("feel"); },
               .hint = [](const Situation&) { return Words::tr("how was that stint?"); },
               .due = aboutStint,
               .run = [](BayPage& page) { page.feel(); }},
    BayCommand{
        .key = Qt::Key_G,
        .cap = "G",
        .help = QT_TRANSLATE_NOOP("Bay", "guess"),
        .title = [](const Situation&) { return Words::tr("guess"); },
        .hint = [](const Situation&) { return Words::tr("which one was that?"); },
        .due = [](const Situation& now) { return now.stand.phase() == Phase::nameTag ? Due::works : aboutStint(now); },
        .run = [](BayPage& page) { page.actions().guess(); }},
    BayCommand{.key = Qt::Key_R,
               .cap = "R",
               .help = QT_TRANSLATE_NOOP("Bay", "rest"),
               .title = [](const Situation&) { return Words::tr("rest"); },
               .hint =
                   [](const Situation& now) {
                       return now.stand.sinceRest > 0 ? Words::tr("%1 swings without one").arg(now.stand.sinceRest)
                                                      : QString();
                   },
               .due =
                   [](const Situation& now) {
                       const Phase phase = now.stand.phase();
                       if (phase == Phase::noPlan)
                           return Due::no;
                       if (now.anotherVisit || phase == Phase::done || phase == Phase::nameTag)
                           return Due::works;
                       const int every = now.test.plan.restEvery;
                       return every > 0 && now.stand.sinceRest >= every ? Due::next : Due::shown;
                   },
               .run = [](BayPage& page) { page.actions().rest(); }},
    BayCommand{.key = Qt::Key_W,
               .cap = "W",
               .help = QT_TRANSLATE_NOOP("Bay", "a word: the reason of a set-aside, or a note"),
               .title = [](const Situation&) { return Words::tr("a word"); },
               .hint = [](const Situation&) { return Words::tr("reason, or a note"); },
               .due = [](const Situation& now) { return isStruck(now) ? Due::shown : always<Due::works>(now); },
               .run = [](BayPage& page) { page.actions().word(); }},
    BayCommand{.key = Qt::Key_Y,
               .cap = "Y",
               .help = QT_TRANSLATE_NOOP("Bay", "makes a fair test of two clubs that were hit"),
               .due = [](const Situation& now) { return now.stand.phase() == Phase::free ? Due::works : Due::no; },
               .run = [](BayPage& page) { page.actions().fairTest(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "A fai&r test of two of these…"),
               .menuName = "actionFairTest",
               .menuGroup = 4},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.toggleStandIn(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&Simulated monitor"),
               .menuName = "actionStandIn",
               .menuGroup = 1,
               .isOn = [](const BayPage& page) { return page.standInRuns(); }},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { emit page.folderRequested(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&Watch a folder…"),
               .menuName = "actionWatch",
               .menuGroup = 1,
               .isOn = [](const BayPage& page) { return page.watchesFolder(); }},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.showLinkForm(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Monitor &link"),
               .menuName = "actionLink",
               .menuGroup = 1},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { emit page.layRequested(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Lay a device's &file on the plan…"),
               .menuName = "actionLay",
               .menuGroup = 1,
               .ofPlan = true},
    BayCommand{.key = Qt::Key_K,
               .cap = "K",
               .help = QT_TRANSLATE_NOOP("Bay", "conditions"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.showConditions(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Con&ditions"),
               .menuName = "actionConditions",
               .menuGroup = 2},
    BayCommand{.key = Qt::Key_V,
               .cap = "V",
               .help = QT_TRANSLATE_NOOP("Bay", "the player's window"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.togglePlayerWindow(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&Player's window"),
               .menuName = "actionPlayerWindow",
               .menuGroup = 2,
               .isOn = [](const BayPage& page) { return page.playerWindowShows(); }},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.toggleSounds(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "So&unds"),
               .menuName = "actionSounds",
               .menuGroup = 2,
               .isOn = [](const BayPage& page) { return page.soundsOn(); }},
    BayCommand{.key = Qt::Key_C,
               .cap = "C",
               .help = QT_TRANSLATE_NOOP("Bay", "marks a changed club"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().markClub(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "This &club changed"),
               .menuName = "actionMarkClub",
               .menuGroup = 3},
    BayCommand{.key = Qt::Key_P,
               .cap = "P",
               .help = QT_TRANSLATE_NOOP("Bay", "marks a changed player"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().markPlayer(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "The pla&yer changed"),
               .menuName = "actionMarkPlayer",
               .menuGroup = 3},
    BayCommand{.key = Qt::Key_M,
               .cap = "M",
               .help = QT_TRANSLATE_NOOP("Bay", "asks about a monitor that waits to be let in"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.askAboutWaitingMonitor(); }},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().endStint(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "End this s&tint"),
               .menuName = "actionEndStint",
               .menuGroup = 4,
               .ofPlan = true},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().leaveClubOut(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Leave a club &out…"),
               .menuName = "actionLeaveOut",
               .menuGroup = 4,
               .ofPlan = true},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().endHere(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&End the test here…"),
               .menuName = "actionEndHere",
               .menuGroup = 4,
               .ofPlan = true},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().anotherLap(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&Another lap"),
               .menuName = "actionAnotherLap",
               .menuGroup = 4,
               .ofPlan = true},
    BayCommand{.due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().newSitting(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&New sitting"),
               .menuName = "actionNewSitting",
               .menuGroup = 5},
    BayCommand{.key = Qt::Key_X,
               .cap = "X",
               .help = QT_TRANSLATE_NOOP("Bay", "stops for today"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().stopForToday(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Sto&p for today…"),
               .menuName = "actionStop",
               .menuGroup = 5},
    BayCommand{.key = Qt::Key_F1,
               .cap = "F1",
               .help = QT_TRANSLATE_NOOP("Bay", "lists the keys"),
               .due = [](const Situation&) { return Due::works; },
               .run = [](BayPage& page) { page.showHelp(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "List of &keys"),
               .menuName = "actionBayKeys",
               .menuGroup = 6},
};

constexpr qsizetype mostShown = 8;

} // namespace

std::span<const BayCommand> bayCommands() {
    return commands;
}

const BayCommand* commandFor(int key, const Situation& now) {
    const auto* const at = std::ranges::find_if(commands, [&](const BayCommand& command) {
        return command.key == key && key != 0 && command.due(now) != Due::no;
    });
    return at == commands.end() ? nullptr : &*at;
}

QList<KeyRow::Entry> keysFor(const Situation& now) {
    QList<KeyRow::Entry> keys;
    if (now.test.builds.empty())
        return keys;
    const bool naming = now.stand.phase() == Phase::nameTag;
    for (const BayCommand& command : commands) {
        const Due due = command.key == 0 ? Due::no : command.due(now);
        const bool shown = due == Due::shown || due == Due::next;
        if (!shown || (keys.size() >= mostShown && !(naming && due == Due::next)))
            continue;
        keys << KeyRow::Entry{command.key, QLatin1String(command.cap), command.title(now),
                              command.hint != nullptr ? command.hint(now) : QString(), due == Due::next};
    }
    return keys;
}

QString keyParagraph() {
    QStringList parts;
    for (const BayCommand& command : commands)
        if (command.key != 0 && command.help[0] != '\0')
            parts << QStringLiteral("`%1` %2").arg(QLatin1String(command.cap), Words::tr(command.help));
    return parts.join(QStringLiteral(", ")) + QLatin1Char('.');
}

} // namespace knot::app
