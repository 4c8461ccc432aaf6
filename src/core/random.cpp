#include "core/random.h"

#include <boost/random/normal_distribution.hpp>
#include <boost/random/student_t_distribution.hpp>

namespace knot {

double Random::uniform() { return static_cast<double>(m_engine() >> 11) * 0x1.0p-53; }

std::size_t Random::below(std::size_t count) {
    // Reject the incomplete top block, so that every index is equally likely.
    const std::uint64_t limit = UINT64_MAX - UINT64_MAX % count;
    std::uint64_t draw = m_engine();
    while (draw >= limit)
        draw = m_engine();
    return static_cast<std::size_t>(draw % count);
}

double Random::normal() { return boost::random::normal_distribution<double>()(m_engine); }

double Random::studentT(double df) {
    return boost::random::student_t_distribution<double>(df)(m_engine);
}

} // namespace knot
