#pragma once

#include <cstdint>
#include <random>

namespace knot {

/// A seeded source of random numbers that gives the same sequence on every machine: the standard
/// engine, with distributions of fixed algorithm. Not for secrets.
class Random {
public:
    explicit Random(std::uint64_t seed)
        : m_engine(seed) {}

    double uniform();                           ///< in [0, 1)
    std::uint64_t bits() { return m_engine(); } ///< 64 of them, each as often 0 as 1
    std::size_t below(std::size_t count);       ///< in [0, count); count > 0
    double normal();                            ///< mean 0, SD 1
    double studentT(double df);                 ///< Student's t; df > 0
    /// A seed for an independent stream, so that one part's use does not shift another's.
    std::uint64_t fork() { return m_engine() ^ 0x9e3779b97f4a7c15ULL; }

private:
    std::mt19937_64 m_engine;
};

} // namespace knot
