#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QtConcurrent>

#include <cstdio>
#include <exception>
#include <optional>

namespace knot::app {

/// Runs work off the window's thread and hands what it gives to `then` back on it: nothing where the work throws, so
/// that nobody waits for ever. The answer is dropped when `context` is gone by then. The work must own all that it
/// touches.
template<typename Work, typename Then> void inBackground(QObject* context, Work work, Then then) {
    using Answer = std::optional<decltype(work())>;
    auto* watcher = new QFutureWatcher<Answer>(context);
    QObject::connect(watcher, &QFutureWatcher<Answer>::finished, context, [watcher, then = std::move(then)]() mutable {
        watcher->deleteLater();
        then(watcher->future().takeResult());
    });
    watcher->setFuture(QtConcurrent::run([work = std::move(work)]() mutable -> Answer {
        try {
            return work();
        } catch (const std::exception& fault) {
            std::fprintf(stderr, "knotcount: work in the background failed (%s)\n", fault.what());
            return std::nullopt;
        }
    }));
}

} // namespace knot::app
