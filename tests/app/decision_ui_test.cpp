// From a sealed plan to a report: what is said before the tags come off, the reveal, the decision, and what is handed
// over.
#include "app/decision_page/best_view.h"
#include "app/hands.h"
#include "app/report/report.h"
#include "app/report/report_command.h"
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"
#include "core/words/decide.h"

#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QRegularExpression>
#include <QStandardPaths>
#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bench;
using knot::test::declareSealed;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::hit;

namespace {

// Strikes all that is planned.
void strikeAll(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_5, Qt::AltModifier);
    for (int i = 0; i < 400 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
        const auto phase = bench.session.bay().stand().phase();
        if (phase == bay::Phase::handOver || phase == bay::Phase::warmUp)
            hands.press(Qt::Key_Return);
        hit(bench, 150 + std::sin(1.7 * i));
    }
    REQUIRE(bench.session.bay().stand().phase() == bay::Phase::done);
}

app::Report reportFor(const record::Test& test, bool appendix = false) {
    const auto subject = judge::Case::of(test);
    const auto reading = *judge::judge({.subject = subject});
    return app::reportOf({.test = test, .subject = subject, .reading = reading, .units = {}, .appendix = appendix});
}

} // namespace

TEST_CASE("what is said before the tags come off stands, and the decision follows the reveal") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, {"Reed 53", "Alder 62"}, 0);
    strikeAll(bench, hands);
    hands.press(Qt::Key_7, Qt::AltModifier);
    REQUIRE(bench.waitForReading());
    const auto& test = bench.session.test();
    auto* first = bench.find<QPushButton>("byFeel0");
    REQUIRE(first->isVisible());
    CHECK(first->accessibleName() == QString::fromStdString(test.builds[0].name));
    first->setFocus();
    hands.press(Qt::Key_Space);
    CHECK(test.choices.byFeel.tag == test.builds[0].name);
    CHECK(!test.choices.byFeel.at.empty());
    CHECK_FALSE(bench.find<QPushButton>("byFeel1")->isEnabled()); // said once
    bench.trigger("actionUndo");
    CHECK(!bench.session.test().choices.byFeel.at.empty());
    for (const char* name : {"Reed", "Alder"}) // nothing tells
        for (const auto* label : bench.window->findChildren<QLabel*>())
            CHECK_FALSE((label->isVisible() && label->text().contains(QLatin1String(name))));

    hands.fill("decisionKey", words);
    hands.press(Qt::Key_Return);
    REQUIRE(eventually([&] { return !bench.session.isSealed(); }));
    REQUIRE(eventually([&] { return bench.find<QLabel>("revealText")->text().contains("nothing was switched"); }));
    CHECK(bench.find<QLabel>("revealText")->text().contains("Preferred blind: "));
    CHECK(bench.find<QLineEdit>("decisionKey")->text().isEmpty()); // the key is kept nowhere

    hands.tabTo("course_change");
    hands.press(Qt::Key_Space);
    hands.fill("decisionReason", "six metres more, and she trusts it");
    const auto& decision = bench.session.test().decision;
    CHECK(decision.what == record::Course::change);
    CHECK(decision.reason == "six metres more, and she trusts it");
    CHECK(!decision.club.empty());
    CHECK(bench.find<QLabel>("subtitle")->text().contains("Change to"));
    // It is on disk, and one step back is one step.
    auto book = *logbook::Logbook::read(bench.session.book().path().toStdString());
    CHECK(book.load(bench.session.test().id)->decision == bench.session.test().decision);
    bench.trigger("actionUndo");
    CHECK(bench.session.test().decision.reason.empty());
    bench.trigger("actionRedo");
    CHECK(bench.session.test().decision.what == record::Course::change);

    for (const char* file : {"report.pdf", "report.html"}) {
        bench.prompter->answers = {bench.path(file)};
        bench.trigger("actionReport");
        CHECK(QFile::exists(bench.path(file)));
    }
    CHECK(bench.message().startsWith("The report is in "));
}

TEST_CASE("the bet is drawn for each declared outcome, and without one it says what is missing") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::decision);
    REQUIRE(bench.waitForReading());
    const auto pictures = words::bestPictures(*bench.session.judging().reading(), {});
    REQUIRE(!pictures.empty());
    for (const auto& picture : pictures) {
        double sum = 0;
        for (const auto& line : picture.lines)
            sum += line.chance;
        CHECK(sum == Approx(1).margin(0.01));
        CHECK(picture.lines.front().chance >= picture.lines.back().chance);
    }
    REQUIRE(eventually([&] {
        return bench.window->findChildren<app::BestView*>().size() == static_cast<qsizetype>(pictures.size());
    }));
    CHECK(bench.window->findChildren<app::BestView*>().front()->accessibleName().contains("times in 100"));
    bench.session.declaring().change("nothing", [](record::Test& test) { test.card.primary.clear(); });
    REQUIRE(eventually(
        [&] { return bench.find<QLabel>("betText")->text().startsWith("No outcome with a wanted direction"); }));
}

TEST_CASE("a report escapes all that was typed, needs nothing from outside, and tells nothing of a seal") {
    record::Test test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    const std::string hostile = "<script>alert(1)</script>\"&\u202E<b>x";
    test.title = hostile;
    test.players = {{.id = "p", .name = hostile}};
    for (std::size_t i = 0; i < test.builds.size(); ++i)
        test.builds[i].name = hostile + std::to_string(i);
    test.card.baseline = test.builds[0].name;
    test.decision = {.what = record::Course::change,
                     .club = test.builds[1].name,
                     .reason = hostile,
                     .price = hostile,
                     .watch = hostile,
                     .at = "2026-05-01T10:00"};
    test.amendments = {{"2026-05-01T10:00", hostile}};
    const QString html = app::reportHtml(reportFor(test, true));
    CHECK_FALSE(html.contains("<script"));
    CHECK_FALSE(html.contains("<b>x"));
    CHECK(html.contains("&lt;script&gt;"));
    for (const char* outside : {"http:", "https:", "src=", "url(", "@import", "<link", "xlink"})
        CHECK_FALSE(html.contains(QLatin1String(outside)));
    CHECK(html.contains("<html lang=\"en\">"));
    CHECK(html.count("<h1>") == 1);
    CHECK(html.count("<svg role=\"img\" aria-label=") >= 2);
    CHECK(html.contains("For the builder"));
    CHECK(html.contains("prefers-color-scheme:dark"));

    // While the seal is closed it speaks in tags.
    const auto clubs = test.builds;
    test.sealedBuilds = test.builds;
    for (std::size_t i = 0; i < test.builds.size(); ++i)
        test.builds[i] = {.name = "Tag" + std::to_string(i), .tag = "Tag" + std::to_string(i)};
    test.seal = {.commitment = "ab", .box = "cd", .sealedAt = "2026-05-01T09:00"};
    test.card.baseline.clear();
    test.decision.club = "Tag1";
    test.decision.reason = test.decision.price = test.decision.watch = {};
    test.title = "Sealed";
    test.players.clear();
    test.amendments.clear();
    const app::Report sealed = reportFor(test, true);
    const QString text = app::reportHtml(sealed);
    CHECK(text.contains("Tag1"));
    CHECK_FALSE(text.contains("script"));
    CHECK_FALSE(text.contains("For the builder"));
}

TEST_CASE("a report's PDF holds its words as words, page by page") {
    record::Test test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.decision = {.what = record::Course::change, .club = test.builds[1].name, .reason = "it holds the line"};
    const app::Report report = reportFor(test);
    const QByteArray pdf = app::reportPdf(report);
    CHECK(pdf.startsWith("%PDF-"));
    const QString tool = QStandardPaths::findExecutable("pdftotext");
    if (tool.isEmpty()) {
        WARN("pdftotext is not installed: the words of the PDF were not read");
        return;
    }
    Bench bench;
    const QString path = bench.writeFile("report.pdf", pdf);
    QProcess process;
    process.start(tool, {"-layout", path, "-"});
    REQUIRE(process.waitForFinished(20000));
    const QString text = QString::fromUtf8(process.readAllStandardOutput());
    for (const char* part : {"What was found", "it holds the line", "Averages and scatter", "For the builder"})
        CHECK(text.contains(QLatin1String(part)));
    const QStringList pages = text.split(u'\f', Qt::SkipEmptyParts);
    CHECK(pages.size() >= 3);
    for (const QString& page : pages)
        CHECK(page.count(QRegularExpression("\\S[^\\n]*\\n")) > 3); // no page with three lines on it
}

TEST_CASE(
    "of one run each a report gives the bets and what would make them findings, and asks nothing that was not asked") {
    record::Test test;
    test.title = "Before lunch";
    test.builds = {{.name = "Tarn"}, {.name = "Mere"}};
    for (int i = 0; i < 12; ++i) {
        record::Shot shot;
        shot.build = record::BuildAt(i < 6 ? 0 : 1);
        shot.sitting = "1";
        shot.readings.measure(record::Metric::carry, 150 + (i < 6 ? 0 : 4) + std::sin(2.1 * i));
        test.shots.push_back(shot);
    }
    test.nameShots();
    const app::Report report = reportFor(test, true);
    CHECK(report.body.contains("One run each"));
    CHECK(report.body.contains("times in 100"));
    CHECK_FALSE(report.body.contains("more of what"));
    CHECK_FALSE(report.body.contains("The order"));
    CHECK(report.body.contains("Averages and scatter"));
}

TEST_CASE("a report is written without a window, and what can't be is said in a sentence") {
    Bench bench;
    bench.openDemo();
    const QString logbook = bench.session.book().path();
    const QString path = bench.path("alone.html");
    CHECK(app::writeReport(path, logbook, "lighter shaft", true).contains("no shots"));
    const auto& entries = bench.session.book().tests();
    const QString struck = QString::fromStdString(entries.back().title);
    CHECK(app::writeReport(path, logbook, struck, true).isEmpty());
    QFile file(path);
    REQUIRE(file.open(QIODevice::ReadOnly));
    CHECK(QString::fromUtf8(file.readAll()).contains("Appendix"));
    CHECK(app::writeReport(path, logbook, "nobody's test", false)
              .endsWith(QString::fromUtf8("holds no test called “nobody's test”.")));
    CHECK(app::writeReport(path, "/nowhere.knotbook", struck, false).contains("/nowhere.knotbook"));
    CHECK(!app::writeReport("/nowhere/report.pdf", logbook, struck, false).isEmpty());
}
