#include "app/bay_page/keys/commands.h"

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_page.h"
#include "app/bay_page/bay_words.h"
#include "app/bay_page/hand_actions.h"
#include "app/bay_page/keys/command_due.h"
#include "app/bay_page/number_actions.h"
#include "app/bay_page/said_actions.h"

#include <algorithm>
#include <array>

namespace knot::app {
namespace {

using bay::Phase;
using Said = BayWords;

template<Due due> Due always(const Situation& now) {
    return now.stand.phase() == Phase::noPlan ? Due::no : due;
}

template<std::size_t place> QString tagTitle(const Situation& now) {
    const auto* bag = inBag(now);
    return bag != nullptr && place < bag->size() ? nameOf(now.test, (*bag)[place]) : QString();
}

template<std::size_t place> Due tagDue(const Situation& now) {
    const auto* bag = inBag(now);
    return bag != nullptr && place < bag->size() ? Due::next : Due::no;
}

template<std::size_t place> constexpr BayCommand tag(int key, const char* cap) {
    return {.key = key, .cap = cap, .title = tagTitle<place>, .due = tagDue<place>, .run = [](BayPage& page) {
                page.actions().nameTag(place);
            }};
}

template<record::Versus versus> constexpr BayCommand comparison(int key, const char* cap, const char* help) {
    return {.key = key,
            .cap = cap,
            .help = help,
            .due = [](const Situation& now) { return now.test.shots.empty() ? Due::no : unlessWarmingUp(now); },
            .run = [](BayPage& page) { page.actions().said().compare(versus); }};
}

const std::array commands = {
    BayCommand{.key = Qt::Key_T,
               .cap = "T",
               .help = QT_TRANSLATE_NOOP("Bay", "takes another club where nothing is planned, as its digit does"),
               .title = [](const Situation&) { return Said::tr("another club"); },
               .hint = [](const Situation&) { return Said::tr("its number, or a name"); },
               .due = [](const Situation& now) { return now.stand.phase() == Phase::free ? Due::shown : Due::no; },
               .run = [](BayPage& page) { page.actions().hands().takeClub(); }},
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
                       return unconfirmed(now) ? Said::tr("no, still the last") : Said::tr("the shots");
                   },
               .hint =
                   [](const Situation& now) {
                       return unconfirmed(now) ? Said::tr("the club had not changed") : Said::tr("to put right");
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
    BayCommand{
        .key = Qt::Key_A,
        .cap = "A",
        .help = QT_TRANSLATE_NOOP("Bay", "takes another shaft, head or grip where nothing is planned"),
        .title =
            [](const Situation& now) { return inBag(now) != nullptr ? tagTitle<10>(now) : Said::tr("another shaft"); },
        .hint = [](const Situation& now) { return inBag(now) != nullptr ? QString() : Said::tr("in this head"); },
        .due =
            [](const Situation& now) {
                if (inBag(now) != nullptr)
                    return tagDue<10>(now);
                const auto* free = now.stand.as<bay::Free>();
                return free != nullptr && free->build ? Due::shown : Due::no;
            },
        .run =
            [](BayPage& page) {
                const bool naming = inBag(page.actions().situation()) != nullptr;
                naming ? page.actions().nameTag(10) : page.actions().hands().anotherPart();
            }},
    BayCommand{.key = Qt::Key_B,
               .cap = "B",
               .help = QT_TRANSLATE_NOOP("Bay", "says that the club in hand is the player's own, which others are held "
                                                "against"),
               .title = tagTitle<11>,
               .due =
                   [](const Situation& now) {
                       if (inBag(now) != nullptr)
                           return tagDue<11>(now);
                       const auto* free = now.stand.as<bay::Free>();
                       return free != nullptr && free->build ? Due::works : Due::no;
                   },
               .run =
                   [](BayPage& page) {
                       const bool naming = inBag(page.actions().situation()) != nullptr;
                       naming ? page.actions().nameTag(11) : page.actions().hands().ownClub();
                   }},
    BayCommand{.key = Qt::Key_O,
               .cap = "O",
               .help = QT_TRANSLATE_NOOP("Bay", "says who hits and has hit, or which of several hits now"),
               .title = [](const Situation&) { return Said::tr("who hits?"); },
               .hint =
                   [](const Situation& now) {
                       return QString::fromStdString(now.test.players.size() > 1 ? now.test.playerNames()
                                                                                 : now.test.firstPlayer().name);
                   },
               .due =
                   [](const Situation& now) {
                       return now.test.players.size() != 1 ? always<Due::shown>(now) : always<Due::works>(now);
                   },
               .run = [](BayPage& page) { page.actions().hands().whoHits(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Wh&o hits…"),
               .menuName = "actionWhoHits",
               .menuGroup = 4},
    BayCommand{.key = Qt::Key_Space,
               .cap = "Space",
               .help = QT_TRANSLATE_NOOP("Bay", "calls a mishit before its number shows, or counts it after all"),
               .title =
                   [](const Situation& now) {
                       const record::Shot* last = now.last.in(now.test);
                       if (last != nullptr && last->status == record::ShotStatus::setAside)
                           return Said::tr("count it after all");
                       return now.stand.phase() == Phase::free ? Said::tr("a mishit") : Said::tr("called a mishit");
                   },
               .hint =
                   [](const Situation& now) {
                       return now.stand.phase() == Phase::free ? Said::tr("the last one, or the next")
                                                               : Said::tr("before its number shows");
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
               .help = QT_TRANSLATE_NOOP("Bay", "says that nothing was measured"),
               .title = [](const Situation&) { return Said::tr("not measured"); },
               .hint = [](const Situation&) { return Said::tr("hit it again"); },
               .due = whileStruck,
               .run = [](BayPage& page) { page.actions().noReading(); }},
    BayCommand{.key = Qt::Key_H,
               .cap = "H",
               .help = QT_TRANSLATE_NOOP("Bay", "types a shot, as three figures do, or figures with a decimal mark"),
               .title = [](const Situation&) { return Said::tr("type a shot"); },
               .hint = [](const Situation&) { return Said::tr("or three figures, Enter"); },
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
               .title = [](const Situation&) { return Said::tr("undo"); },
               .hint = [](const Situation&) { return Said::tr("Shift+U does it again"); },
               .due = unlessNewVisit,
               .run = [](BayPage& page) { page.actions().run().undo(); }},
    BayCommand{.key = Qt::Key_F,
               .cap = "F",
               .help = QT_TRANSLATE_NOOP("Bay", "feel"),
               .title = [](const Situation&) { return Said::tr("feel"); },
               .hint = [](const Situation&) { return Said::tr("how was that stint?"); },
               .due = aboutStint,
               .run = [](BayPage& page) { page.feel(); }},
    BayCommand{
        .key = Qt::Key_G,
        .cap = "G",
        .help = QT_TRANSLATE_NOOP("Bay", "guess"),
        .title = [](const Situation&) { return Said::tr("guess"); },
        .hint = [](const Situation&) { return Said::tr("which one was that?"); },
        .due = [](const Situation& now) { return now.stand.phase() == Phase::nameTag ? Due::works : aboutStint(now); },
        .run = [](BayPage& page) { page.actions().said().guess(); }},
    BayCommand{
        .key = Qt::Key_Q,
        .cap = "Q",
        .help = QT_TRANSLATE_NOOP(
            "Bay", "calls a shot good, so-so or bad, or swing and strike apart, before its number shows; it counts"),
        .title = [](const Situation&) { return Said::tr("good, so-so, bad"); },
        .hint = [](const Situation&) { return Said::tr("it counts all the same"); },
        .due = [](const Situation& now) { return isStruck(now) ? Due::works : unlessWarmingUp(now); },
        .run = [](BayPage& page) { page.actions().said().call(); }},
    comparison<record::Versus::better>(Qt::Key_Plus, "+", QT_TRANSLATE_NOOP("Bay", "better than the club before")),
    comparison<record::Versus::worse>(Qt::Key_Minus, "-", QT_TRANSLATE_NOOP("Bay", "worse than the club before")),
    comparison<record::Versus::same>(Qt::Key_Equal, "=", QT_TRANSLATE_NOOP("Bay", "can't tell it from the one before")),
    BayCommand{.key = Qt::Key_R,
               .cap = "R",
               .help = QT_TRANSLATE_NOOP("Bay", "rest"),
               .title = [](const Situation&) { return Said::tr("rest"); },
               .hint =
                   [](const Situation& now) {
                       return now.stand.sinceRest > 0 ? Said::tr("%1 swings without one").arg(now.stand.sinceRest)
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
               .help = QT_TRANSLATE_NOOP("Bay", "a word: the reason of a set-aside, that of a flag, or a note"),
               .title = [](const Situation&) { return Said::tr("a word"); },
               .hint = [](const Situation&) { return Said::tr("reason, or a note"); },
               .due = [](const Situation& now) { return isStruck(now) ? Due::shown : always<Due::works>(now); },
               .run = [](BayPage& page) { page.actions().said().word(); }},
    BayCommand{.key = Qt::Key_Z,
               .cap = "Z",
               .help = QT_TRANSLATE_NOOP("Bay", "plants a flag at this moment; W gives it its words later"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().said().flag(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Plant a fla&g"),
               .menuName = "actionFlag",
               .menuGroup = 3},
    BayCommand{.key = Qt::Key_J,
               .cap = "J",
               .help = QT_TRANSLATE_NOOP("Bay", "brings another player"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().hands().nextPlayer(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Another pla&yer joins…"),
               .menuName = "actionNextPlayer",
               .menuGroup = 4},
    BayCommand{.key = Qt::Key_E,
               .cap = "E",
               .help = QT_TRANSLATE_NOOP("Bay", "says what is expected of the club, before its stint"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().said().expect(); }},
    BayCommand{.key = Qt::Key_I,
               .cap = "I",
               .help = QT_TRANSLATE_NOOP("Bay", "explains the last shot beside the others with its club"),
               .due = [](const Situation& now) { return now.test.shots.empty() ? Due::no : always<Due::works>(now); },
               .run = [](BayPage& page) { page.actions().numbers().explain(); }},
    BayCommand{.key = Qt::Key_D,
               .cap = "D",
               .help = QT_TRANSLATE_NOOP("Bay", "says which delivery or shot is asked for"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().hands().askDelivery(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "&Delivery or shot asked for…"),
               .menuName = "actionDelivery",
               .menuGroup = 4},
    BayCommand{.key = Qt::Key_E,
               .isShifted = true,
               .cap = "Shift+E",
               .help = QT_TRANSLATE_NOOP("Bay", "marks a changed day: wind, light, balls"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().hands().changeDay(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "The da&y changed"),
               .menuName = "actionMarkDay",
               .menuGroup = 3},
    BayCommand{.key = Qt::Key_Y,
               .cap = "Y",
               .help = QT_TRANSLATE_NOOP("Bay", "makes a fair test of two clubs that were hit"),
               .due = [](const Situation& now) { return now.stand.phase() == Phase::free ? Due::works : Due::no; },
               .run = [](BayPage& page) { page.actions().hands().fairTest(); },
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
               .menuText = QT_TRANSLATE_NOOP("Bay", "Match a device's &file to the plan…"),
               .menuName = "actionLay",
               .menuGroup = 1,
               .ofPlan = true},
    BayCommand{.key = Qt::Key_N,
               .isShifted = true,
               .cap = "Shift+N",
               .help = QT_TRANSLATE_NOOP("Bay", "chooses the numbers that stand in the bay"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().numbers().choose(); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "Numbers while &hitting…"),
               .menuName = "actionNumbers",
               .menuGroup = 2},
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
               .run = [](BayPage& page) { page.actions().hands().mark(record::Mark::club); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "This &club changed"),
               .menuName = "actionMarkClub",
               .menuGroup = 3},
    BayCommand{.key = Qt::Key_P,
               .cap = "P",
               .help = QT_TRANSLATE_NOOP("Bay", "keeps a tip, or what the player changed"),
               .due = always<Due::works>,
               .run = [](BayPage& page) { page.actions().hands().mark(record::Mark::player); },
               .menuText = QT_TRANSLATE_NOOP("Bay", "A t&ip, or the player changed"),
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

const BayCommand* commandFor(int key, bool isShifted, const Situation& now) {
    const auto* const at = std::ranges::find_if(commands, [&](const BayCommand& command) {
        return command.key == key && key != 0 && command.isShifted == isShifted && command.due(now) != Due::no;
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
            parts << QStringLiteral("`%1` %2").arg(QLatin1String(command.cap), Said::tr(command.help));
    return parts.join(QStringLiteral(", ")) + QLatin1Char('.');
}

} // namespace knot::app
