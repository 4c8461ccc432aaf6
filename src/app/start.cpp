#include "app/start.h"

#include "app/demo.h"
#include "app/reading_page/reading_page.h"
#include "app/report/report_command.h"
#include "app/session/session.h"
#include "app/shell/main_window.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QSocketNotifier>
#include <QStandardPaths>
#include <QTimer>

#include <sys/socket.h>
#include <unistd.h>

#include <csignal>
#include <cstdio>
#include <tuple>

// Qt's macro must stand outside any namespace; without it a static library's resources are dropped.
static void registerResources() {
    Q_INIT_RESOURCE(fonts);
    Q_INIT_RESOURCE(style);
}

namespace knot::app {
namespace {

int fail(const QString& sentence) {
    std::fprintf(stderr, "knotcount: %s\n", qPrintable(sentence));
    return 2;
}

Theme wantedTheme(const QCommandLineParser& line) {
    if (line.isSet(QStringLiteral("dark")))
        return Theme::dark;
    if (line.isSet(QStringLiteral("light")))
        return Theme::light;
    const QString kept = QSettings().value(QStringLiteral("theme")).toString();
    if (!kept.isEmpty())
        return kept == QStringLiteral("dark") ? Theme::dark : Theme::light;
    // What the desktop's own colours say before ours replace them.
    return QApplication::palette().color(QPalette::Window).lightness() < 128 ? Theme::dark : Theme::light;
}

// The test that was in the bay when the program ended, however it ended, goes on where it stood.
void goOnWithBay(MainWindow& window, Session& session) {
    const QStringList last = QSettings().value(QStringLiteral("bay/under_way")).toStringList();
    if (last.size() != 2 || !QFileInfo::exists(last[0]) || !session.openLogbook(last[0]))
        return;
    for (const auto& entry : session.book().tests())
        if (QString::fromStdString(entry.id) == last[1] && session.openTest(entry.id)) {
            const bool done = bay::standOf(session.test()).phase() == bay::Phase::done;
            window.showPage(done ? PageId::logbook : PageId::bay);
            return;
        }
}

// Renders the window once the judge has answered, then ends.
void shoot(MainWindow& window, Session& session, const QString& page, const QString& file) {
    auto take = [&window, file, page] {
        QTimer::singleShot(50, &window, [&window, file, page] {
            auto* player = page == QStringLiteral("player") ? window.openPlayerWindow() : nullptr;
            for (int i = 0; i < 3; ++i) // what wraps asks for room again
                QCoreApplication::processEvents();
            const bool saved = (player != nullptr ? player->grab() : window.grab()).save(file);
            if (!saved)
                std::fprintf(stderr, "knotcount: %s can't be written.\n", qPrintable(file));
            QApplication::exit(saved ? 0 : 2);
        });
    };
    if (session.hasTest() && session.judging().reading() == nullptr && !session.judging().withheld())
        QObject::connect(&session.judging(), &Judging::changed, &window, take);
    else
        take();
}

// A logout or a kill asks first: the window closes in order, and what waits in a field is taken.
void closeOnSignals(MainWindow& window) {
    static int ends[2];
    if (::socketpair(AF_UNIX, SOCK_STREAM, 0, ends) != 0)
        return;
    auto* notifier = new QSocketNotifier(ends[1], QSocketNotifier::Read, &window);
    // The window may refuse, as while something can't be written; whoever asks a second time means it.
    QObject::connect(notifier, &QSocketNotifier::activated, &window, [&window, wasRefused = false]() mutable {
        char word = 0;
        std::ignore = ::read(ends[1], &word, 1);
        if (window.close() || std::exchange(wasRefused, true))
            QApplication::exit();
    });
    for (const int signal : {SIGTERM, SIGHUP})
        std::signal(signal, [](int) {
            const char word = 1;
            std::ignore = ::write(ends[0], &word, 1);
        });
}

// Settings hold paths, names of devices and the link's code: they are for this user alone.
void keepSettingsPrivate() {
    const QString name = QSettings().fileName();
    QDir().mkpath(QFileInfo(name).path());
    QFile file(name);
    if (!file.exists())
        std::ignore = file.open(QIODevice::WriteOnly);
    file.setPermissions(QFile::ReadOwner | QFile::WriteOwner);
}

} // namespace

int start(QApplication& application) {
    QApplication::setOrganizationName(QStringLiteral("Knot Count"));
    QApplication::setApplicationName(QStringLiteral("Knot Count"));
    QApplication::setApplicationVersion(QStringLiteral(KNOT_VERSION));
    QCommandLineParser line;
    line.setApplicationDescription(QStringLiteral("Fair comparisons of golf clubs."));
    line.addHelpOption();
    line.addVersionOption();
    line.addPositionalArgument(QStringLiteral("FILE"), QStringLiteral("Logbook (.knotbook) or shot file to open"),
                               QStringLiteral("[FILE]"));
    line.addOptions(
        {{QStringLiteral("demo"), QStringLiteral("Open the demo logbook; it is made if need be")},
         {QStringLiteral("report"),
          QStringLiteral("Write the report of a test and end: --report FILE.pdf|FILE.html LOGBOOK TEST"),
          QStringLiteral("FILE")},
         {QStringLiteral("appendix"), QStringLiteral("With how every verdict was reckoned")},
         {QStringLiteral("shot"), QStringLiteral("Render a page to a picture and end"), QStringLiteral("FILE.png")},
         {QStringLiteral("page"),
          QStringLiteral(
              "Page to show: start, import, logbook, sheet, rack, plan, bay, shots, player, players, reading, "
              "decision or report"),
          QStringLiteral("NAME")},
         {QStringLiteral("picture"),
          QStringLiteral("Picture of a reading: table, cords, landing, flight, face, order, luck or parts"),
          QStringLiteral("NAME")},
         {QStringLiteral("test"), QStringLiteral("Test to open, by title or part of it"), QStringLiteral("TITLE")},
         {QStringLiteral("size"), QStringLiteral("Window size"), QStringLiteral("WIDTHxHEIGHT")},
         {QStringLiteral("light"), QStringLiteral("Light colours")},
         {QStringLiteral("dark"), QStringLiteral("Dark colours")}});
    line.process(application);

    keepSettingsPrivate();
    registerResources();
    installFonts();
    applyTheme(wantedTheme(line));
    if (line.isSet(QStringLiteral("report"))) {
        const QStringList of = line.positionalArguments();
        if (of.size() != 2)
            return fail(QStringLiteral("A report needs a logbook and a test: --report FILE.pdf LOGBOOK TEST"));
        const QString whyNot =
            writeReport(line.value(QStringLiteral("report")), of[0], of[1], line.isSet(QStringLiteral("appendix")));
        return whyNot.isEmpty() ? 0 : fail(whyNot);
    }
    Session session;
    MainWindow window(session, std::make_unique<DialogPrompter>());
    if (const QStringList size = line.value(QStringLiteral("size")).split(QLatin1Char('x')); size.size() == 2)
        window.resize(size[0].toInt(), size[1].toInt());
    if (line.isSet(QStringLiteral("demo"))) {
        if (auto made = ensureDemo(demoPath().toStdString()); !made)
            return fail(QString::fromStdString(logbook::sentence(made.error())));
        window.openPath(demoPath());
    }
    window.openPaths(line.positionalArguments());
    if (!line.isSet(QStringLiteral("demo")) && line.positionalArguments().isEmpty())
        goOnWithBay(window, session);
    if (const QString title = line.value(QStringLiteral("test"));
        !title.isEmpty() || line.value(QStringLiteral("page")) == QStringLiteral("reading") ||
        line.value(QStringLiteral("page")) == QStringLiteral("decision") ||
        line.value(QStringLiteral("page")) == QStringLiteral("report"))
        for (const auto& entry : session.book().tests())
            if (!session.hasTest() && QString::fromStdString(entry.title).contains(title, Qt::CaseInsensitive) &&
                session.openTest(entry.id))
                window.showPage(PageId::reading);
    QString wanted = line.value(QStringLiteral("page"));
    if (wanted == QStringLiteral("player"))
        wanted = QStringLiteral("bay");
    if (wanted == QStringLiteral("start"))
        window.showPage(PageId::start);
    for (const PageEntry& page : pageEntries)
        if (wanted == QLatin1String(page.word))
            window.showPage(page.id);
    if (wanted == QStringLiteral("players"))
        window.showPlayers();
    if (wanted == QStringLiteral("report"))
        window.showPage(PageId::report);
    if (wanted == QStringLiteral("shots"))
        window.showShots();
    if (line.isSet(QStringLiteral("picture")))
        window.findChild<ReadingPage*>()->showPictureNamed(line.value(QStringLiteral("picture")));
    window.show();
    closeOnSignals(window);
    if (line.isSet(QStringLiteral("shot")))
        shoot(window, session, line.value(QStringLiteral("page")), line.value(QStringLiteral("shot")));
    return QApplication::exec();
}

} // namespace knot::app
