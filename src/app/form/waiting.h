#pragma once

#include "files/base/watch.h"

#include <QFuture>
#include <QString>
#include <QtConcurrent>

#include <memory>

namespace knot::app {

/// Waits for work that was begun, with the window painted but taking no input. What takes longer than a
/// second shows how far it is ("Reading shots.xlsx"), and Escape gives it up.
void waitFor(const QFuture<void>& work, const QString& doing, const std::shared_ptr<files::Watch>& watch);

/// Runs work off the window's thread and gives what it gives; it must own all that it touches, and stop
/// soon after the watch was given up. Throws what it throws.
template<typename Work> auto waited(const QString& doing, Work work) -> decltype(work(std::declval<files::Watch&>())) {
    auto watch = std::make_shared<files::Watch>();
    auto answer = QtConcurrent::run([watch, work = std::move(work)]() mutable { return work(*watch); });
    waitFor(QFuture<void>(answer), doing, watch);
    return answer.takeResult();
}

} // namespace knot::app
