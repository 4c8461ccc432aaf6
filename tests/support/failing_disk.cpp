#include "support/failing_disk.h"

#include <sqlite3.h>

#include <cstring>

namespace knot::test {
namespace {

struct State {
    int writes = 0, failAt = 0, openings = 0, failOpening = 0, code = SQLITE_IOERR_WRITE;
    FailingDisk::Lasts lasts = FailingDisk::Lasts::once;
    bool failed = false;
    sqlite3_vfs* real = nullptr;
    sqlite3_vfs own{};
} state;

// A file of ours: the methods, then the real file.
struct File {
    sqlite3_file base;
    sqlite3_file* real() { return reinterpret_cast<sqlite3_file*>(this + 1); }
};

File* ours(sqlite3_file* file) {
    return reinterpret_cast<File*>(file);
}

bool fails() {
    ++state.writes;
    const bool now =
        state.failAt > 0 && (state.writes == state.failAt ||
                             (state.lasts == FailingDisk::Lasts::fromThenOn && state.writes > state.failAt));
    state.failed = state.failed || now;
    return now;
}

#define PASS(method, parameters, ...)                                                                                  \
    [] parameters { return ours(file)->real()->pMethods->method(ours(file)->real() __VA_OPT__(, ) __VA_ARGS__); }

const sqlite3_io_methods methods = {
    .iVersion = 2,
    .xClose = PASS(xClose, (sqlite3_file * file)),
    .xRead = PASS(xRead, (sqlite3_file * file, void* to, int size, sqlite3_int64 at), to, size, at),
    .xWrite =
        [](sqlite3_file* file, const void* from, int size, sqlite3_int64 at) {
            return fails() ? state.code : ours(file)->real()->pMethods->xWrite(ours(file)->real(), from, size, at);
        },
    .xTruncate =
        [](sqlite3_file* file, sqlite3_int64 size) {
            return fails() ? SQLITE_IOERR_TRUNCATE : ours(file)->real()->pMethods->xTruncate(ours(file)->real(), size);
        },
    .xSync =
        [](sqlite3_file* file, int flags) {
            return fails() ? SQLITE_IOERR_FSYNC : ours(file)->real()->pMethods->xSync(ours(file)->real(), flags);
        },
    .xFileSize = PASS(xFileSize, (sqlite3_file * file, sqlite3_int64* size), size),
    .xLock = PASS(xLock, (sqlite3_file * file, int level), level),
    .xUnlock = PASS(xUnlock, (sqlite3_file * file, int level), level),
    .xCheckReservedLock = PASS(xCheckReservedLock, (sqlite3_file * file, int* result), result),
    .xFileControl = PASS(xFileControl, (sqlite3_file * file, int operation, void* argument), operation, argument),
    .xSectorSize = PASS(xSectorSize, (sqlite3_file * file)),
    .xDeviceCharacteristics = PASS(xDeviceCharacteristics, (sqlite3_file * file)),
    .xShmMap = PASS(xShmMap, (sqlite3_file * file, int page, int size, int extend, void volatile** memory), page, size,
                    extend, memory),
    .xShmLock = PASS(xShmLock, (sqlite3_file * file, int offset, int count, int flags), offset, count, flags),
    .xShmBarrier = PASS(xShmBarrier, (sqlite3_file * file)),
    .xShmUnmap = PASS(xShmUnmap, (sqlite3_file * file, int remove), remove),
    .xFetch = nullptr,
    .xUnfetch = nullptr,
};
#undef PASS

int openFile(sqlite3_vfs*, const char* name, sqlite3_file* file, int flags, int* outFlags) {
    File* own = ours(file);
    std::memset(own, 0, sizeof(File));
    if ((flags & SQLITE_OPEN_MAIN_DB) != 0 && ++state.openings == state.failOpening) {
        state.failed = true;
        return SQLITE_CANTOPEN;
    }
    const int result = state.real->xOpen(state.real, name, own->real(), flags, outFlags);
    if (result == SQLITE_OK)
        own->base.pMethods = &methods;
    return result;
}

} // namespace

FailingDisk::FailingDisk() {
    state = {};
    state.real = sqlite3_vfs_find(nullptr);
    state.own = *state.real;
    state.own.zName = "failing disk";
    state.own.szOsFile = static_cast<int>(sizeof(File)) + state.real->szOsFile;
    state.own.pNext = nullptr;
    state.own.xOpen = openFile;
    sqlite3_vfs_register(&state.own, 1);
}

FailingDisk::~FailingDisk() {
    sqlite3_vfs_unregister(&state.own);
    sqlite3_vfs_register(state.real, 1);
}

void FailingDisk::failAt(int write, int code, Lasts lasts) {
    mend();
    state.failAt = write;
    state.code = code;
    state.lasts = lasts;
}

void FailingDisk::failOpening(int opening) {
    mend();
    state.failOpening = opening;
}

void FailingDisk::mend() {
    state.openings = 0;
    state.failOpening = 0;
    state.writes = 0;
    state.failAt = 0;
    state.failed = false;
}

int FailingDisk::writes() const {
    return state.writes;
}

bool FailingDisk::hasFailed() const {
    return state.failed;
}

} // namespace knot::test
