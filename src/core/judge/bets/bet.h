#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/plan/spreads.h"

namespace knot::judge {

/// How alike neighbouring shots are: their lag-one correlation inside stints, and how many pairs that weighs.
struct Neighbours {
    double alike = 0.1, pairs = 8;
};

/// What a bet rests on besides the shots: how steady the player is, and how far builds may lie apart.
struct BetPrior {
    plan::Spreads usual; ///< of the metric, in its unit
    double degrees = 6;  ///< what the usual spreads weigh, in degrees of freedom
    double scale = 1;    ///< of gaps between builds, in the metric's unit; > 0
    /// Runs that the player warms up through, and whose neighbouring shots are alike (judgement §34): the SD of what
    /// the first swing adds. Nothing: as judgement §14 has it.
    std::optional<double> warmUp = {};
    Neighbours neighbours = {}; ///< beforehand; the record's own pairs are added
};

struct Swept;

/// The posterior of judgement §14 for one metric: builds with a common scatter τ about nothing, laps flat,
/// stints and shots as the record and the prior have them. Sums over five sizes of the stint and
/// twenty-one of τ; each is a normal one.
class Bet {
public:
    /// Nothing where under two builds have a reading.
    static std::optional<Bet> of(const Column& column, const BetPrior& prior);

    /// Of two means that share no lap, as builds 0 and 1: the gap between them has one of `variances`, each as likely
    /// as the others; `scale` as in BetPrior.
    static Bet ofMeans(Metric metric, double first, double second, const std::vector<double>& variances, double scale);

    const std::vector<BuildAt>& builds() const { return m_builds; }
    /// σ²_e and its degrees of freedom without the prior's.
    double shotVariance() const { return m_shotVariance; }
    double shotDegrees() const { return m_shotDegrees; }
    /// `build` less `against`; `ahead` is the chance that the gap favours `build` by what is wanted, without
    /// a direction that it is above 0. Both must be of the bet.
    BetOnPair pair(BuildAt build, BuildAt against, const record::Want& want, std::uint64_t seed) const;
    /// The same without its spread: what to expect, and how often it is ahead.
    BetOnPair::Otherwise glance(BuildAt build, BuildAt against, const record::Want& want, std::uint64_t seed) const;
    /// Each build by itself, so that the gaps of all pairs vary as they do in `pair`; of a common level that is 0.
    struct Marginal {
        BuildAt build;
        double mean = 0, sd = 0;
    };
    std::vector<Marginal> marginals() const;
    /// What choosing the best by its expectation leaves lying on average now, and after `laps` more of stints of so
    /// many shots: the builds' marginals drawn each by itself, and new stints about them. So drawn `now` comes out a
    /// little larger than the loss that `best` gives; what counts is how much of it is left.
    FurtherBet further(const record::Want& want, const plan::Spreads& usual, std::size_t laps, std::size_t shots,
                       std::uint64_t seed, int draws = 4000) const;
    /// How often each build is best, and what choosing it loses on average, from seeded draws
    /// where they are more than two or wanted near a value.
    std::vector<BestBet> best(const record::Want& want, std::uint64_t seed, int draws = 20000) const;

private:
    /// One size of stint and τ: the builds' effects are normal about `mean`.
    struct Part {
        double weight = 0;
        std::vector<double> mean;
        std::vector<double> acrossRoot; ///< k × k, axes by builds: its transpose times it is the covariance
        std::size_t stint = 0;          ///< which size of the stint

        double varianceOf(std::size_t i, std::size_t j) const;
    };
    static Part partOf(const Swept& swept, double tau);
    void addPoint(const Swept& swept, double middle, double scale);
    void weigh();
    /// What the laps' level is where the builds' effects are known: level − Σ share·b.
    struct Level {
        double value = 0;
        std::vector<double> shares;
    };
    /// What a part says of one gap: it is normal.
    struct Gap {
        double weight = 0, mean = 0, sd = 0;
    };
    std::size_t placeOf(BuildAt build) const;
    std::vector<Gap> gapsOf(BuildAt build, BuildAt against) const;
    enum class WithLevel { no, yes };
    template<typename Numbers, typename Use>
    void drawInto(Numbers off, std::uint64_t seed, int draws, WithLevel withLevel, Use use) const;
    template<typename Use> void drawEach(std::uint64_t seed, int draws, WithLevel withLevel, Use use) const;
    void bestOfTwo(const record::Want& want, std::vector<BestBet>& best) const;
    static double merit(double effect, double level, const record::Want& want);

    Metric m_metric = Metric::carry;
    std::vector<BuildAt> m_builds;
    double m_shotVariance = 0, m_shotDegrees = 0;
    std::vector<Part> m_parts;
    std::vector<Level> m_levels; ///< by size of the stint
};

} // namespace knot::judge
