#include "app/support.h"

#include "app/demo.h"
#include "app/shell/message_bar.h"

#include <QAction>
#include <QFile>
#include <QListView>
#include <QSettings>

namespace knot::test {

Bench::Bench() {
    qputenv("XDG_DATA_HOME", folder.path().toUtf8()); // nothing of the user's own is touched
    // Settings of their own too, for all tests of a run, and any free port for monitors.
    static const QTemporaryDir settings;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    QSettings().remove(QStringLiteral("link"));
    QSettings().setValue(QStringLiteral("link/port"), 0);
    QSettings().setValue(QStringLiteral("link/known"), QStringList{"Simulated monitor", "Hand-made"});
    auto scripted = std::make_unique<ScriptedPrompter>();
    prompter = scripted.get();
    window = std::make_unique<app::MainWindow>(session, std::move(scripted));
    window->show();
    window->activateWindow();
    (void)QTest::qWaitForWindowActive(window.get());
}

QString Bench::writeFile(const QString& name, const QByteArray& text) const {
    QFile file(path(name));
    (void)file.open(QIODevice::WriteOnly);
    file.write(text);
    return path(name);
}

void Bench::readFile(const QString& path) {
    window->openPath(path);
    QTest::keyClick(window->focusWidget(), Qt::Key_Return);
}

bool Bench::addFile(const QString& path) {
    const auto read = files::readShotFile(path.toStdString());
    return read && session.addShots(read->test);
}

void Bench::openDemo() {
    (void)app::ensureDemo(path("Demo.knotbook").toStdString());
    window->openPath(path("Demo.knotbook"));
}

bool Bench::waitForReading() {
    return QTest::qWaitFor([this] { return session.judging().reading() || session.judging().withheld(); }, 10000);
}

QString Bench::message() {
    auto* bar = find<app::MessageBar>("messageBar");
    return bar->isVisible() ? bar->text() : QString();
}

QString Bench::ledgerSentence() {
    return find<QListView>("ledger")->currentIndex().data(Qt::AccessibleTextRole).toString();
}

QStringList Bench::ledgerSentences() {
    QStringList all;
    const auto* model = find<QListView>("ledger")->model();
    for (int row = 0; row < model->rowCount(); ++row)
        all << model->index(row, 0).data(Qt::AccessibleTextRole).toString();
    return all;
}

void Bench::trigger(const char* action) {
    find<QAction>(action)->trigger();
}

} // namespace knot::test
