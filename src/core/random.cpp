#include "core/random.h"

#include <boost/random/normal_distribution.hpp>
#include <boost/random/student_t_distribution.hpp>

#include <bit>

namespace knot {

double Random::uniform() {
    return static_cast<double>(m_engine() >> 11) * 0x1.0p-53;
}

std::size_t Random::below(std::size_t count) {
    if (count <= 1)
        return 0;
    // The top bits that can hold count − 1, drawn again where they reach beyond it: every index is
    // equally likely, and no division is needed.
    const int shift = std::countl_zero(static_cast<std::uint64_t>(count - 1));
    std::uint64_t draw = m_engine() >> shift;
    while (draw >= count)
        draw = m_engine() >> shift;
    return static_cast<std::size_t>(draw);
}

double Random::normal() {
    return boost::random::normal_distribution<double>()(m_engine);
}

double Random::studentT(double df) {
    return boost::random::student_t_distribution<double>(df)(m_engine);
}

} // namespace knot
