#include "files/import/cells/cell_number.h"

#include "core/record/text/text.h"
#include "core/record/typed/amount.h"
#include "files/import/headings/vocabulary.h"

#include <algorithm>
#include <array>

namespace knot::files {
namespace {

using record::DecimalMark;
using record::NumberFault;
using record::trimmed;

// What is written for a minus: the true one, and dashes.
constexpr std::array<std::string_view, 5> dashes = {"\u2212", "\u2013", "\u2012", "\u2011", "\u2010"};

// A cell taken apart: the figures, and the words around them.
struct Parts {
    std::string_view before, figures, behind;
};

Parts partsOf(std::string_view cell) {
    const auto first = cell.find_first_of("0123456789");
    const auto last = cell.find_last_of("0123456789");
    if (first == std::string_view::npos)
        return {cell, {}, {}};
    // A sign or a mark belongs to the figures.
    std::size_t from = first;
    while (from > 0 && std::string_view("+-.,").find(cell[from - 1]) != std::string_view::npos)
        --from;
    for (const std::string_view minus : dashes)
        if (from >= 3 && cell.substr(from - 3, 3) == minus)
            from -= 3;
    std::size_t to = last + 1;
    while (to < cell.size() && (cell[to] == '.' || cell[to] == ','))
        ++to;
    return {trimmed(cell.substr(0, from)), cell.substr(from, to - from), trimmed(cell.substr(to))};
}

// Takes what a word beside the figures means; false where it means nothing.
bool takeWord(std::string_view word, CellNumber& number) {
    const auto& vocabulary = Vocabulary::own();
    if (const auto side = vocabulary.sideNamed(word)) {
        const auto sided = record::onSide(number.value, *side);
        number.value = sided.value_or(0);
        number.isSided = true;
        number.isHinged = word.size() == 1 && std::string_view("oOcC").find(word) != std::string_view::npos;
        return sided.has_value();
    }
    if (word == "%") {
        number.value /= 100;
        return true;
    }
    const auto unit = vocabulary.unitNamed(word);
    if (unit)
        number.unit = unit;
    return unit.has_value();
}

// Words around the figures: one, or a unit and a side parted by white space ("° in to out").
bool takeWords(std::string_view words, CellNumber& number) {
    if (words.empty() || takeWord(words, number))
        return true;
    for (const std::string_view degree : {"°", "º"})
        if (words.starts_with(degree) && words.size() > degree.size())
            return takeWord(degree, number) && takeWords(trimmed(words.substr(degree.size())), number);
    const auto space = words.find(' ');
    return space != std::string_view::npos && takeWord(trimmed(words.substr(0, space)), number) &&
           takeWord(trimmed(words.substr(space)), number);
}

// A minus that is written as another dash: "–4.2".
std::string withPlainMinus(std::string_view figures) {
    for (const std::string_view minus : dashes)
        if (figures.starts_with(minus))
            return "-" + std::string(figures.substr(minus.size()));
    return std::string(figures);
}

// "90' 6\"", "R 4 ft 3 in": in feet; a side may stand on either end.
std::optional<CellNumber> feetAndInches(std::string_view cell, DecimalMark mark) {
    const auto& vocabulary = Vocabulary::own();
    CellNumber number{0, record::Unit::ft, false, false};
    std::string_view rest = cell;
    std::optional<record::Side> side;
    std::size_t taken = 0;
    while (!rest.empty()) {
        const auto figures = rest.find_first_of("0123456789");
        const auto before = trimmed(rest.substr(0, std::min(figures, rest.size())));
        if (!before.empty() && before != "," && before != "-") {
            side = vocabulary.sideNamed(before);
            if (!side)
                return std::nullopt;
        }
        if (figures == std::string_view::npos)
            break;
        if (before == "-" && taken > 0)
            return std::nullopt;
        rest.remove_prefix(figures);
        const auto end = std::min(rest.find_first_not_of("0123456789.,"), rest.size());
        const auto value = record::numberIn(rest.substr(0, end), mark);
        rest = trimmed(rest.substr(end));
        const auto word = rest.substr(0, std::min(rest.find_first_of(" 0123456789"), rest.size()));
        const auto unit = vocabulary.unitNamed(word);
        if (!value || unit != (taken == 0 ? record::Unit::ft : record::Unit::in) || taken > 1)
            return std::nullopt;
        number.value += taken == 0 ? *value : *value / 12;
        rest = trimmed(rest.substr(word.size()));
        ++taken;
    }
    if (taken != 2)
        return std::nullopt;
    const auto sided = record::onSide(number.value, side.value_or(record::Side::right));
    number.isSided = side.has_value();
    number.value = cell.front() == '-' ? -number.value : sided.value_or(number.value);
    return number;
}

} // namespace

tl::expected<CellNumber, NumberFault> numberOfCell(std::string_view cell, DecimalMark mark) {
    if (const auto whole = record::numberIn(cell, mark); whole || whole.error() != NumberFault::notANumber)
        return whole.map([](double value) { return CellNumber{value, {}, false, false}; });
    const auto [before, figures, behind] = partsOf(cell);
    const auto value = record::numberIn(withPlainMinus(figures), mark);
    if (!value) {
        if (const auto feet = feetAndInches(cell, mark))
            return *feet;
        return tl::unexpected(value.error());
    }
    CellNumber number{*value, {}, false, false};
    if (!takeWords(before, number) || !takeWords(behind, number))
        return tl::unexpected(NumberFault::notANumber);
    return number;
}

std::optional<DecimalMark> decimalMarkOfCell(std::string_view cell) {
    if (cell.find_first_of(".,") == std::string_view::npos)
        return std::nullopt;
    return record::decimalMarkTold(withPlainMinus(partsOf(cell).figures));
}

} // namespace knot::files
