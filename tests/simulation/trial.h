#pragma once

#include "core/judge/judge.h"
#include "core/random.h"

#include <string>
#include <vector>

namespace knot::test {

/// A made-up rotated test with known truth, as in judgement's error-rate claims.
struct Trial {
    std::size_t builds = 2;
    int rounds = 5, turnLength = 3;
    double sdTurn = 0.5;      ///< in units of the shot SD
    double sdRound = 0.7;     ///< what a lap does to every club in it
    double widest = 1;        ///< SD of the last build's shots against the others'
    double missing = 0;       ///< share of readings that fail
    std::vector<double> gaps; ///< true means by build; missing ones are 0
    std::vector<record::Metric> metrics{record::Metric::carry};
    double margin = 0.6;
    bool oneRunEach = false;
    enum class Tails { normal, heavy } tails = Tails::normal;

    record::Test strike(Random& random) const;
};

/// How often something happened, with the Monte-Carlo standard error of that share.
class Rate {
public:
    void count(bool happened) {
        ++m_trials;
        m_hits += happened ? 1 : 0;
    }
    double share() const { return m_trials == 0 ? 0 : static_cast<double>(m_hits) / static_cast<double>(m_trials); }
    /// Whether a true share of at most `bound` would give this count, to four standard errors.
    bool isAtMost(double bound) const;
    bool isAtLeast(double bound) const;
    std::string percent() const;

private:
    std::size_t m_hits = 0, m_trials = 0;
};

/// Repetitions of a cell: `fast` in ./check, a multiple with KNOT_LONG=1 in ./check --long.
int repetitions(int fast);

/// Prints a row of the table in docs/statistics.md.
void printRow(const std::string& row);

/// "real", "slight" or "real_size_open": the claim that something differs.
bool claimsDifference(judge::Verdict verdict);

} // namespace knot::test
