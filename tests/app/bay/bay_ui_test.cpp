// Tests struck in the real window, with the simulated monitor, by keys alone.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/player_window.h"
#include "app/form/ask_bar.h"
#include "app/hands.h"
#include "app/line.h"
#include "app/stand_in.h"
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"

#include <QLabel>
#include <catch2/catch.hpp>

#include <algorithm>
#include <set>

using namespace knot;
using bay::Phase;
using knot::test::addClubs;
using knot::test::Bench;
using knot::test::declareSealed;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::Line;
using knot::test::StandIn;

namespace {

const QStringList shafts{"Reed 53", "Alder 62", "Larch 71"};

// An open test of two clubs, three laps of two, no warm-up, in the bay.
void openTest(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.fill("question", "Two balls?");
    hands.press(Qt::Key_3, Qt::AltModifier);
    addClubs(hands, {"Larch", "Reed"});
    bench.session.declaring().change("the plan", [](record::Declared& test) {
        test.plan.rounds = 3;
        test.plan.turnLength = 2;
        test.plan.warmUp = 0;
        test.card.setAsideRule = record::SetAsideRule::called;
    });
    hands.press(Qt::Key_5, Qt::AltModifier);
}

bay::Stand standOf(Bench& bench) {
    return bay::standOf(bench.session.test());
}

app::NowPicture now(Bench& bench) {
    return bench.find<app::NowView>("now")->picture();
}

void hitBoth(Bench& bench, double carry) {
    record::Readings readings;
    readings.measure(record::Metric::carry, carry);
    readings.measure(record::Metric::ballSpeed, carry / 2.6);
    bench.session.bay().arrive({{readings, {}, {}, {}}});
}

} // namespace

TEST_CASE("a whole blind test is struck with a faulty monitor, nothing is lost, and the reading is right") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, shafts);
    hands.press(Qt::Key_5, Qt::AltModifier);
    auto* page = bench.find<app::BayPage>("bayPage");
    REQUIRE(page->server().isListening());
    StandIn monitor(bench, page->server().port(),
                    {"--missed", "0.06", "--no-spin", "0.05", "--no-attack", "0.05", "--no-strike", "0.05",
                     "--duplicate", "0.06", "--late", "0.06", "--disconnect", "0.04", "--junk", "0.04"});
    REQUIRE(QTest::qWaitFor([&] { return !page->server().devices().isEmpty(); }, 5000));
    for (int i = 0; i < 3; ++i)
        monitor.swing();
    for (int step = 0; step < 400 && standOf(bench).phase() != Phase::done; ++step) {
        const auto stand = standOf(bench);
        const auto* striking = stand.as<bay::Striking>();
        if (striking != nullptr && striking->confirmed)
            monitor.swing();
        else
            hands.press(Qt::Key_Return);
    }
    REQUIRE(standOf(bench).phase() == Phase::done);
    // Every acknowledged shot is there once, and what was sent and not acknowledged comes yet.
    REQUIRE(QTest::qWaitFor(
        [&] {
            const QStringList sent = monitor.logged("sent");
            const QStringList acked = monitor.logged("acked");
            return std::set<QString>(sent.begin(), sent.end()) == std::set<QString>(acked.begin(), acked.end());
        },
        5000));
    std::multiset<std::string> kept;
    const auto onDisk =
        logbook::Logbook::read(bench.session.book().path().toStdString())->load(bench.session.test().id);
    REQUIRE(onDisk);
    CHECK(*onDisk == bench.session.test());
    for (const auto& shot : onDisk->shots)
        kept.insert(shot.readId);
    for (const QString& id : monitor.logged("acked"))
        CHECK(kept.count("link:" + id.toStdString()) == 1);
    CHECK(std::ranges::any_of(onDisk->shots, [](const record::Shot& shot) { return !bay::isRead(shot); }));
    const auto filled = bay::Tally(*onDisk).filled();
    for (record::PlannedAt turn; turn < filled.size(); ++turn)
        CHECK(filled[turn] >= bay::wantedShots(*onDisk, turn));
    // Whatever club a tag hides, the monitor strikes faster with the one tagged as its own fast club.
    hands.press(Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    const auto& reading = *bench.session.judging().reading();
    CHECK(reading.roundsDone == 6);
    CHECK(reading.roundsBeyond == 0);
    const record::BuildAt fern = *bench.session.test().buildIndex("Fern");
    int found = 0;
    for (const auto& row : reading.average)
        if (row.metric == record::Metric::carry && (row.build == fern || row.against == fern)) {
            CHECK((row.claim.verdict == judge::Verdict::real || row.claim.verdict == judge::Verdict::realSizeOpen));
            CHECK((row.gap > 0) == (row.build == fern));
            ++found;
        }
    CHECK(found == 2);
    bench.session.declaring().reveal(words);
    CHECK(eventually([&] { return !bench.session.isSealed(); }));
}

TEST_CASE("a missed read, a call, a late set-aside, undo and redo, each by its key") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    const auto& test = bench.session.test();
    hands.press(Qt::Key_Return);
    CHECK(standOf(bench).phase() == Phase::striking);
    CHECK(now(bench).count == "shot 1 of 2");
    SECTION("no reading is hit again") {
        hands.press(Qt::Key_N);
        CHECK(test.shots.size() == 1);
        CHECK(now(bench).count == "shot 1 of 2");
        CHECK(now(bench).below.contains("not measured"));
    }
    SECTION("a call before the number shows") {
        hitBoth(bench, 150);
        CHECK(now(bench).last.isEmpty()); // the number waits for the player
        hands.press(Qt::Key_Space);
        CHECK(test.shots[0].status == record::ShotStatus::setAside);
        CHECK(test.shots[0].setAsideWhen == record::SetAsideWhen::called);
        hands.press(Qt::Key_W);
        hands.type("thin");
        hands.press(Qt::Key_Return);
        CHECK(test.shots[0].reason == "thin");
        hands.press(Qt::Key_Space);
        CHECK(test.shots[0].status == record::ShotStatus::counted);
    }
    SECTION("a call while the ball is in the air") {
        hands.press(Qt::Key_Space);
        CHECK(now(bench).below.contains("coming shot"));
        hitBoth(bench, 120);
        CHECK(test.shots[0].setAsideWhen == record::SetAsideWhen::called);
        CHECK(now(bench).count == "shot 1 of 2");
    }
    SECTION("a set-aside after the number is kept as one") {
        hitBoth(bench, 120);
        REQUIRE(eventually([&] { return !now(bench).last.isEmpty(); }));
        CHECK(now(bench).last.front().startsWith("120.0"));
        hands.press(Qt::Key_S);
        CHECK(bench.find<app::AskBar>("askBar")->question().contains("after its number was seen"));
        hands.type("fat");
        hands.press(Qt::Key_Return);
        CHECK(test.shots[0].isSetAsideLate());
        CHECK(test.shots[0].reason == "fat");
    }
    SECTION("anything is taken back and done again") {
        hitBoth(bench, 150);
        hitBoth(bench, 151);
        CHECK(standOf(bench).phase() == Phase::handOver);
        const auto before = test;
        hands.press(Qt::Key_U);
        CHECK(test.shots.size() == 1);
        CHECK(standOf(bench).phase() == Phase::striking);
        hands.press(Qt::Key_Z, Qt::ControlModifier);
        CHECK(test.shots.empty());
        CHECK(test.frozenHash.empty());
        hands.press(Qt::Key_U, Qt::ShiftModifier);
        hands.press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
        CHECK(test == before);
        CHECK(*logbook::Logbook::read(bench.session.book().path().toStdString())->load(test.id) == test);
    }
    SECTION("a sheet that keeps every shot says so") {
        bench.session.declaring().change(
            "the rule", [](record::Declared& t) { t.card.setAsideRule = record::SetAsideRule::keepAll; });
        hitBoth(bench, 150);
        hands.press(Qt::Key_Space);
        CHECK(test.shots[0].status == record::ShotStatus::counted);
        CHECK(bench.message().contains("keeps every shot"));
    }
}

TEST_CASE("a shot is typed with as few keys as its number") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    hands.press(Qt::Key_Return);
    for (const char* text : {"151.5", "149"}) {
        hands.type(text);
        hands.press(Qt::Key_Return);
    }
    const auto& test = bench.session.test();
    REQUIRE(test.shots.size() == 2);
    CHECK(test.shots[0].readings.at(record::Metric::carry) == 151.5);
    CHECK(test.shots[1].readings.at(record::Metric::carry) == 149);
    CHECK(standOf(bench).phase() == Phase::handOver);
    hands.type("1o5");
    hands.press(Qt::Key_Return);
    CHECK(test.shots.size() == 2); // what is no number stays where it was typed
    hands.press(Qt::Key_Escape);
    hands.press(Qt::Key_Return);
    CHECK(standOf(bench).stint()->turn == 1U);
    CHECK(standOf(bench).phase() == Phase::striking);
}

TEST_CASE("one button is enough: it confirms what is due, else it calls a mishit") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    for (int turn = 0; turn < 6; ++turn) {
        hands.press(Qt::Key_PageDown);
        hitBoth(bench, 150);
        if (turn == 2) {
            hands.press(Qt::Key_PageDown);
            CHECK(bench.session.test().shots.back().status == record::ShotStatus::setAside);
            hitBoth(bench, 150);
        }
        hitBoth(bench, 151);
    }
    CHECK(standOf(bench).phase() == Phase::done);
    CHECK(bench.session.test().shots.size() == 13);
}

TEST_CASE("alone, the screen never tells the club before its tag is entered") {
    Bench bench;
    Hands hands(bench);
    knot::test::putInBag(bench, hands, shafts);
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_Return); // warm enough
    CHECK(now(bench).caption.contains("Draw a club"));
    Line line(bench.find<app::BayPage>("bayPage")->server().port());
    line.say(knot::test::hello());
    CHECK(line.hears("from the bag"));
    for (const auto& build : bench.session.test().builds)
        CHECK_FALSE(line.heard.contains(QByteArray::fromStdString(build.name)));
    hands.press(Qt::Key_Return);
    for (int i = 0; i < 4; ++i) {
        CHECK(!now(bench).build);
        for (const auto& build : bench.session.test().builds)
            CHECK(!now(bench).name.contains(QString::fromStdString(build.name)));
        hitBoth(bench, 150);
    }
    CHECK(standOf(bench).phase() == Phase::nameTag);
    const auto tag = standOf(bench).stint()->inBag[1];
    hands.press(Qt::Key_2);
    CHECK(bench.session.test().shots.back().build == tag);
    CHECK(standOf(bench).phase() == Phase::handOver);
    CHECK(standOf(bench).stint()->inBag.size() == 2);
    // Typed shots end in the tag's key as well, which is no number.
    hands.press(Qt::Key_Return);
    for (int i = 0; i < 4; ++i) {
        hands.letters("151");
        hands.press(Qt::Key_Return);
    }
    REQUIRE(standOf(bench).phase() == Phase::nameTag);
    const std::size_t shots = bench.session.test().shots.size();
    hands.press(Qt::Key_1);
    CHECK(standOf(bench).phase() == Phase::handOver);
    CHECK(bench.session.test().shots.size() == shots);
}

TEST_CASE("the player's window shows only what the player may see") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts);
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_V);
    auto* page = bench.find<app::BayPage>("bayPage");
    REQUIRE(page->playerWindowShows());
    hands.press(Qt::Key_Return);
    CHECK(page->playerWindow()->picture().name == "Wait");
    hands.press(Qt::Key_Return);
    CHECK(page->playerWindow()->picture().name == "Swing");
    CHECK(!page->playerWindow()->picture().build);
    CHECK(now(bench).build);
    bench.session.declaring().change("what is seen",
                                     [](record::Declared& t) { t.card.visibility.shots = record::Sees::fitter; });
    hitBoth(bench, 150);
    CHECK(eventually([&] { return !now(bench).last.isEmpty(); }));
    CHECK(page->playerWindow()->picture().last.isEmpty());
    bench.session.declaring().change("what is seen",
                                     [](record::Declared& t) { t.card.visibility.shots = record::Sees::nobody; });
    CHECK(now(bench).last.isEmpty());
    hands.press(Qt::Key_V);
    CHECK(!page->playerWindowShows());
}

TEST_CASE("feel, guess, conditions, rest, marks and a stop, by keys") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    const auto& test = bench.session.test();
    hands.press(Qt::Key_Return);
    hitBoth(bench, 150);
    hands.press(Qt::Key_C);
    hitBoth(bench, 151);
    CHECK(test.shots[1].mark == record::Mark::club);
    hands.press(Qt::Key_F);
    hands.type("7");
    hands.press(Qt::Key_Down);
    hands.press(Qt::Key_Right);
    hands.press(Qt::Key_Right);
    hands.press(Qt::Key_Return);
    REQUIRE(test.feels.size() == 1);
    CHECK(test.feels[0].scores[0] == 7);
    CHECK(test.feels[0].scores[1] == 2);
    CHECK(test.feels[0].turn == "1");
    hands.press(Qt::Key_G);
    hands.press(Qt::Key_2);
    REQUIRE(test.guesses.size() == 1);
    CHECK(test.nameOf(test.guesses[0].said) == "Reed");
    hands.press(Qt::Key_K);
    hands.press(Qt::Key_Down);
    CHECK(test.sittings.back().conditions.place == record::Place::indoors);
    hands.fill("surface", "mat");
    CHECK(test.sittings.back().conditions.surface == "mat");
    hands.press(Qt::Key_Escape);
    hands.press(Qt::Key_R);
    CHECK(now(bench).below.contains("resting"));
    CHECK(test.events.back().kind == record::EventKind::rest);
    hands.press(Qt::Key_R);
    hands.press(Qt::Key_X);
    hands.type("pain");
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_2); // stop for today
    CHECK(test.events.back().text.starts_with("pain"));
    CHECK(bench.message().contains("physiotherapist"));
    CHECK(*logbook::Logbook::read(bench.session.book().path().toStdString())->load(test.id) == test);
}

TEST_CASE("changes of the plan in the bay are amendments, taken back too") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    const auto& test = bench.session.test();
    hands.press(Qt::Key_Return);
    hitBoth(bench, 150);
    bench.trigger("actionEndStint");
    CHECK(standOf(bench).stint()->turn == 1U);
    CHECK(test.amendments.back().text == "Stint 1 ended after 1 of 2 shots");
    bench.trigger("actionAnotherLap");
    CHECK(test.turns.size() == 8);
    bench.trigger("actionLeaveOut");
    hands.press(Qt::Key_1);
    hands.type("the tip broke");
    hands.press(Qt::Key_Return);
    CHECK(test.amendments.back().text.find("Larch was left out from here on: the tip broke") == 0);
    bench.trigger("actionEndHere");
    hands.press(Qt::Key_Return);
    CHECK(standOf(bench).phase() == Phase::done);
    hands.press(Qt::Key_U);
    CHECK(standOf(bench).phase() == Phase::handOver);
    CHECK(test.amendments.back().text.find("taken back") != std::string::npos);
    CHECK(test.amendments.size() == 5);
}

TEST_CASE("a click on the face says where the last shot met it, mirrored for left-handers") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    const bool leftHanded = GENERATE(false, true);
    bench.session.declaring().change("the player", [&](record::Declared& test) {
        test.players = {{.id = {}, .name = "Marit Aasgaard", .leftHanded = leftHanded}};
    });
    hands.press(Qt::Key_Return);
    auto* face = bench.find<app::FaceView>("face");
    QTest::mouseClick(face, Qt::LeftButton, {}, face->rect().center());
    CHECK(bench.session.test().shots.empty()); // nothing to say it of
    hitBoth(bench, 150);
    QTest::mouseClick(face, Qt::LeftButton, {}, face->rect().center() + QPoint(40, -20));
    const auto& readings = bench.session.test().shots[0].readings;
    REQUIRE(readings.has(record::Metric::strikeToe));
    CHECK((*readings.at(record::Metric::strikeToe) > 3) == leftHanded); // the toe is to the right
    CHECK((*readings.at(record::Metric::strikeToe) < -3) == !leftHanded);
    CHECK(*readings.at(record::Metric::strikeHigh) > 0);
    const double high = *readings.at(record::Metric::strikeHigh);
    face->setFocus();
    hands.press(Qt::Key_Down);
    CHECK(*readings.at(record::Metric::strikeHigh) == high - 2);
    QTest::mouseClick(face, Qt::LeftButton, {}, QPoint(2, 2)); // beside the face
    CHECK(*readings.at(record::Metric::strikeHigh) == high - 2);
}

TEST_CASE("when all is struck each tag is guessed once, and Enter leads to the reading") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    hands.press(Qt::Key_Return);
    hitBoth(bench, 150);
    bench.trigger("actionEndHere");
    hands.press(Qt::Key_Return);
    REQUIRE(standOf(bench).phase() == Phase::done);
    hands.press(Qt::Key_G);
    hands.press(Qt::Key_2);
    hands.press(Qt::Key_1);
    const auto& guesses = bench.session.test().guesses;
    REQUIRE(guesses.size() == 2);
    CHECK(bench.session.test().nameOf(guesses[0].said) == "Reed");
    CHECK(bench.session.test().nameOf(guesses[1].said) == "Larch");
    CHECK(guesses[1].turn.empty());
    hands.press(Qt::Key_Return);
    CHECK(bench.find<QWidget>("ledger")->isVisibleTo(bench.window.get()));
}

TEST_CASE("a device's file is laid on the plan, shifted and kept by keys") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    QByteArray csv = "Carry (m)\n";
    for (int i = 0; i < 11; ++i) // one of the twelve was not read
        csv += QByteArray::number(150 + i) + "\n";
    bench.prompter->answers << bench.writeFile("device.csv", csv);
    bench.trigger("actionLay");
    auto* totals = bench.find<QLabel>("layTotals");
    CHECK(eventually([&] { return totals->text().contains("12 planned · 11 matched"); }));
    CHECK(totals->text().contains("1 not struck"));
    hands.press(Qt::Key_Down);
    hands.press(Qt::Key_Down);
    hands.press(Qt::Key_G);
    CHECK(totals->text().contains("1 missed · it fits"));
    hands.press(Qt::Key_Return);
    const auto& test = bench.session.test();
    REQUIRE(test.shots.size() == 12);
    CHECK(!bay::isRead(test.shots[2]));
    CHECK(test.shots[3].readings.at(record::Metric::carry) == 152);
    CHECK(standOf(bench).stint()->turn == 1U); // the missed one is still to be hit
    hands.press(Qt::Key_U);
    CHECK(test.shots.empty());
}

TEST_CASE("on another day the test waits for a sitting, and its warm-up comes first") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    hands.press(Qt::Key_Return);
    hitBoth(bench, 150);
    bench.session.declaring().change("the plan", [](record::Declared& test) { test.plan.warmUp = 3; });
    const auto later = QDateTime::currentDateTime().addDays(1);
    bench.session.bay().setClock([=] { return later; });
    bench.window->showPage(app::PageId::bay);
    CHECK(now(bench).name == "A new sitting");
    hands.press(Qt::Key_Return);
    CHECK(standOf(bench).phase() == Phase::warmUp);
    CHECK(bench.session.test().sittings.size() == 2);
    hitBoth(bench, 140);
    CHECK(bench.session.test().shots.back().status == record::ShotStatus::warmUp);
    hands.press(Qt::Key_Return);
    CHECK(standOf(bench).phase() == Phase::handOver); // the club is handed over again
    CHECK(standOf(bench).stint()->turn == 0U);
}

TEST_CASE("typed words are one step to undo") {
    Bench bench;
    Hands hands(bench);
    openTest(bench, hands);
    hands.press(Qt::Key_Return);
    hitBoth(bench, 150);
    hands.press(Qt::Key_F);
    hands.press(Qt::Key_Tab);
    hands.type("dull and heavy");
    hands.press(Qt::Key_Return);
    REQUIRE(bench.session.test().feels.size() == 1);
    CHECK(bench.session.test().feels[0].words == "dull and heavy");
    CHECK(standOf(bench).phase() == Phase::striking); // Enter ended the words and nothing else
    hands.press(Qt::Key_U);
    CHECK(bench.session.test().feels.empty());
    CHECK(bench.session.test().shots.size() == 1);
}
