#pragma once

#include <filesystem>
#include <random>
#include <string>
#include <string_view>
#include <vector>

namespace knot::test {

/// Damages texts the way bad cables, other programs and bad luck do: bits, cuts, repeats, swapped
/// pieces, and the values that readers trip over. The same seed damages alike on every machine.
class Mutator {
public:
    explicit Mutator(std::vector<std::string> seeds, std::uint64_t seed = 20261)
        : m_seeds(std::move(seeds))
        , m_random(seed) {}

    /// One of the seeds with one to four damages.
    std::string next();

private:
    std::size_t below(std::size_t end) { return end == 0 ? 0 : m_random() % end; }
    void damage(std::string& text);
    std::vector<std::string> m_seeds;
    std::mt19937_64 m_random;
};

/// Every file of a folder of tests/data/fuzz, in the order of their names: what once broke something
/// stays there and is tried anew, whole and damaged.
std::vector<std::string> seedsIn(std::string_view kind);

/// How many mutations of a kind are tried: a few in `./check`, else as many as KNOT_MUTATIONS says.
std::size_t mutations();

/// Holds what is being tried, so that it is still there after a crash: `knot_mutant_KIND` in the
/// folder of temporary files.
std::filesystem::path mutantFile(std::string_view kind);

} // namespace knot::test
