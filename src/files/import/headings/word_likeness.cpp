#include "files/import/headings/word_likeness.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <string_view>

namespace knot::files {
namespace {

// Letters to change, put in, take out or swap with the next to make one word the other; more than `most`
// where it takes more.
std::size_t distance(std::string_view a, std::string_view b, std::size_t most) {
    constexpr std::size_t longest = 24;
    if (a.size() > b.size() + most || b.size() > a.size() + most || std::max(a.size(), b.size()) > longest)
        return most + 1;
    std::array<std::array<std::uint8_t, longest + 1>, 3> rows{}; // of this letter of a, the one before, and that before
    auto row = [&](std::size_t i) -> auto& {
        return rows[i % 3];
    };
    for (std::size_t j = 0; j <= b.size(); ++j)
        row(0)[j] = static_cast<std::uint8_t>(j);
    for (std::size_t i = 1; i <= a.size(); ++i) {
        auto& now = row(i);
        const auto& before = row(i + 2);
        now[0] = static_cast<std::uint8_t>(i);
        std::uint8_t least = now[0];
        for (std::size_t j = 1; j <= b.size(); ++j) {
            int d = std::min({before[j] + 1, now[j - 1] + 1, before[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                d = std::min(d, row(i + 1)[j - 2] + 1);
            now[j] = static_cast<std::uint8_t>(d);
            least = std::min(least, now[j]);
        }
        if (least > most)
            return most + 1;
    }
    return row(a.size())[b.size()];
}

// How much one word is another: 1 the same, less for a slip of the pen, 0 for another word.
double alike(const std::string& a, const std::string& b) {
    if (a == b)
        return 1;
    // Where a sign is a syllable or a word, another sign is another word.
    constexpr unsigned char firstOfThreeBytes = 0xE3;
    if (std::ranges::any_of(a, [](char c) { return static_cast<unsigned char>(c) >= firstOfThreeBytes; }))
        return 0;
    const std::size_t shorter = std::min(a.size(), b.size());
    if (shorter >= 3 && (a + "s" == b || b + "s" == a))
        return 0.99;
    if (shorter < 3 || (shorter == 3 && a.front() != b.front()))
        return 0;
    const std::size_t slips = distance(a, b, shorter >= 8 ? 2 : 1);
    if (slips == 1 && (shorter > 3 || a.size() != b.size()))
        return 0.85;
    if (shorter < 4)
        return 0;
    if (slips == 2 && shorter >= 8)
        return 0.85;
    // "disp" for "dispersion"
    if (a.size() < b.size() ? b.starts_with(a) : a.starts_with(b))
        return 0.8;
    return 0;
}

} // namespace

double sameness(const std::vector<std::string>& a, const std::vector<std::string>& b) {
    double same = 0;
    std::vector<bool> used(b.size(), false);
    for (const auto& word : a) {
        double best = 0;
        std::size_t at = 0;
        for (std::size_t i = 0; i < b.size(); ++i)
            if (!used[i])
                if (const double now = alike(word, b[i]); now > best) {
                    best = now;
                    at = i;
                }
        if (best > 0)
            used[at] = true;
        same += best;
    }
    return 2 * same / static_cast<double>(a.size() + b.size());
}

} // namespace knot::files
