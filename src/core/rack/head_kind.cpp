#include "core/rack/head_kind.h"

#include "core/rack/figures.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <optional>
#include <set>
#include <utility>

namespace knot::rack {
namespace {

using flight::HeadKind;

constexpr std::array<std::pair<std::string_view, HeadKind>, 17> kindWords = {{
    {"driver", HeadKind::driver},
    {"wood", HeadKind::wood},
    {"fairway", HeadKind::wood},
    {"hybrid", HeadKind::wood},
    {"rescue", HeadKind::wood},
    {"w", HeadKind::wood},
    {"h", HeadKind::wood},
    {"iron", HeadKind::iron},
    {"irons", HeadKind::iron},
    {"i", HeadKind::iron},
    {"wedge", HeadKind::wedge},
    {"pw", HeadKind::wedge},
    {"gw", HeadKind::wedge},
    {"aw", HeadKind::wedge},
    {"sw", HeadKind::wedge},
    {"lw", HeadKind::wedge},
    {"d", HeadKind::driver},
}};

// Runs of letters, and runs of figures.
std::vector<std::string> wordsIn(std::string_view name) {
    std::vector<std::string> words;
    int last = 0;
    for (const char c : record::lowerCase(name)) {
        const auto byte = static_cast<unsigned char>(c);
        const int sort = record::isDigit(c) ? 1 : std::isalpha(byte) != 0 || byte >= 0x80 ? 2 : 0;
        if (sort != 0 && sort != last)
            words.emplace_back();
        if (sort != 0)
            words.back() += c;
        last = sort;
    }
    return words;
}

// A letter alone speaks only beside a club's number: "7i", "3 w", but not "Reed H".
std::optional<HeadKind> kindSaid(std::string_view name) {
    const auto words = wordsIn(name);
    const bool isNumbered = std::ranges::any_of(
        words, [](const std::string& word) { return word.size() == 1 && word.front() >= '1' && word.front() <= '9'; });
    for (const std::string& word : words) {
        const auto* const at = std::ranges::find(kindWords, word, &std::pair<std::string_view, HeadKind>::first);
        if (at != kindWords.end() && (word.size() > 1 || isNumbered))
            return at->second;
    }
    // Irons are called by their number alone, behind a make or not; "Club 7" is only the seventh.
    const bool isCounted = std::ranges::any_of(
        words, [](const std::string& word) { return word == "club" || word == "shaft" || word == "head"; });
    return isNumbered && !isCounted ? std::optional(HeadKind::iron) : std::nullopt;
}

} // namespace

HeadKind headKind(const record::Part& head, std::string_view club) {
    constexpr double driverVolume = 300; // cm³
    constexpr double woodVolume = 60;
    constexpr double wedgeLoft = 44;
    constexpr double ironLoft = 24;
    constexpr double woodLoft = 13;
    if (head.volume)
        return *head.volume > driverVolume ? HeadKind::driver
               : *head.volume > woodVolume ? HeadKind::wood
                                           : HeadKind::iron;
    if (!head.loft) {
        const auto own = kindSaid(head.name);
        return own ? *own : kindSaid(club).value_or(HeadKind::wood);
    }
    return *head.loft >= wedgeLoft ? HeadKind::wedge
           : *head.loft > ironLoft ? HeadKind::iron
           : *head.loft < woodLoft ? HeadKind::driver
                                   : HeadKind::wood;
}

HeadKind headKind(const record::Build& build) {
    return headKind(build.club.head, build.name);
}

std::string_view kindName(HeadKind kind) {
    constexpr std::array<std::string_view, 4> names = {"driver", "wood", "iron", "wedge"};
    return names.at(static_cast<std::size_t>(kind));
}

bool areOfOneKind(const std::vector<const record::Build*>& clubs) {
    constexpr double oneNumber = 4.5; // degrees
    std::set<HeadKind> kinds;
    std::set<double> lofts;
    for (const record::Build* club : clubs) {
        kinds.insert(headKind(*club));
        if (const auto loft = figuresOf(club->club).loft)
            lofts.insert(*loft);
    }
    return kinds.size() < 2 && (lofts.empty() || *lofts.rbegin() - *lofts.begin() <= oneNumber);
}

} // namespace knot::rack
