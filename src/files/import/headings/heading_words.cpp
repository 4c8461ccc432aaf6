#include "files/import/headings/heading_words.h"

#include "core/record/text/text.h"
#include "files/base/folded_text.h"

#include <algorithm>
#include <cctype>

namespace knot::files {
namespace {

using record::trimmed;
using record::Unit;

bool isLetter(char c) {
    return std::isalnum(static_cast<unsigned char>(c)) != 0 || (c & 0x80) != 0 || c == '#';
}

std::vector<std::string> splitAsWritten(std::string_view text) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : text)
        if (isLetter(c))
            word += c;
        else if (!word.empty())
            words.push_back(std::exchange(word, {}));
    if (!word.empty())
        words.push_back(std::move(word));
    return words;
}

// "ClubSpeedMPH" → "Club Speed MPH"; "BALL" stays.
std::string withoutHumps(std::string_view text) {
    auto upper = [](char c) { return c >= 'A' && c <= 'Z'; };
    auto lower = [](char c) { return c >= 'a' && c <= 'z'; };
    std::string apart;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool begins = i > 0 && upper(text[i]) &&
                            (lower(text[i - 1]) || (upper(text[i - 1]) && i + 1 < text.size() && lower(text[i + 1])));
        if (begins)
            apart += ' ';
        apart += text[i];
    }
    return apart;
}

// Every kind of white space as one blank.
std::string withPlainSpaces(std::string_view text) {
    std::string plain;
    while (!text.empty())
        if (const std::size_t space = record::spaceAtStart(text); space > 0) {
            plain += ' ';
            text.remove_prefix(space);
        } else {
            plain += text.front();
            text.remove_prefix(1);
        }
    return plain;
}

// "Side [yds] (   /  )" → "Side [yds]", "Side (yd,  )" → "Side (yd)".
std::string withoutEmptyBrackets(std::string text) {
    for (std::size_t open = text.find_first_of("(["); open != std::string::npos;
         open = text.find_first_of("([", open + 1)) {
        std::size_t close = text.find_first_of(")]", open);
        if (close == std::string::npos)
            break;
        constexpr std::string_view idle = " ,;/|=:";
        const auto last = text.find_last_not_of(idle, close - 1);
        if (last == open) {
            text.erase(open, close - open + 1);
            --open;
        } else {
            text.erase(last + 1, close - last - 1);
        }
        if (open == std::string::npos)
            break;
    }
    const auto last = text.find_last_not_of(" ,;/|=:");
    text.erase(last == std::string::npos ? 0 : last + 1);
    return text;
}

Doubtful takeDecided(std::string& name) {
    for (const auto& [each, words] : decidedWords())
        if (name.ends_with(words)) {
            name.erase(name.size() - words.size());
            return each;
        }
    return Doubtful::undecided;
}

class HeadingReader {
public:
    explicit HeadingReader(const Vocabulary& vocabulary)
        : m_vocabulary(vocabulary) {}

    // "Side (R+/L-)", "Strike (+ = heel)", "Lateral, + right": the side of either sign, which leaves the text.
    void takeSign(std::string& text, HeadingWords& found) {
        std::string plain = text;
        for (const std::string_view minus : {"\u2212", "\u2013"})
            for (std::size_t at = plain.find(minus); at != std::string::npos; at = plain.find(minus))
                plain.replace(at, minus.size(), "-");
        if (plain.find_first_of("+-") == std::string::npos)
            return;
        struct Piece {
            std::size_t from = 0, to = 0;
            char sign = 0;
            std::optional<record::Side> side;
        };
        std::vector<Piece> pieces;
        constexpr std::string_view apart = " /,;()[]|:=";
        for (std::size_t i = 0; i < plain.size();) {
            if (apart.find(plain[i]) != std::string_view::npos) {
                ++i;
                continue;
            }
            Piece piece{.from = i, .to = std::min(plain.find_first_of(apart, i), plain.size()), .side = {}};
            std::string_view word = std::string_view(plain).substr(piece.from, piece.to - piece.from);
            i = piece.to;
            if (const bool before = word.front() == '+' || word.front() == '-';
                before || word.back() == '+' || word.back() == '-') {
                piece.sign = before ? word.front() : word.back();
                word = before ? word.substr(1) : word.substr(0, word.size() - 1);
            }
            if (!word.empty())
                piece.side = m_vocabulary.sideNamed(word);
            if (word.empty() || piece.side)
                pieces.push_back(piece);
            else if (word != "is")    // "right is +"
                pieces.push_back({}); // a word of the heading
        }
        std::vector<std::pair<std::size_t, std::size_t>> taken;
        auto take = [&](const Piece& sign, const Piece& side) {
            const bool isPlus = sign.sign == '+';
            const bool isRight = *side.side == record::Side::right;
            found.positive = isPlus == isRight ? record::Side::right : record::Side::left;
            taken.emplace_back(std::min(sign.from, side.from), std::max(sign.to, side.to)); // with "is" or "=" between
        };
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            const bool isPair = i + 1 < pieces.size() && pieces[i].to > 0 && pieces[i + 1].to > 0 &&
                                (pieces[i].sign != 0) != (pieces[i + 1].sign != 0);
            if (pieces[i].sign != 0 && pieces[i].side)
                take(pieces[i], pieces[i]);
            else if (isPair && pieces[i].sign != 0 && pieces[i + 1].side)
                take(pieces[i], pieces[i + 1]), ++i;
            else if (isPair && pieces[i].side && pieces[i + 1].sign != 0 && !pieces[i + 1].side)
                take(pieces[i + 1], pieces[i]), ++i;
        }
        if (taken.empty())
            return;
        for (const auto& [from, to] : taken)
            std::fill(plain.begin() + static_cast<std::ptrdiff_t>(from),
                      plain.begin() + static_cast<std::ptrdiff_t>(to), ' ');
        text = withoutEmptyBrackets(std::move(plain));
    }

    // "Carry [yd]", "Ball Speed (mph)"; what else stands in brackets is words.
    void takeBracket(std::string& text, HeadingWords& found) {
        const auto open = text.find_last_of("[(");
        if (open == std::string::npos || open == 0)
            return;
        const auto close = text.find_first_of("])", open);
        const std::string inside(trimmed(
            std::string_view(text).substr(open + 1, (close == std::string::npos ? text.size() : close) - open - 1)));
        if (const auto unit = m_vocabulary.unitNamed(inside)) {
            found.unit = unit;
            found.unitText = inside;
            text.erase(open);
        } else if (close != std::string::npos && close + 1 == text.size() && wordsIn(inside).size() == 1) {
            found.unknownUnit = inside;
        }
    }

    // "Carry, yds", "carry_m", "Launch Angle °", "Club Speed - mph"
    void takeUnitBehind(std::string& text, HeadingWords& found) {
        constexpr std::string_view degree = "°";
        const auto at = text.find_last_of(" _,;:|-");
        const std::string_view last =
            at == std::string::npos ? std::string_view() : std::string_view(text).substr(at + 1);
        if (last.empty() || at == 0) {
            if (text.ends_with(degree) && text.size() > degree.size()) {
                found.unit = Unit::deg;
                found.unitText = degree;
                text.erase(text.size() - degree.size());
            }
            return;
        }
        if (const auto unit = m_vocabulary.unitNamed(last); unit && *unit != Unit::one) {
            found.unit = unit;
            found.unitText = last;
            text.erase(at);
        }
    }

    HeadingWords read(const std::string& heading) {
        HeadingWords found;
        std::string text = withPlainSpaces(trimmed(heading));
        found.doubtful = takeDecided(text);
        takeSign(text, found);
        takeBracket(text, found);
        if (!found.unit)
            takeUnitBehind(text, found);
        for (const auto& word : splitAsWritten(text))
            if (const auto plain = folded(word); m_vocabulary.isKnownWord(plain))
                found.words.push_back(plain);
            else
                for (auto& part : wordsIn(withoutHumps(word)))
                    found.words.push_back(std::move(part));
        // "CarryYards", "ballSpeedMph"
        if (!found.unit && found.words.size() > 1 && found.words.back().size() > 1)
            if (const auto unit = m_vocabulary.unitNamed(found.words.back()); unit && *unit != Unit::one) {
                found.unit = unit;
                found.unitText = found.words.back();
                found.words.pop_back();
            }
        found.words = m_vocabulary.canonicalWords(found.words);
        return found;
    }

private:
    const Vocabulary& m_vocabulary;
};

} // namespace

std::vector<std::string> wordsIn(std::string_view text) {
    auto words = splitAsWritten(text);
    for (auto& word : words)
        word = folded(word);
    return words;
}

const std::array<std::pair<Doubtful, std::string_view>, 4>& decidedWords() {
    static constexpr std::array<std::pair<Doubtful, std::string_view>, 4> words = {
        {{Doubtful::asItStands, "; as it stands"},
         {Doubtful::leftOut, "; left out"},
         {Doubtful::thousands, "; in thousands"},
         {Doubtful::turned, "; turned round"}}};
    return words;
}

HeadingWords headingWords(const Vocabulary& vocabulary, const std::string& heading) {
    return HeadingReader(vocabulary).read(heading);
}

} // namespace knot::files
