// A plan that is under way, declared without looks: what every way out gives away of it.
#include "app/hands.h"
#include "app/report/report_command.h"
#include "app/session/declaring.h"
#include "support/struck.h"

#include <QClipboard>
#include <QFile>
#include <QGuiApplication>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;

namespace {

// Two of five laps struck, and kept.
std::string halfStruck(Bench& bench) {
    record::Test test = test::planned(2, 5);
    test::strike(test, 12);
    test.id.clear();
    test.title = "half";
    app::freezeIfStruck(test);
    const auto id = *logbook::Logbook::create(bench.path("own.knotbook").toStdString())->save(test);
    REQUIRE(bench.session.openLogbook(bench.path("own.knotbook")));
    REQUIRE(bench.session.openTest(id));
    REQUIRE(bench.waitForReading());
    return id;
}

} // namespace

TEST_CASE("what nobody is to see before the plan is done, no way out shows") {
    Bench bench;
    halfStruck(bench);
    REQUIRE(bench.session.isFrozen());
    REQUIRE(bench.session.judging().withheld());
    CHECK(bench.session.judging().reading() == nullptr);
    for (const auto page : {app::PageId::reading, app::PageId::decision, app::PageId::report}) {
        bench.window->showPage(page);
        QTest::qWait(50);
        bool isHung = false;
        for (const auto* curtain : bench.window->findChildren<QLabel*>("curtain"))
            isHung = isHung || (curtain->isVisible() && curtain->text().startsWith("Laps done: 2 of 5."));
        CHECK(isHung);
    }
    CHECK_FALSE(bench.find<QWidget>("ledger")->isVisible());
    CHECK_FALSE(bench.find<QLabel>("betText")->isVisible());
    CHECK_FALSE(bench.find<QScrollArea>("reportPreview")->isVisible());
    bench.prompter->answers = {bench.path("report.pdf")};
    bench.find<QPushButton>("saveReport")->click();
    CHECK(bench.prompter->asked.isEmpty());
    CHECK(bench.message().startsWith("Laps done: 2 of 5."));
    QGuiApplication::clipboard()->setText("before");
    bench.find<QPushButton>("copyReport")->click();
    CHECK(QGuiApplication::clipboard()->text() == "before");
    CHECK(app::writeReport(bench.path("report.pdf"), bench.path("own.knotbook"), "half", false)
              .startsWith("Laps done: 2 of 5."));
    CHECK_FALSE(QFile::exists(bench.path("report.pdf")));
    CHECK(bench.session.test().amendments.empty());
}

TEST_CASE("a look is an amendment on whichever page it is taken, and then all is seen") {
    const auto page = GENERATE(app::PageId::reading, app::PageId::decision, app::PageId::report);
    Bench bench;
    const std::string id = halfStruck(bench);
    bench.window->showPage(page);
    QTest::qWait(50);
    const auto looks = bench.window->findChildren<QPushButton*>("lookNow");
    const auto look = std::ranges::find_if(looks, [](const auto* one) { return one->isVisible(); });
    REQUIRE(look != looks.end());
    (*look)->click();
    REQUIRE(eventually([&] { return bench.session.judging().reading() != nullptr; }));
    CHECK(bench.session.test().card.looks == record::Looks::eachRound);
    REQUIRE(bench.session.test().amendments.size() == 1);
    CHECK(bench.session.test().amendments.front().text.starts_with("somebody looked at the comparisons"));
    bench.session.declaring().undo(); // what was seen stays seen
    CHECK(bench.session.test().card.looks == record::Looks::eachRound);
    CHECK(logbook::Logbook::read(bench.path("own.knotbook").toStdString())->load(id)->amendments.size() == 1);
    bench.find<QPushButton>("copyReport")->click();
    CHECK(QGuiApplication::clipboard()->text().contains("half"));
}

TEST_CASE("the last shot of the plan lifts the curtain by itself") {
    Bench bench;
    halfStruck(bench);
    bench.window->showPage(app::PageId::reading);
    bench.session.bay().step("the rest", 12, [](record::Test& test) {
        test::strike(test, 1000);
        return bay::From(12);
    });
    REQUIRE(eventually([&] { return bench.session.judging().reading() != nullptr; }));
    CHECK(eventually([&] { return bench.find<QWidget>("ledger")->isVisible(); }));
    CHECK(bench.session.test().amendments.empty());
    CHECK(bench.session.judging().reading()->level == Approx(0.05));
}
