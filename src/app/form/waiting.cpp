#include "app/form/waiting.h"

#include <QApplication>
#include <QEventLoop>
#include <QFutureWatcher>
#include <QProgressDialog>
#include <QTimer>

namespace knot::app {
namespace {

constexpr int quietMs = 1000;
constexpr int stepMs = 60;
constexpr int whole = 1000;

} // namespace

void waitFor(const QFuture<void>& work, const QString& doing, const std::shared_ptr<files::Watch>& watch) {
    QFutureWatcher<void> watcher;
    QEventLoop loop;
    QObject::connect(&watcher, &QFutureWatcher<void>::finished, &loop, &QEventLoop::quit);
    QTimer::singleShot(quietMs, &loop, &QEventLoop::quit);
    watcher.setFuture(work);
    if (!work.isFinished())
        loop.exec(QEventLoop::ExcludeUserInputEvents);
    if (!work.isFinished()) {
        QProgressDialog progress(doing, QApplication::translate("Waiting", "Give up"), 0, whole,
                                 QApplication::activeWindow());
        progress.setObjectName(QStringLiteral("waiting"));
        progress.setWindowTitle(QApplication::translate("Waiting", "Knot Count"));
        progress.setWindowModality(Qt::ApplicationModal);
        progress.setAutoReset(false);
        progress.setAutoClose(false);
        progress.setMinimumDuration(0);
        QObject::connect(&progress, &QProgressDialog::canceled, &progress, [watch] { watch->givenUp = true; });
        QTimer step;
        QObject::connect(&step, &QTimer::timeout, &progress,
                         [&] { progress.setValue(static_cast<int>(whole * watch->share)); });
        step.start(stepMs);
        progress.show();
        loop.exec();
    }
    if (!work.isFinished()) // the program is asked to end
        watch->givenUp = true;
    watcher.waitForFinished();
}

} // namespace knot::app
