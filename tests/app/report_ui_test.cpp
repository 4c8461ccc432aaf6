// What is handed over: on paper, for a screen, as text, as a logbook of its own; and what comes from another one.
#include "app/hands.h"
#include "app/report/paper.h"
#include "app/report/pdf_bookmarks.h"
#include "app/report/report.h"
#include "app/report/report_command.h"
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"
#include "core/words/message.h"
#include "core/words/versions.h"

#include <QCheckBox>
#include <QClipboard>
#include <QFile>
#include <QLabel>
#include <QPainter>
#include <QPlainTextEdit>
#include <QProcess>
#include <QPushButton>
#include <QRegularExpression>
#include <QSettings>
#include <QStandardPaths>
#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;

namespace {

app::Report reportFor(const record::Test& test, bool appendix = false) {
    const auto subject = judge::Case::of(test);
    const auto reading = *judge::judge({.subject = subject});
    return app::reportOf(
        {.test = test, .subject = subject, .reading = reading, .units = {}, .look = {.appendix = appendix}});
}

// The words of a PDF, page by page; nothing where the tool is not installed.
QStringList pagesOf(const Bench& bench, const QByteArray& pdf) {
    const QString tool = QStandardPaths::findExecutable("pdftotext");
    if (tool.isEmpty()) {
        WARN("pdftotext is not installed: the words of the PDF were not read");
        return {};
    }
    QProcess process;
    process.start(tool, {"-layout", bench.writeFile("report.pdf", pdf), "-"});
    REQUIRE(process.waitForFinished(20000));
    CHECK(process.readAllStandardError().isEmpty()); // whole for a reader that was not written here
    return QString::fromUtf8(process.readAllStandardOutput()).split(u'\f', Qt::SkipEmptyParts);
}

// All that a PDF says, its streams unpacked.
QByteArray unpacked(const QByteArray& pdf) {
    QByteArray all = pdf;
    for (qsizetype at = pdf.indexOf("stream\n"); at >= 0; at = pdf.indexOf("stream\n", at + 7)) {
        const qsizetype from = at + 7;
        const qsizetype end = pdf.indexOf("endstream", from);
        if (end < 0 || pdf.mid(at - 3, 3) == "end")
            continue;
        QByteArray packed(4, '\0');
        packed[1] = '\x40'; // room for four megabytes
        all += qUncompress(packed + pdf.mid(from, end - from));
    }
    return all;
}

// Eight clubs with names as long as they come, and two hundred shots.
record::Test crowdedTest() {
    record::Test test;
    test.title = "A winter afternoon with everything that stood in the van, hit in turns until the light was gone";
    test.players = {{.id = {}, .name = "Marit-Ingeborg Aasgaard-Velde of the eastern practice ground"}};
    for (int b = 0; b < 8; ++b)
        test.builds.push_back({.name = "Hollow oak with the long neck and a soft tip, number " + std::to_string(b)});
    test.card.primary = {{.metric = record::Metric::carry}, {.metric = record::Metric::spin}};
    for (int i = 0; i < 200; ++i) {
        record::Shot shot;
        shot.build = record::BuildAt(static_cast<std::size_t>(i / 5 % 8));
        shot.round = std::to_string(i / 40 + 1);
        shot.turn = std::to_string(i / 5 + 1);
        shot.sitting = "1";
        shot.readings.measure(record::Metric::carry, 150 + std::sin(2.1 * i) + i / 5 % 8);
        shot.readings.measure(record::Metric::side, 5 * std::sin(0.7 * i));
        shot.readings.measure(record::Metric::ballSpeed, 60 + std::sin(1.3 * i));
        shot.readings.measure(record::Metric::spin, 3000 + 200 * std::sin(1.9 * i));
        shot.readings.measure(record::Metric::launch, 12 + std::sin(3.1 * i));
        test.shots.push_back(shot);
    }
    test.nameShots();
    return test;
}

} // namespace

TEST_CASE("a report escapes all that was typed, needs nothing from outside, and tells nothing of a seal") {
    record::Test test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    const std::string hostile = "<script>alert(1)</script>\"&\u202E<b>x";
    test.title = hostile;
    test.players = {{.id = "p", .name = hostile}};
    for (std::size_t i = 0; i < test.builds.size(); ++i)
        test.builds[i].name = hostile + std::to_string(i);
    test.card.baseline = test.builds[0].name;
    test.decision = {.what = record::Action::change,
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

TEST_CASE("a driver's report says what the swing could reach, a bag's what carries how far, an iron's neither") {
    auto report = [](const std::vector<std::pair<std::string, double>>& clubs, double ballSpeed) {
        record::Test test;
        for (const auto& [name, carry] : clubs) {
            test.builds.push_back({.name = name});
            for (int i = 0; i < 6; ++i) {
                record::Shot shot{.build = record::BuildAt(test.builds.size() - 1)};
                shot.readings.measure(record::Metric::carry, carry + i % 3);
                shot.readings.measure(record::Metric::ballSpeed, ballSpeed + 0.1 * i);
                shot.readings.measure(record::Metric::launch, 12 + 0.2 * i);
                shot.readings.measure(record::Metric::spin, 2600 + 20 * i);
                test.shots.push_back(shot);
            }
        }
        test.nameShots();
        return app::reportHtml(reportFor(test));
    };
    const QString driver = report({{"Driver 9", 180}, {"Driver 10.5", 182}}, 62);
    CHECK(driver.contains("What this swing could reach"));
    CHECK(driver.contains("this ball speed could carry"));
    CHECK_FALSE(driver.contains("What carries how far"));
    const QString bag = report({{"5-wood", 180}, {"7-iron", 140}, {"PW", 100}}, 50);
    CHECK(bag.contains("What carries how far"));
    CHECK(bag.contains("Held against a step of 40 m"));
    CHECK_FALSE(report({{"7-iron Reed", 140}, {"7-iron Fern", 142}}, 50).contains("could reach"));
}

TEST_CASE("a report's PDF holds its words as words, page by page") {
    record::Test test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.decision = {.what = record::Action::change, .club = test.builds[1].name, .reason = "it holds the line"};
    const app::Report report = reportFor(test);
    const QByteArray pdf = app::reportPdf(report, QPageSize::A4);
    CHECK(pdf.startsWith("%PDF-"));
    const Bench bench;
    const QStringList pages = pagesOf(bench, pdf);
    if (pages.isEmpty())
        return;
    const QString text = pages.join(u'\f');
    CHECK(text.contains("Where they came down"));
    CHECK(text.contains("launch")); // the words in the drawings are words too
    for (const char* part : {"What was found", "It holds the line", "Averages and scatter", "For the builder"})
        CHECK(text.contains(QLatin1String(part)));
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

TEST_CASE("a PDF's headings are its bookmarks, and it says its language and its title") {
    const app::Report report = reportFor(simulate::testFrom(*simulate::scenarioByKey("five-wood")));
    const app::Paper paper(report, QPageSize::Letter);
    const QByteArray pdf = app::reportPdf(report, QPageSize::Letter);
    CHECK(pdf.contains("/Lang (en)"));
    CHECK(pdf.contains("/DisplayDocTitle true"));
    CHECK(pdf.contains("612.000000 792.000000"));
    const auto headings = paper.headings();
    REQUIRE(headings.size() > 3);
    CHECK(headings.front().level == 1);
    CHECK(pdf.count("/Dest [") == static_cast<qsizetype>(headings.size()));
    for (const auto& heading : headings) {
        QByteArray utf16;
        for (const QChar c : heading.text)
            utf16 += QByteArray::number(c.unicode(), 16).rightJustified(4, '0');
        INFO(heading.text.toStdString());
        CHECK(pdf.contains("/Title <feff" + utf16 + ">"));
        CHECK(heading.top > 0);
        CHECK(heading.top < paper.sheet().height());
    }
    // The place of each object is where the last table says.
    const qsizetype table = pdf.lastIndexOf("xref\n", pdf.lastIndexOf("startxref") - 1);
    static const QRegularExpression entry("(\\d+) 1\n(\\d{10}) 00000 n \n");
    int objects = 0;
    for (auto at = entry.globalMatch(QString::fromLatin1(pdf.mid(table))); at.hasNext(); ++objects) {
        const auto match = at.next();
        CHECK(pdf.mid(match.captured(2).toLongLong()).startsWith(match.captured(1).toLatin1() + " 0 obj"));
    }
    CHECK(objects == static_cast<int>(headings.size()) + 2);
    CHECK(app::withBookmarks("no such file", {{1, "x", 0, 0}}, "en") == "no such file");
    CHECK(app::withBookmarks(pdf, {{1, "x", 99, 0}}, "en") == pdf);
}

TEST_CASE(
    "eight clubs, long names and two hundred shots go on paper: nothing runs over a margin, no sheet for scraps") {
    for (const auto size : {QPageSize::A4, QPageSize::Letter}) {
        const app::Report report = reportFor(crowdedTest(), true);
        const app::Paper paper(report, size);
        for (const double used : paper.used())
            CHECK(used > 0.12);
        for (const auto& heading : paper.headings()) // something of what it is over stands under it
            CHECK(heading.top < 0.9 * paper.sheet().height());
        const int margin = static_cast<int>(10 / 25.4 * app::Paper::dotsPerInch);
        for (int sheet = 0; sheet < paper.sheets(); ++sheet) {
            QImage image(paper.sheet(), QImage::Format_Grayscale8);
            image.fill(Qt::white);
            QPainter painter(&image);
            paper.paint(painter, sheet);
            painter.end();
            int dark = 0;
            for (int y = 0; y < image.height(); ++y)
                for (int x = 0; x < image.width(); ++x)
                    if (x < margin || x >= image.width() - margin)
                        dark += qGray(image.pixel(x, y)) < 200 ? 1 : 0;
            INFO("sheet " << sheet);
            CHECK(dark == 0);
        }
    }
}

TEST_CASE("while the seal is closed no report of any kind holds what it hides, also with its streams unpacked") {
    Bench bench;
    Hands hands(bench);
    test::declareSealed(bench, hands, {"Quillwort", "Brackenby"});
    hands.press(Qt::Key_5, Qt::AltModifier);
    for (int i = 0; i < 30; ++i) {
        const auto phase = bench.session.bay().stand().phase();
        if (phase == bay::Phase::handOver || phase == bay::Phase::warmUp)
            hands.press(Qt::Key_Return);
        test::hit(bench, 150 + std::sin(1.7 * i));
    }
    REQUIRE(bench.session.isSealed());
    const app::Report report = reportFor(bench.session.test(), true);
    const QByteArray pdf = app::reportPdf(report, QPageSize::A4);
    const QByteArray all = unpacked(pdf);
    CHECK(all.size() > 2 * pdf.size()); // something was unpacked
    const auto subject = judge::Case::of(bench.session.test());
    const std::string text = words::message(bench.session.test(), *judge::judge({.subject = subject}), {});
    const QStringList pages = pagesOf(bench, pdf);
    for (const char* hidden : {"Quillwort", "Brackenby"}) {
        QByteArray wide;
        for (const char* c = hidden; *c != 0; ++c)
            wide += QByteArray("\0", 1) + *c;
        CHECK_FALSE(all.contains(hidden));
        CHECK_FALSE(all.contains(wide));
        CHECK_FALSE(app::reportHtml(report).contains(QLatin1String(hidden)));
        CHECK(text.find(hidden) == std::string::npos);
        CHECK_FALSE(pages.join(u' ').contains(QLatin1String(hidden)));
    }
    CHECK(text.find("nobody knew") != std::string::npos);
}

TEST_CASE("the report is seen before it is saved; the shop's name and mark, paper and appendix are kept") {
    Bench bench;
    Hands hands(bench);
    bench.openDemo();
    hands.press(Qt::Key_Return); // the first test of the list
    REQUIRE(bench.waitForReading());
    hands.press(Qt::Key_P, Qt::ControlModifier);
    CHECK(bench.find<QLabel>("subtitle")->text().startsWith("Report · "));
    REQUIRE(eventually([&] { return bench.find<QLabel>("subtitle")->text().endsWith("sheets"); }));
    CHECK(bench.window->focusWidget()->objectName() == "saveReport");
    auto preview = [&] { return bench.find<QWidget>("sheets")->grab().toImage(); };
    const QImage before = preview();
    hands.tabTo("shop");
    hands.letters("Hazel & Rook <fitting>");
    REQUIRE(eventually([&] { return preview() != before; }));
    QImage mark(40, 20, QImage::Format_RGB32);
    mark.fill(QColor(10, 120, 60));
    mark.save(bench.path("mark.png"));
    bench.prompter->answers = {bench.path("mark.png"), bench.path("seen.html"), bench.path("seen.pdf")};
    hands.tabTo("chooseMark");
    hands.press(Qt::Key_Space);
    hands.tabTo("withAppendix");
    hands.press(Qt::Key_Space);
    REQUIRE(eventually([&] { return bench.find<QLabel>("markText")->text().startsWith("The mark"); }));
    hands.tabTo("saveReport");
    hands.press(Qt::Key_Space);
    hands.press(Qt::Key_Space);
    QFile html(bench.path("seen.html"));
    REQUIRE(html.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(html.readAll());
    CHECK(text.contains("Hazel &amp; Rook &lt;fitting&gt;"));
    CHECK(text.contains("src=\"data:image/png;base64,"));
    CHECK(text.contains("<h2>Appendix</h2>"));
    QFile pdf(bench.path("seen.pdf"));
    REQUIRE(pdf.open(QIODevice::ReadOnly));
    CHECK(pdf.readAll().startsWith("%PDF-"));
    const app::ReportLook kept = app::ReportLook::kept();
    CHECK(kept.shop == "Hazel & Rook <fitting>");
    CHECK(kept.mark.size() == mark.size());
    CHECK(kept.appendix);
    app::ReportLook{}.keep();

    hands.tabTo("copyReport");
    hands.press(Qt::Key_Space);
    const QString message = QApplication::clipboard()->text();
    CHECK(message.startsWith(QString::fromStdString(bench.session.test().title)));
    CHECK(message.contains("lap"));
}

TEST_CASE("a test leaves as a logbook of its own, comes into another one once, and versions are shown side by side") {
    Bench bench;
    Hands hands(bench);
    bench.openDemo();
    const auto count = bench.session.book().tests().size();
    hands.press(Qt::Key_Return);
    const std::string id = bench.session.test().id;
    const QString own = bench.path("one.knotbook");
    bench.prompter->answers = {own, own, own, bench.session.book().path(), bench.path("nowhere.knotbook")};
    hands.press(Qt::Key_E, Qt::ControlModifier);
    {
        auto alone = logbook::Logbook::read(own.toStdString());
        REQUIRE(alone);
        REQUIRE(alone->tests()->size() == 1);
        CHECK(*alone->load(id) == bench.session.test());
    }
    hands.press(Qt::Key_1, Qt::AltModifier);
    bench.trigger("actionAddLogbook");
    CHECK(bench.message().contains("1 stood here already"));
    CHECK(bench.session.book().tests().size() == count);
    {
        auto alone = *logbook::Logbook::open(own.toStdString());
        auto test = *alone.load(id);
        test.shots.pop_back();
        test.decision = {.what = record::Action::mix, .reason = "both"};
        REQUIRE(alone.save(test));
    }
    // Changed here, too, it is no later version.
    REQUIRE(bench.session.declaring().change("why", [](record::Declared& test) { test.decision.reason = "own"; }));
    bench.trigger("actionAddLogbook");
    CHECK(bench.message().contains("stands in both versions"));
    CHECK(bench.session.book().tests().size() == count + 1);
    auto* versions = bench.window->findChild<QLabel*>("versionsText");
    REQUIRE(versions != nullptr);
    CHECK(versions->text().contains("both"));
    CHECK(versions->text().contains("shots"));
    bench.window->findChild<QPushButton*>("closeVersions")->click();
    bench.window->activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(bench.window.get()));
    hands.press(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.session.book().tests().size() == count);
    bench.trigger("actionAddLogbook"); // itself
    CHECK(bench.message().contains("is the logbook that is open"));
    bench.trigger("actionAddLogbook");
    CHECK(bench.message().contains("nowhere.knotbook"));
}

TEST_CASE("versions of a test are told apart by what differs, and only by that") {
    record::Test here = crowdedTest();
    record::Test there = here;
    CHECK(words::versionRows(here, there).front().what == "something smaller");
    there.shots.pop_back();
    there.shots[3].readings.measure(record::Metric::carry, 99);
    there.title = "Another";
    const auto rows = words::versionRows(here, there);
    REQUIRE(rows.size() == 3);
    CHECK(rows[0].here == "200 shots");
    CHECK(rows[0].there == "199 shots");
    CHECK(rows[1].what == "shots of both that differ");
    CHECK(rows[1].here == "1");
    CHECK(rows[2].there == "Another");
}

TEST_CASE("asked for a report where nothing was struck, the program says so") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_P, Qt::ControlModifier);
    CHECK(bench.message() == "A report is of a test: open one first.");
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.press(Qt::Key_P, Qt::ControlModifier);
    CHECK(bench.message() == "A report needs shots; nothing is struck yet.");
}
