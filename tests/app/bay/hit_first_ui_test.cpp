// Most people hit first and decide afterwards: the bay by keys, each counted, with a device striking or not.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/entry/feel_view.h"
#include "app/bay_page/now_view.h"
#include "app/hands.h"
#include "app/stand_in.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"

#include <QLabel>
#include <QListView>
#include <QSettings>
#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::hit;
using knot::test::StandIn;

namespace {

/// Hands that count every key.
class CountedHands {
public:
    explicit CountedHands(Bench& bench)
        : m_hands(bench) {}
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        m_hands.press(key, modifiers);
        ++m_keys;
    }
    void type(const QString& text) {
        m_hands.type(text);
        m_keys += static_cast<int>(text.size());
    }
    int counted() { return std::exchange(m_keys, 0); }

private:
    knot::test::Hands m_hands;
    int m_keys = 0;
};

// The number of the last shot shows now.
void waitForNumber(Bench& bench) {
    REQUIRE(eventually([&] { return !bench.find<app::NowView>("now")->picture().last.isEmpty(); }));
}

app::NowPicture now(Bench& bench) {
    return bench.find<app::NowView>("now")->picture();
}

void justHit(CountedHands& keys) {
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
}

bool onBay(Bench& bench) {
    return bench.find<app::BayPage>("bayPage")->isVisible();
}

} // namespace

TEST_CASE("keys from nothing to hitting, to another club, to another shaft, to a second player") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    CHECK(keys.counted() <= 2);
    auto* page = bench.find<app::BayPage>("bayPage");
    QSettings().setValue("link/known", QStringList{"Simulated monitor"});
    REQUIRE(page->server().listen({.port = 0}));
    StandIn monitor(bench, page->server().port(), {});
    REQUIRE(eventually([&] { return !page->server().devices().isEmpty(); }));
    const auto& test = bench.session.test();
    auto swing = [&] {
        while (!monitor.swing()) {
        }
    };
    swing();
    CHECK(test.shots.back().status == record::ShotStatus::counted);

    keys.press(Qt::Key_T);
    keys.type("Alder");
    keys.press(Qt::Key_Return);
    CHECK(keys.counted() <= 8);
    swing();
    CHECK(test.shots.back().build == 1);

    keys.press(Qt::Key_A);
    keys.type("Larch");
    keys.press(Qt::Key_Return);
    CHECK(keys.counted() <= 10);
    CHECK(onBay(bench));
    swing();
    REQUIRE(test.builds.size() == 3);
    CHECK(test.shots.back().build == 2);
    CHECK(test.builds[1].club.head.name == test.builds[2].club.head.name);
    auto* averages = bench.find<QLabel>("averages");
    CHECK(eventually([&] { return averages->text().contains("Larch "); }));

    // A second player through the same three clubs, a swing to warm up first.
    keys.press(Qt::Key_J);
    keys.press(Qt::Key_Return);
    swing();
    keys.press(Qt::Key_Return);
    swing();
    keys.press(Qt::Key_2);
    swing();
    keys.press(Qt::Key_1);
    swing();
    CHECK(keys.counted() <= 6);
    CHECK(test.players.size() == 2);
    // Nobody's shots are averaged with another's.
    CHECK(eventually([&] { return averages->text().startsWith("average carry of Player 2 so far: Club 1 "); }));
    REQUIRE(test.shots.size() == 7);
    for (std::size_t i = 0; i < 7; ++i) {
        CHECK(test.shots[i].player == (i < 3 ? "Player 1" : "Player 2"));
        CHECK((test.shots[i].status == record::ShotStatus::warmUp) == (i == 3));
    }
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(test.shots[6 - i].build == i);

    // The shot struck three shots ago is set aside.
    keys.press(Qt::Key_L);
    keys.press(Qt::Key_Up);
    keys.press(Qt::Key_Up);
    keys.press(Qt::Key_Space);
    CHECK(keys.counted() <= 4);
    CHECK(test.shots[4].status == record::ShotStatus::setAside);
    keys.press(Qt::Key_Escape);
    const auto kept = bench.session.book().load(test.id);
    REQUIRE(kept);
    CHECK(*kept == test);
    CHECK(bench.session.book().players().size() == 2);
}

TEST_CASE("a second player warms up of their own, and undo takes each of it back") {
    Bench bench;
    CountedHands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    hit(bench, 120);
    keys.press(Qt::Key_Return);
    hit(bench, 150);
    const auto before = bench.session.test();
    bench.session.bay().callComing(record::Call::bad); // by the one who hits no more
    keys.press(Qt::Key_J);
    keys.type("Odd");
    keys.press(Qt::Key_Return);
    CHECK(bench.session.bay().comingCall() == record::Call::none);
    CHECK(now(bench).caption == "Odd · Warm up, not counted");
    hit(bench, 121);
    const auto& test = bench.session.test();
    CHECK(test.shots.back().status == record::ShotStatus::warmUp);
    CHECK(test.shots.back().player == "Odd");
    keys.press(Qt::Key_Return);
    hit(bench, 151);
    CHECK(test.shots.back().status == record::ShotStatus::counted);
    keys.press(Qt::Key_O);
    keys.press(Qt::Key_1);
    CHECK(now(bench).caption == "Player 1 · In hand");
    for (int i = 0; i < 5; ++i)
        keys.press(Qt::Key_U);
    CHECK(test.players == before.players);
    CHECK(test.shots == before.shots);
    CHECK(test.progress == before.progress);
}

TEST_CASE("Space in a sitting means the ball just struck while its number is hidden, else it asks") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    const auto& test = bench.session.test();
    hit(bench, 150);
    keys.press(Qt::Key_Space);
    CHECK(test.shots[0].status == record::ShotStatus::setAside);
    CHECK(test.shots[0].setAsideWhen == record::SetAsideWhen::called);
    keys.press(Qt::Key_U); // a slip of the finger
    CHECK(test.shots[0].status == record::ShotStatus::counted);
    CHECK(test.amendments.empty());
    waitForNumber(bench);
    SECTION("the last one, its number seen") {
        keys.press(Qt::Key_Space);
        CHECK(test.shots[0].status == record::ShotStatus::counted);
        keys.press(Qt::Key_1);
        keys.type("fat");
        keys.press(Qt::Key_Return);
        CHECK(test.shots[0].status == record::ShotStatus::setAside);
        CHECK(test.shots[0].setAsideWhen == record::SetAsideWhen::afterNumber);
        CHECK(test.shots[0].reason == "fat");
        keys.press(Qt::Key_Space); // late, and noted
        CHECK(test.shots[0].status == record::ShotStatus::counted);
        REQUIRE(test.amendments.size() == 1);
        CHECK(test.amendments[0].text == "shot 1: counted after all");
        CHECK(test.amendments[0].was.size() == 1);
    }
    SECTION("the one in the air") {
        keys.press(Qt::Key_Space);
        keys.press(Qt::Key_2);
        CHECK(now(bench).below == "the coming shot is called a mishit");
        hit(bench, 90);
        CHECK(test.shots[1].status == record::ShotStatus::setAside);
        CHECK(test.shots[1].setAsideWhen == record::SetAsideWhen::called);
        CHECK(test.shots[0].status == record::ShotStatus::counted);
    }
    SECTION("neither") {
        keys.press(Qt::Key_Space);
        keys.press(Qt::Key_Escape);
        CHECK(test.shots[0].status == record::ShotStatus::counted);
        CHECK(!bench.session.bay().isComingCalled());
    }
}

TEST_CASE("a shot is called good, so-so or bad with two keys, before its number or in the air") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    const auto& test = bench.session.test();
    hit(bench, 150);
    keys.counted();
    keys.press(Qt::Key_Q);
    keys.press(Qt::Key_3);
    CHECK(keys.counted() == 2);
    CHECK(test.shots[0].call == record::Call::bad);
    CHECK(test.shots[0].status == record::ShotStatus::counted);
    CHECK(now(bench).below.startsWith("last shot: kept, called bad"));
    keys.press(Qt::Key_U);
    CHECK(test.shots[0].call == record::Call::none);
    waitForNumber(bench);
    keys.press(Qt::Key_Q);
    keys.press(Qt::Key_1);
    CHECK(now(bench).below == "the coming shot is called good; it counts");
    hit(bench, 151);
    CHECK(test.shots[0].call == record::Call::none);
    CHECK(test.shots[1].call == record::Call::good);
    // Whoever answers when the number has shown is told so.
    keys.press(Qt::Key_Q);
    waitForNumber(bench);
    keys.press(Qt::Key_2);
    CHECK(test.shots[1].call == record::Call::good);
    CHECK(bench.message().startsWith("Its number was seen"));
}

TEST_CASE("feel, guess and comparison are of the club taken up, one key each for better and worse") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    const auto& test = bench.session.test();
    keys.press(Qt::Key_Plus, Qt::ShiftModifier);
    CHECK(test.feels.empty());
    hit(bench, 150);
    keys.press(Qt::Key_Plus, Qt::ShiftModifier);
    CHECK(bench.message().startsWith("There is no club before"));
    keys.press(Qt::Key_T);
    keys.type("Reed");
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_F);
    CHECK(bench.find<QLabel>("feelHeading")->text() == "Reed, before its first shot: how does it look and feel?");
    for (int i = 0; i < 4; ++i)
        keys.press(Qt::Key_Down);
    keys.press(Qt::Key_8); // looks
    keys.press(Qt::Key_Return);
    REQUIRE(test.feels.size() == 1);
    CHECK(test.feels[0].build == 1);
    CHECK(test.feels[0].scores[4] == 8);
    keys.press(Qt::Key_Minus);
    CHECK(test.feels[0].versus == record::Versus::worse);
    CHECK(test.feels[0].against == test.shots[0].turn);
    CHECK(now(bench).caption == "In hand · worse than the one before");
    keys.press(Qt::Key_Equal);
    CHECK(test.feels[0].versus == record::Versus::same);
    hit(bench, 151);
    CHECK(test.feels[0].turn == test.shots[1].turn);
    keys.press(Qt::Key_U);
    keys.press(Qt::Key_U);
    CHECK(test.feels[0].versus == record::Versus::worse);
    const auto kept = bench.session.book().load(test.id);
    REQUIRE(kept);
    CHECK(kept->feels == test.feels);
}

TEST_CASE("a delivery stands until another, a flag gets its words later, another day its conditions") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    const auto& test = bench.session.test();
    hit(bench, 150);
    keys.press(Qt::Key_D);
    keys.type("low");
    keys.press(Qt::Key_Return);
    CHECK(now(bench).caption == "In hand · asked for: low");
    hit(bench, 151);
    CHECK(test.shots[1].delivery == "low");
    keys.press(Qt::Key_D);
    keys.press(Qt::Key_Return);
    hit(bench, 152);
    CHECK(test.shots[2].delivery.empty());
    keys.press(Qt::Key_D);
    keys.press(Qt::Key_1);
    CHECK(test.progress.delivery == "low");

    keys.press(Qt::Key_Z);
    REQUIRE(test.events.size() == 1);
    CHECK(test.events[0].kind == record::EventKind::flag);
    CHECK(test.events[0].afterShots == 3);
    hit(bench, 153);
    keys.press(Qt::Key_W);
    keys.type("a truck went by");
    keys.press(Qt::Key_Return);
    CHECK(test.events[0].text == "a truck went by");
    CHECK(test.events[0].afterShots == 3);
    keys.press(Qt::Key_W);
    keys.type("a note");
    keys.press(Qt::Key_Return);
    REQUIRE(test.events.size() == 2);
    CHECK(test.events[1].kind == record::EventKind::note);

    keys.press(Qt::Key_E, Qt::ShiftModifier);
    CHECK(test.progress.nextMark == record::Mark::day);
    auto* wind = bench.window->findChild<QWidget*>("wind");
    REQUIRE(wind != nullptr);
    keys.press(Qt::Key_Tab);
    keys.type("6");
    keys.press(Qt::Key_Escape);
    hit(bench, 154);
    CHECK(test.shots.back().mark == record::Mark::day);
    REQUIRE(test.sittings.back().later.size() == 1);
    CHECK(test.sittings.back().later[0].conditions.wind == 6.0);
    CHECK(!test.sittings.back().conditions.wind);
    const auto kept = bench.session.book().load(test.id);
    REQUIRE(kept);
    CHECK(*kept == test);
}

TEST_CASE("every key of the bay is taken back whole by undo, and made again by redo") {
    Bench bench;
    CountedHands keys(bench);
    justHit(keys);
    for (const double carry : {150, 151})
        hit(bench, carry);
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeNewInHand(test, "Reed"); });
    hit(bench, 152);
    bench.session.bay().step("another player", 0, [](record::Test& test) {
        return bay::takeNewPlayer(test, {.id = "b", .name = "Odd"}, {.id = "a", .name = "Marit"});
    });
    keys.press(Qt::Key_Return);
    hit(bench, 153);
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeNewInHand(test, "Alder"); });
    hit(bench, 153);
    const auto& test = bench.session.test();
    const std::vector<std::vector<int>> commands = {
        {Qt::Key_T, Qt::Key_1},
        {Qt::Key_T, Qt::Key_Return},
        {Qt::Key_A, Qt::Key_Return},
        {Qt::Key_O, Qt::Key_1},
        {Qt::Key_O, Qt::Key_N, Qt::Key_Return},
        {Qt::Key_D, Qt::Key_L, Qt::Key_Return},
        {Qt::Key_E, Qt::Key_F, Qt::Key_A, Qt::Key_S, Qt::Key_T, Qt::Key_E, Qt::Key_R, Qt::Key_Return},
        {Qt::Key_J, Qt::Key_N, Qt::Key_Return},
        {Qt::Key_B},
        {Qt::Key_C},
        {Qt::Key_P},
        {Qt::Key_Z},
        {Qt::Key_W, Qt::Key_A, Qt::Key_Return},
        {Qt::Key_Plus},
        {Qt::Key_Minus},
        {Qt::Key_Equal},
        {Qt::Key_Q, Qt::Key_2},
        {Qt::Key_Space},
        {Qt::Key_N},
        {Qt::Key_R},
        {Qt::Key_Return},
        {Qt::Key_S, Qt::Key_Return},
        {Qt::Key_G, Qt::Key_1},
    };
    for (const auto& command : commands) {
        INFO("the command that begins with key " << command.front());
        if (command.front() == Qt::Key_Q || command.front() == Qt::Key_Space)
            hit(bench, 154); // whose number is hidden still
        const record::Test before = test;
        for (const int key : command)
            keys.press(static_cast<Qt::Key>(key));
        keys.press(Qt::Key_Escape);
        const record::Test after = test;
        CHECK(after != before);
        keys.press(Qt::Key_U);
        auto same = [](record::Test a, const record::Test& b) {
            a.amendments = b.amendments; // what was noted stays
            return a == b;
        };
        CHECK(same(test, before));
        keys.press(Qt::Key_U, Qt::ShiftModifier);
        CHECK(same(test, after));
        keys.press(Qt::Key_U);
        CHECK(same(*bench.session.book().load(test.id), before));
    }
}

TEST_CASE("an hour: warm-up, the own club, three candidates, one struck off, a favourite, a fair test, its reading") {
    Bench bench;
    CountedHands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    auto* page = bench.find<app::BayPage>("bayPage");
    QSettings().setValue("link/known", QStringList{"Simulated monitor"});
    REQUIRE(page->server().listen({.port = 0}));
    StandIn monitor(bench, page->server().port(), {});
    REQUIRE(eventually([&] { return !page->server().devices().isEmpty(); }));
    auto swings = [&](int count) {
        for (int i = 0; i < count; ++i)
            while (!monitor.swing()) {
            }
    };
    swings(3);
    keys.press(Qt::Key_Return);
    const std::string sitting = bench.session.test().id;
    auto shots = [&]() -> const std::vector<record::Shot>& { return bench.session.test().shots; };
    CHECK(std::ranges::all_of(shots(), [](const auto& shot) { return shot.status == record::ShotStatus::warmUp; }));
    swings(4); // the own club
    for (const char* name : {"Alder", "Reed", "Larch"}) {
        keys.press(Qt::Key_T);
        keys.type(name);
        keys.press(Qt::Key_Return);
        swings(3);
    }
    // Larch is struck off on the Rack, and Reed gone back to.
    bench.session.declaring().strikeOff(record::BuildAt(3), "too low");
    keys.press(Qt::Key_3);
    swings(3);
    CHECK(now(bench).name == "Reed");
    CHECK(std::ranges::count(shots(), record::BuildAt(2), &record::Shot::build) == 6);
    // A fair test of the own club and Reed.
    keys.press(Qt::Key_Y);
    keys.press(Qt::Key_1);
    keys.press(Qt::Key_2);
    const auto& test = bench.session.test();
    REQUIRE(test.id != sitting);
    REQUIRE(test.builds.size() == 2);
    CHECK(test.builds[1].name == "Reed");
    bench.session.declaring().change("laps", [](record::Declared& changed) {
        changed.card.primary = {{.metric = record::Metric::carry}};
        changed.plan.rounds = 2;
        changed.plan.turnLength = 2;
    });
    keys.press(Qt::Key_5, Qt::AltModifier);
    REQUIRE(page->server().listen({.port = 0}));
    StandIn again(bench, page->server().port(), {});
    REQUIRE(eventually([&] { return !page->server().devices().isEmpty(); }));
    for (int i = 0; i < 40 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
        if (bench.session.bay().stand().phase() == bay::Phase::handOver)
            keys.press(Qt::Key_Return);
        again.swing();
    }
    REQUIRE(bench.session.bay().stand().phase() == bay::Phase::done);
    keys.press(Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<QListView>("ledger")->isVisible());
    CHECK(!bench.ledgerSentence().isEmpty());
    // The hour before is still there.
    const auto hour = bench.session.book().load(sitting);
    REQUIRE(hour);
    CHECK(hour->shots.size() == 3 + 4 + 9 + 3);
}
