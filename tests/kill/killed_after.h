#pragma once

#include <catch2/catch.hpp>

#include <cstdlib>

#include <csignal>
#include <sys/wait.h>
#include <unistd.h>

namespace knot::test {

/// Fewer kills in a check than in a long one.
inline bool isLong() {
    const char* wanted = std::getenv("KNOT_LONG");
    return wanted != nullptr && *wanted == '1';
}

/// Work in a process of its own that is killed after a while.
template<typename Work> void killedAfter(std::size_t microseconds, Work work) {
    const pid_t child = fork();
    REQUIRE(child >= 0);
    if (child == 0) {
        work();
        _exit(0);
    }
    ::usleep(static_cast<useconds_t>(microseconds));
    ::kill(child, SIGKILL);
    int status = 0;
    ::waitpid(child, &status, 0);
}

} // namespace knot::test
