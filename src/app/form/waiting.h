#pragma once

#include "files/base/watch.h"

#include <QFuture>
#include <QString>
#include <QtConcurrent>

#include <cstdio>
#include <exception>
#include <memory>
#include <optional>

namespace knot::app {

/// Waits for work that was begun, with the window painted but taking no input. What takes longer than a
/// second shows how far it is ("Reading shots.xlsx"), and Escape gives it up.
void waitFor(const QFuture<void>& work, const QString& doing, const std::shared_ptr<files::Watch>& watch);

/// Runs work off the window's thread and gives what it gives; nothing where it throws, such as for want of memory. It
/// must own all that it touches, and stop soon after the watch was given up.
template<typename Work> auto waited(const QString& doing, Work work) {
    using Answer = std::optional<decltype(work(std::declval<files::Watch&>()))>;
    auto watch = std::make_shared<files::Watch>();
    auto answer = QtConcurrent::run([watch, work = std::move(work)]() mutable -> Answer {
        try {
            return work(*watch);
        } catch (const std::exception& fault) {
            std::fprintf(stderr, "knotcount: %s\n", fault.what());
            return std::nullopt;
        }
    });
    waitFor(QFuture<void>(answer), doing, watch);
    return answer.takeResult();
}

} // namespace knot::app
