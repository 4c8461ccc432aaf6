#include "files/import/cell_number.h"

#include "core/record/text/text.h"
#include "core/record/typed/amount.h"
#include "files/import/vocabulary.h"

namespace knot::files {
namespace {

using record::DecimalMark;
using record::NumberFault;
using record::trimmed;

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
    if (from >= 3 && cell.substr(from - 3, 3) == "\u2212")
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

// Words around the figures: one, or a unit and a side parted by white space.
bool takeWords(std::string_view words, CellNumber& number) {
    if (words.empty() || takeWord(words, number))
        return true;
    const auto space = words.find(' ');
    return space != std::string_view::npos && takeWord(trimmed(words.substr(0, space)), number) &&
           takeWord(trimmed(words.substr(space)), number);
}

} // namespace

tl::expected<CellNumber, NumberFault> numberOfCell(std::string_view cell, DecimalMark mark) {
    if (const auto whole = record::numberIn(cell, mark); whole || whole.error() != NumberFault::notANumber)
        return whole.map([](double value) { return CellNumber{value, {}}; });
    const auto [before, figures, behind] = partsOf(cell);
    const auto value = record::numberIn(figures, mark);
    if (!value)
        return tl::unexpected(value.error());
    CellNumber number{*value, {}};
    if (!takeWords(before, number) || !takeWords(behind, number))
        return tl::unexpected(NumberFault::notANumber);
    return number;
}

std::optional<DecimalMark> decimalMarkOfCell(std::string_view cell) {
    if (cell.find_first_of(".,") == std::string_view::npos)
        return std::nullopt;
    return record::decimalMarkTold(partsOf(cell).figures);
}

} // namespace knot::files
