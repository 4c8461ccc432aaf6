#pragma once

#include "app/session/session.h"
#include "app/shell/main_window.h"

#include <QPrinter>
#include <QTemporaryDir>
#include <QTest>

#include <memory>

class QListView;

namespace knot::test {

/// Answers file questions from a list, and remembers what was asked.
struct ScriptedPrompter : app::Prompter {
    QStringList answers, asked;
    QString fileToOpen(QWidget*, const QString& title, const QString&) override { return answer(title); }
    QString fileToSave(QWidget*, const QString& title, const QString&, const QString&, Existing existing) override {
        saved << existing;
        return answer(title);
    }
    QList<Existing> saved; ///< what was to happen to a file that exists
    QString folderToOpen(QWidget*, const QString& title) override { return answer(title); }
    bool choosePrinter(QWidget*, QPrinter& printer) override {
        printer.setOutputFormat(QPrinter::PdfFormat);
        printer.setOutputFileName(answer(QStringLiteral("printer")));
        return !printer.outputFileName().isEmpty();
    }
    QString answer(const QString& title) {
        asked << title;
        return answers.isEmpty() ? QString() : answers.takeFirst();
    }
};

/// Waits until something that takes its time is true.
template<typename Condition> bool eventually(Condition condition, int milliseconds = 10000) {
    return QTest::qWaitFor(condition, milliseconds);
}

/// The real window on a screen without pixels, driven by mouse and keyboard.
class Bench {
public:
    Bench();

    QTemporaryDir folder;
    app::Session session;
    ScriptedPrompter* prompter; ///< owned by the window
    std::unique_ptr<app::MainWindow> window;

    QString path(const QString& name) const { return folder.filePath(name); }
    QString writeFile(const QString& name, const QByteArray& text) const;
    /// Opens a shot file and reads it, as with Enter on the import page.
    void readFile(const QString& path);
    /// Adds the shots of a file to the test in hand; false where they are refused.
    bool addFile(const QString& path);
    /// A logbook made from the simulated scenarios, opened in the window.
    void openDemo();
    /// Waits until the judge has answered.
    bool waitForReading();
    template<typename W> W* find(const char* name) { return window->findChild<W*>(QLatin1String(name)); }
    QString message();
    /// What the ledger row in hand says to a screen reader.
    QString ledgerSentence();
    QStringList ledgerSentences();
    void trigger(const char* action);
};

} // namespace knot::test
