#pragma once

#include "core/record/card.h"

#include <vector>

namespace knot::record {

/// What a kind of test holds constant, each with the slip that usually happens (data/held.csv).
std::vector<Held> usualControls(TestKind kind);

/// The same as a new sheet has them: all held, nothing slipped.
std::vector<Held> heldAsUsual(TestKind kind);

/// Why what is tested can't be hidden from the one who swings it, as a sentence; empty where it can.
std::string whyVisible(TestKind kind);

} // namespace knot::record
