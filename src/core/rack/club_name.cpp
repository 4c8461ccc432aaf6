#include "core/rack/club_name.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <set>

namespace knot::rack {
namespace {

using flight::HeadKind;

struct KindWord {
    std::string_view word;
    HeadKind head;
    bool isHybrid = false;
    int number = 0;
};
// What clubs are called, also in other languages. A letter alone speaks only beside a club's number.
constexpr std::array words = {
    KindWord{"driver", HeadKind::driver},
    KindWord{"wood", HeadKind::wood},
    KindWord{"woods", HeadKind::wood},
    KindWord{"fairway", HeadKind::wood},
    KindWord{"fw", HeadKind::wood},
    KindWord{"w", HeadKind::wood},
    KindWord{"holz", HeadKind::wood},
    KindWord{"bois", HeadKind::wood},
    KindWord{"madera", HeadKind::wood},
    KindWord{"legno", HeadKind::wood},
    KindWord{"hybrid", HeadKind::wood, true},
    KindWord{"hybride", HeadKind::wood, true},
    KindWord{"hyb", HeadKind::wood, true},
    KindWord{"hy", HeadKind::wood, true},
    KindWord{"h", HeadKind::wood, true},
    KindWord{"rescue", HeadKind::wood, true},
    KindWord{"utility", HeadKind::wood, true},
    KindWord{"iron", HeadKind::iron},
    KindWord{"irons", HeadKind::iron},
    KindWord{"i", HeadKind::iron},
    KindWord{"eisen", HeadKind::iron},
    KindWord{"fer", HeadKind::iron},
    KindWord{"hierro", HeadKind::iron},
    KindWord{"ferro", HeadKind::iron},
    KindWord{"ijzer", HeadKind::iron},
    KindWord{"järn", HeadKind::iron},
    KindWord{"jern", HeadKind::iron},
    KindWord{"wedge", HeadKind::wedge},
    KindWord{"wedges", HeadKind::wedge},
    KindWord{"pw", HeadKind::wedge, false, 45},
    KindWord{"pitching", HeadKind::wedge, false, 45},
    KindWord{"gw", HeadKind::wedge, false, 50},
    KindWord{"aw", HeadKind::wedge, false, 50},
    KindWord{"uw", HeadKind::wedge, false, 50},
    KindWord{"sw", HeadKind::wedge, false, 55},
    KindWord{"lw", HeadKind::wedge, false, 60},
};
// Behind these a figure counts: "Club 7" is only the seventh.
constexpr std::array counting = {"club", "shaft",   "head",    "option", "test", "set", "ball", "grip", "proto",
                                 "type", "variant", "version", "mk",     "gen",  "no",  "nr",   "kit"};

bool isDegreeWord(const std::string& word) {
    return word == "deg" || word == "degree" || word == "degrees" || word == "loft" || word == "grad";
}

} // namespace

std::vector<NamePiece> piecesOf(std::string_view name) {
    std::vector<NamePiece> pieces;
    const std::string text = record::lowerCase(name);
    for (std::size_t i = 0; i < text.size();) {
        const auto byte = static_cast<unsigned char>(text[i]);
        std::size_t end = i;
        if (record::isDigit(text[i])) {
            while (end < text.size() &&
                   (record::isDigit(text[end]) || ((text[end] == '.' || text[end] == ',') && end + 1 < text.size() &&
                                                   record::isDigit(text[end + 1]))))
                ++end;
            std::string figures = text.substr(i, end - i);
            const bool isWhole = std::ranges::all_of(figures, record::isDigit);
            std::ranges::replace(figures, ',', '.');
            if (const auto number = record::numberIn(figures, record::DecimalMark::point))
                pieces.push_back({.word = {},
                                  .number = *number,
                                  .isWhole = isWhole,
                                  .isDegrees = std::string_view(text).substr(end).starts_with("°")});
        } else if (std::isalpha(byte) != 0 || byte >= 0xc3) {
            while (end < text.size() && (std::isalpha(static_cast<unsigned char>(text[end])) != 0 ||
                                         static_cast<unsigned char>(text[end]) >= 0x80))
                ++end;
            pieces.push_back({.word = text.substr(i, end - i), .number = {}});
        }
        i = std::max(end, i + 1);
    }
    return pieces;
}

bool isClubNumber(const NamePiece& piece) {
    return piece.number && piece.isWhole && !piece.isDegrees && *piece.number >= 1 && *piece.number <= 9;
}

bool isCounted(const std::vector<NamePiece>& pieces) {
    return std::ranges::any_of(
        pieces, [](const NamePiece& piece) { return std::ranges::find(counting, piece.word) != counting.end(); });
}

bool areCounted(const std::vector<record::Build>& clubs) {
    std::set<std::vector<std::string>> words;
    std::set<int> figures;
    for (const record::Build& club : clubs) {
        std::vector<std::string> own;
        for (const NamePiece& piece : piecesOf(club.name))
            if (isClubNumber(piece))
                figures.insert(static_cast<int>(*piece.number));
            else
                own.push_back(piece.word);
        words.insert(std::move(own));
    }
    return clubs.size() > 1 && words.size() == 1 && !words.begin()->empty() && figures.size() == clubs.size() &&
           *figures.begin() == 1 && *figures.rbegin() == static_cast<int>(clubs.size()) &&
           !kindSaid(piecesOf(clubs.front().name));
}

std::optional<ClubKind> kindSaid(const std::vector<NamePiece>& pieces) {
    const auto numbered = std::ranges::find_if(pieces, isClubNumber);
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const auto* const at = std::ranges::find(words, std::string_view(pieces[i].word), &KindWord::word);
        const bool beside =
            (i > 0 && isClubNumber(pieces[i - 1])) || (i + 1 < pieces.size() && isClubNumber(pieces[i + 1]));
        if (at == words.end() || (at->word.size() == 1 && !beside))
            continue;
        ClubKind kind{.head = at->head, .isHybrid = at->isHybrid, .number = at->number};
        if (kind.number == 0 && kind.head != HeadKind::driver && kind.head != HeadKind::wedge &&
            numbered != pieces.end())
            kind.number = static_cast<int>(*numbered->number);
        for (const NamePiece& piece : pieces) // "56 wedge"
            if (kind.head == HeadKind::wedge && piece.number && *piece.number >= 44 && *piece.number <= 64)
                kind.number = static_cast<int>(std::lround(*piece.number));
        return kind;
    }
    return std::nullopt;
}

std::optional<double> loftIn(const std::vector<NamePiece>& pieces) {
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (!pieces[i].number)
            continue;
        const double number = *pieces[i].number;
        const bool inDegrees = pieces[i].isDegrees || (i + 1 < pieces.size() && isDegreeWord(pieces[i + 1].word)) ||
                               (i > 0 && isDegreeWord(pieces[i - 1].word));
        const bool isDrivers =
            number >= 7.5 && number < 13.5 && (!pieces[i].isWhole || (i > 0 && pieces[i - 1].word == "d"));
        if ((inDegrees && number >= 6 && number <= 66) || isDrivers)
            return number;
    }
    return std::nullopt;
}

std::optional<double> loftNamed(std::string_view name) {
    const auto pieces = piecesOf(name);
    const auto numbers = std::ranges::count_if(pieces, [](const NamePiece& piece) { return piece.number.has_value(); });
    if (numbers != 1 || pieces.size() > 3 || kindSaid(pieces))
        return std::nullopt;
    if (const auto loft = loftIn(pieces))
        return loft;
    // A whole figure alone, which beside others that are lofts is one.
    if (pieces.size() == 1 && *pieces[0].number >= 7 && *pieces[0].number <= 64)
        return pieces[0].number;
    return std::nullopt;
}

std::optional<double> settingNamed(std::string_view name) {
    const std::string text = record::lowerCase(record::trimmed(name));
    if (text == "std" || text == "standard" || text == "0" || text == "neutral")
        return 0;
    if (text.empty() || (text.front() != '+' && text.front() != '-' && !text.starts_with("−")))
        return std::nullopt;
    const auto pieces = piecesOf(text);
    if (pieces.size() != 1 || !pieces[0].number || *pieces[0].number > 4)
        return std::nullopt;
    return text.front() == '+' ? *pieces[0].number : -*pieces[0].number;
}

void takeLoftsFromNames(std::vector<record::Build>& clubs) {
    if (clubs.size() < 2)
        return;
    auto all = [&](auto number) {
        return std::ranges::all_of(clubs, [&](const record::Build& club) { return number(club.name).has_value(); });
    };
    if (all(settingNamed)) {
        for (record::Build& club : clubs)
            if (club.club.sleeve == record::Sleeve{})
                club.club.sleeve = {.setting = club.name, .loft = *settingNamed(club.name)};
        return;
    }
    const bool isOne =
        std::ranges::any_of(clubs, [](const record::Build& club) { return loftIn(piecesOf(club.name)).has_value(); });
    if (!all(loftNamed) || !isOne)
        return;
    for (record::Build& club : clubs)
        if (!club.club.head.loft)
            club.club.head.loft = loftNamed(club.name);
}

} // namespace knot::rack
