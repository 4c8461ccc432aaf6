#pragma once

namespace knot::test {

/// While it lives, SQLite's files are opened through it, and writes, syncs and truncations fail from
/// the n-th on (`onceOnly`: that one alone), with the code given (SQLITE_IOERR_WRITE, SQLITE_FULL …).
class FailingDisk {
public:
    enum class Lasts { once, fromThenOn };
    FailingDisk();
    ~FailingDisk();
    FailingDisk(const FailingDisk&) = delete;
    FailingDisk& operator=(const FailingDisk&) = delete;

    void failAt(int write, int code, Lasts lasts);
    /// The n-th opening of a database from now on fails, that one alone.
    void failOpening(int opening);
    void mend();
    /// Writes, syncs and truncations since `failAt` or `mend`.
    int writes() const;
    bool hasFailed() const;
};

} // namespace knot::test
