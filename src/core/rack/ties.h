#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace knot::rack {

/// How something that a test holds constant stands among its clubs, as far as the Rack tells.
struct Tie {
    /// `factor`: it is what is tested, or comes with it.
    enum class State { notOnRack, unknown, same, differs, factor } state = State::notOnRack;
    std::string text; ///< "Tarn 5", "1073 mm", "46 g with Reed 53, else 50 g"; empty where nothing is known
};

/// Of "the same grip" and what else data/held.csv names, among the clubs that are in.
Tie tieOf(const std::string& held, const std::vector<record::Build>& builds, record::TestKind kind);

} // namespace knot::rack
