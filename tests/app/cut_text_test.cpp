// Nothing that is written on a page is cut off: every visible label, button, field and cell of every
// page has the room that its text takes, at usual sizes, small ones, with large type and long names.
#include "app/form/chip_field.h"
#include "app/form/key_row.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "app/support.h"
#include "core/simulate/drafts.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QDateTime>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QStyleOptionButton>
#include <QStyleOptionFrame>
#include <QTextDocument>
#include <catch2/catch.hpp>

#include <cstring>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;

namespace {

// What does not fit a window of 800 by 600: by page, by name. At 1280 nothing is excused.
struct Left {
    const char* page;
    QStringList names;
};
const Left left[] = {
    {"sheet", {"clause"}},
    {"rack", {"allGrip"}},
    {"plan", {"answers", "limits", "worth", "gets"}},
    {"reading", {"baseline"}},
};

bool isLeft(const char* page, const QWidget& widget) {
    const auto* const at = std::ranges::find_if(left, [&](const Left& l) { return std::strcmp(l.page, page) == 0; });
    const QString name = widget.objectName();
    return at != std::end(left) && at->names.contains(name);
}

QString plain(const QString& text) {
    QTextDocument document;
    document.setHtml(text);
    return Qt::mightBeRichText(text) ? document.toPlainText() : text;
}

bool scrolls(const QWidget* widget) {
    for (const QWidget* at = widget; at != nullptr; at = at->parentWidget())
        if (qobject_cast<const QScrollArea*>(at) != nullptr)
            return true;
    return false;
}

// Why a text does not fit, or nothing.
QString cutIn(const QLabel& label) {
    if (label.text().isEmpty() || dynamic_cast<const app::OneLineLabel*>(&label) != nullptr) // says so with dots
        return {};
    const QSize room = label.contentsRect().size();
    if (!label.wordWrap()) {
        const QSize need = label.sizeHint();
        return need.width() > room.width() + 1 || need.height() > room.height() + 1 ? plain(label.text()) : QString();
    }
    const int need = label.heightForWidth(room.width());
    return need > room.height() + 1 && !scrolls(&label)
               ? QString("%1 of %2: %3").arg(need).arg(room.height()).arg(plain(label.text()))
               : QString();
}

QString cutIn(const QAbstractButton& button) {
    const QString text = button.text().remove(QLatin1Char('&'));
    const int need = button.fontMetrics().horizontalAdvance(text);
    return need > button.width() - 8 ? text : QString();
}

QString cutIn(const QComboBox& box) {
    QStyleOptionComboBox option;
    option.initFrom(&box);
    const QRect room = box.style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, &box);
    return box.fontMetrics().horizontalAdvance(box.currentText()) > room.width() + 1 ? box.currentText() : QString();
}

// What an empty field says of itself; of a chip all that it holds, and that it stands inside its sentence.
QString cutIn(const QLineEdit& field) {
    const bool isChip = qobject_cast<const app::ChipField*>(&field) != nullptr;
    const QString text = field.text().isEmpty() ? field.placeholderText() : isChip ? field.text() : QString();
    if (isChip && !field.parentWidget()->rect().contains(field.geometry()))
        return text;
    if (isChip && field.width() >= field.parentWidget()->width() - 1) // longer than a line: pointing shows it
        return field.toolTip() == text.toHtmlEscaped() ? QString() : text;
    QStyleOptionFrame option;
    option.initFrom(&field);
    option.lineWidth = field.style()->pixelMetric(QStyle::PM_DefaultFrameWidth, nullptr, &field);
    const QRect room = field.style()->subElementRect(QStyle::SE_LineEditContents, &option, &field);
    const QMargins margins = field.textMargins();
    const int besides = 4 + margins.left() + margins.right(); // Qt's own two on each side
    return field.fontMetrics().horizontalAdvance(text) > room.width() - besides + 1 ? text : QString();
}

enum class Excused { no, yes };

QStringList cutTexts(QWidget& window, const char* page, Excused excused) {
    QStringList cut;
    auto note = [&](const QWidget* widget, const QString& text) {
        const QString name = widget->objectName();
        if (!text.isEmpty() && (excused == Excused::no || !isLeft(page, *widget)))
            cut << QString("%1: %2").arg(name.isEmpty() ? widget->metaObject()->className() : name, text.left(60));
    };
    for (const auto* widget : window.findChildren<QWidget*>()) {
        if (!widget->isVisible() || widget->visibleRegion().isEmpty())
            continue;
        if (const auto* label = qobject_cast<const QLabel*>(widget))
            note(widget, cutIn(*label));
        else if (const auto* key = qobject_cast<const app::KeyButton*>(widget))
            note(widget, key->cutText());
        else if (const auto* button = qobject_cast<const QAbstractButton*>(widget))
            note(widget, cutIn(*button));
        else if (const auto* box = qobject_cast<const QComboBox*>(widget))
            note(widget, cutIn(*box));
        else if (const auto* field = qobject_cast<const QLineEdit*>(widget))
            note(widget, cutIn(*field));
    }
    return cut;
}

record::Test underWay() {
    return simulate::shaftTestUnderWay([](int minutes) {
        return QDateTime::currentDateTime()
            .addSecs(-60 * minutes)
            .toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss.zzz"))
            .toStdString();
    });
}

// A test with clubs of forty characters, struck so far that every page has something to say.
record::Test longNames() {
    auto test = underWay();
    test.title = "Which of these rather long shafts holds my line in wind?";
    const char* names[] = {"Marram Grass Tour Preferred 62 Stiff 45.5", "Sea Buckthorn Extra Long Regular 55 Mid",
                           "Blackthorn Hedge Heavy Wedge Shaft 125 X"};
    for (std::size_t i = 0; i < test.builds.size(); ++i)
        test.builds[i].name = names[i % 3];
    return test;
}

struct Look {
    QSize size;
    double type;
    app::Theme theme;
    bool longNames;
};

} // namespace

TEST_CASE("no text is cut off on any page, at any size, with large type and long names") {
    const Look looks[] = {{{1280, 800}, 1.0, app::Theme::light, false},
                          {{1280, 800}, 1.0, app::Theme::dark, true},
                          {{1280, 800}, 1.3, app::Theme::light, true},
                          {{800, 600}, 1.0, app::Theme::light, true}};
    for (const Look& look : looks) {
        app::setTypeScale(look.type);
        app::applyTheme(look.theme);
        Bench bench;
        const auto id = *logbook::Logbook::create(bench.path("a.knotbook").toStdString())
                             ->save(look.longNames ? longNames() : underWay());
        bench.window->openPath(bench.path("a.knotbook"));
        bench.window->resize(look.size);
        REQUIRE(bench.session.openTest(id));
        REQUIRE(bench.waitForReading());
        bench.window->openPath(bench.writeFile(
            "labels.csv", "Club,Speed,Carry,Tempo\nForty letters of a name for one club – blue,65,150,3:1\n"
                          "Forty letters of a name for one club – grey,66,,3:1\nAverage,65,150,\n"));
        auto check = [&](app::PageId turned, const char* word) {
            bench.window->showPage(turned);
            for (int i = 0; i < 3; ++i) // what wraps asks for room again
                QCoreApplication::processEvents();
            const QStringList cut =
                cutTexts(*bench.window, word, look.size.width() < 1280 ? Excused::yes : Excused::no);
            INFO(look.size.width() << " wide, type " << look.type << ", page " << word);
            INFO(cut.join("\n").toStdString());
            CHECK(cut.isEmpty());
        };
        for (const app::PageEntry& page : app::pageEntries)
            check(page.id, page.word);
        check(app::PageId::start, "start");
        check(app::PageId::import, "import");
    }
    app::setTypeScale(1);
    app::applyTheme(app::Theme::light);
}

TEST_CASE("a title of any length leaves the window as narrow as it may be, and ends in dots") {
    Bench bench;
    bench.session.newTest(record::Stage::test);
    bench.session.declaring().change("the question", [](record::Declared& test) {
        for (int i = 0; i < 60; ++i)
            test.title += " and another word";
    });
    bench.window->showPage(app::PageId::plan);
    bench.window->resize(800, 600);
    CHECK(eventually([&] { return bench.window->width() == 800; }));
    auto* title = bench.find<QLabel>("title");
    CHECK(title->width() < 800);
    CHECK(title->sizeHint().width() > 2000);
    CHECK(bench.find<QWidget>("sealButton")->visibleRegion().boundingRect().height() > 0);
}

TEST_CASE("what a file, a monitor or a user wrote is never markup, on any page") {
    const std::string mark = "<img src='file:///dev/null'>";
    auto test = longNames();
    test.title = test.question = test.card.factor = mark;
    test.players = {{.id = {}, .name = mark}};
    for (std::size_t i = 0; i < test.builds.size(); ++i) {
        auto& build = test.builds[i];
        build.name = std::to_string(i) + mark;
        build.note = build.club.head.name = build.club.shaft.name = build.club.grip.name = build.club.ball = mark;
    }
    test.card.baseline = test.builds.front().name;
    test.card.targets = {{record::Metric::carry, test.builds.front().name, 150, 160}};
    test.card.held = {{mark, false, mark}};
    for (auto& shot : test.shots) {
        shot.note = mark;
        shot.player = mark;
        if (shot.status == record::ShotStatus::setAside)
            shot.reason = mark;
    }
    test.amendments = {{"2026-05-02T09:00:00", mark}};
    for (auto& sitting : test.sittings)
        sitting.conditions.ball = mark;
    Bench bench;
    const auto id = *logbook::Logbook::create(bench.path("a.knotbook").toStdString())->save(test);
    bench.window->openPath(bench.path("a.knotbook"));
    bench.window->show();
    REQUIRE(bench.session.openTest(id));
    REQUIRE(bench.waitForReading());
    emit bench.session.refused(QString::fromStdString(mark));
    std::size_t met = 0;
    for (const app::PageEntry& page : app::pageEntries) {
        bench.window->showPage(page.id);
        for (const QWidget* widget : QApplication::allWidgets()) {
            INFO(widget->objectName().toStdString());
            CHECK(!widget->toolTip().contains("<img"));
            const auto* label = qobject_cast<const QLabel*>(widget);
            if (label == nullptr)
                continue;
            CHECK(label->textFormat() != Qt::AutoText);
            met += label->text().contains("<img") || label->text().contains("&lt;img") ? 1 : 0;
            if (label->textFormat() == Qt::RichText)
                CHECK(!label->text().contains("<img"));
            else
                CHECK(!label->text().contains("</")); // our own markup is in labels that read it
        }
    }
    CHECK(met > 5); // the names did come onto the pages
}
