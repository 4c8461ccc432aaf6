#pragma once

#include "core/record/card.h"

#include <vector>

namespace knot::record {

/// What a kind of test holds constant, each with the slip that usually happens (data/held.csv).
std::vector<Held> usualControls(TestKind kind);

/// Why what is tested can't be hidden from the one who swings it, as a sentence; empty where it can.
std::string whyVisible(TestKind kind);

} // namespace knot::record
