#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QtConcurrent>

namespace knot::app {

/// Runs work off the window's thread and hands what it gives to `then` back on it. The answer is
/// dropped when `context` is gone by then. The work must own all that it touches.
template<typename Work, typename Then> void inBackground(QObject* context, Work work, Then then) {
    using Answer = decltype(work());
    auto* watcher = new QFutureWatcher<Answer>(context);
    QObject::connect(watcher, &QFutureWatcher<Answer>::finished, context, [watcher, then = std::move(then)]() mutable {
        watcher->deleteLater();
        then(watcher->future().takeResult());
    });
    watcher->setFuture(QtConcurrent::run(std::move(work)));
}

} // namespace knot::app
