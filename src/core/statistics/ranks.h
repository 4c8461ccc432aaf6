#pragma once

#include <cstddef>
#include <optional>
#include <vector>

namespace knot::statistics {

/// Pairs (a, b) in which b is above a, ties counting half (Mann and Whitney 1947); both in ascending order.
double pairsAbove(const std::vector<double>& a, const std::vector<double>& b);

/// Spearman's rank correlation of two lists of one length, with average ranks for ties. Nothing under three pairs
/// or where one of them does not vary.
std::optional<double> spearman(const std::vector<double>& x, const std::vector<double>& y);

/// How often luck alone gives a rank correlation as far from 0, two-sided: all orders counted up to nine pairs, beyond
/// by Student's t (Kendall and Stuart's approximation). Nothing where `spearman` gives nothing.
std::optional<double> spearmanByLuck(const std::vector<double>& x, const std::vector<double>& y);

/// The two-sided p of Fisher's exact test (1922): `hits` of `n` in each of two groups, over all tables of the same
/// sums that are no likelier.
double fisherExact(std::size_t hitsA, std::size_t nA, std::size_t hitsB, std::size_t nB);

/// The two-sided p of an exact sign test: how likely `count` of `of` or something as far from half is.
double signTest(std::size_t count, std::size_t of);

/// Jonckheere and Terpstra's test for order of groups, the lowest first (Jonckheere 1954): how many values of a higher
/// group lie above those of a lower one, a tie for half; variance with ties, normal, two-sided. Nothing where that has
/// no variance.
struct OrderTest {
    double j = 0, z = 0, p = 1;
};
std::optional<OrderTest> jonckheere(const std::vector<std::vector<double>>& groups);

} // namespace knot::statistics
