#pragma once

#include <atomic>

namespace knot::files {

/// Between long work and somebody who waits for it in another thread: how far it is, and whether it is
/// to be given up.
struct Watch {
    std::atomic<double> share = 0; ///< of the work, 0 to 1
    std::atomic<bool> givenUp = false;
};

/// A stretch of the whole that one step of the work is; any number of them may share no watch at all.
struct Stretch {
    Watch* watch = nullptr;
    double from = 0, to = 1;

    /// False where the work is to stop.
    bool tell(double share) const {
        if (watch == nullptr)
            return true;
        watch->share = from + (to - from) * share;
        return !watch->givenUp;
    }
};

} // namespace knot::files
