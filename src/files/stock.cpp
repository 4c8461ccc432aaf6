#include "files/stock.h"

#include "core/record/text/text.h"
#include "core/record/typed/amount.h"
#include "files/base/text_decoding.h"
#include "files/club_json.h"
#include "files/import/forms/sheet.h"

#include <algorithm>
#include <array>
#include <optional>

namespace knot::files {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;
using record::lowerCase;
using record::Part;
using record::PartKind;

using record::Quantity;
using record::Unit;

struct NumberColumn {
    const char* word;
    std::optional<double> Part::*member;
    record::Wanted of = {};
};
constexpr record::Wanted mass{Quantity::mass, Unit::g}, length{Quantity::length, Unit::mm},
    angle{Quantity::angle, Unit::deg};
constexpr std::array<NumberColumn, 10> numberColumns = {{{"mass", &Part::mass, mass},
                                                         {"weight", &Part::mass, mass},
                                                         {"length", &Part::length, length},
                                                         {"balance", &Part::balance, length},
                                                         {"loft", &Part::loft, angle},
                                                         {"lie", &Part::lie, angle},
                                                         {"volume", &Part::volume, {Quantity::volume, Unit::cm3}},
                                                         {"butt", &Part::buttStiffness},
                                                         {"tip", &Part::tipStiffness},
                                                         {"trim", &Part::tipTrim, length}}};
struct TextColumn {
    const char* word;
    std::string Part::*member;
};
constexpr std::array<TextColumn, 6> textColumns = {{{"name", &Part::name},
                                                    {"model", &Part::name},
                                                    {"material", &Part::material},
                                                    {"flex", &Part::flex},
                                                    {"price", &Part::price},
                                                    {"size", &Part::sizeClass}}};

/// What a column of a stock says.
struct Column {
    std::optional<double> Part::*number = nullptr;
    std::string Part::*text = nullptr;
    bool isKind = false;
    record::Wanted of = {};
};

// The unit that a heading says: a word or a sign by itself, in brackets or not.
std::optional<Unit> unitIn(const std::string& heading) {
    std::optional<Unit> unit;
    std::string word;
    for (const char c : heading + " ") {
        if (std::string_view(" ()[],;/").find(c) == std::string_view::npos) {
            word += c;
            continue;
        }
        if (const auto said = record::unitTyped(word); said && (word != "in" || !unit)) // "length in mm"
            unit = said;
        word.clear();
    }
    return unit;
}

Column columnOf(std::string heading) {
    heading = lowerCase(heading);
    Column column;
    if (heading.starts_with("kind") || heading.starts_with("type")) {
        column.isKind = true;
        return column;
    }
    for (const TextColumn& one : textColumns)
        if (heading.starts_with(one.word))
            column.text = one.member;
    if (column.text != nullptr)
        return column;
    const bool isTrim = heading.starts_with("tip") && heading.find("trim") != std::string::npos;
    for (const NumberColumn& one : numberColumns)
        if (column.number == nullptr && std::string_view(isTrim ? "trim" : heading).starts_with(one.word)) {
            column.number = one.member;
            column.of = one.of;
        }
    if (column.of.usual != Unit::one)
        column.of.usual = unitIn(heading).value_or(column.of.usual);
    return column;
}

PartKind kindOf(std::string_view word) {
    const std::string text = lowerCase(word);
    return text.starts_with("head") ? PartKind::head : text.starts_with("grip") ? PartKind::grip : PartKind::shaft;
}

} // namespace

Result<std::vector<Part>> stockOf(const std::string& file, const std::string& bytes) {
    const auto sheet = sheetOfText(file, decodeText(bytes));
    if (!sheet)
        return tl::unexpected(sheet.error());
    if (sheet->rows() == 0)
        return tl::unexpected(Error{ErrorKind::emptyFile, file, 0, 0, {}, {}});
    std::vector<Column> columns;
    for (std::size_t c = 0; c < sheet->columns(0); ++c)
        columns.push_back(columnOf(std::string(sheet->cell(0, c))));
    if (std::ranges::none_of(columns, [](const Column& column) { return column.text == &Part::name; }))
        return tl::unexpected(
            Error{ErrorKind::unknownHeading, file, sheet->line(0), 1, {}, std::string(sheet->cell(0, 0)), "name"});
    std::vector<Part> parts;
    for (std::size_t r = 1; r < sheet->rows(); ++r) {
        Part part{.kind = PartKind::shaft};
        for (std::size_t c = 0; c < columns.size(); ++c) {
            const std::string cell(sheet->cell(r, c));
            const Column& column = columns[c];
            if (cell.empty())
                continue;
            if (column.isKind)
                part.kind = kindOf(cell);
            else if (column.text != nullptr)
                part.*column.text = record::printable(cell);
            else if (column.number != nullptr) {
                const auto number = record::valueTyped(cell, column.of, record::DecimalMark::open);
                if (!number)
                    return tl::unexpected(Error{ErrorKind::notANumber, file, sheet->line(r), c + 1,
                                                std::string(sheet->cell(0, c)), cell});
                part.*column.number = *number;
            }
        }
        if (!part.name.empty())
            parts.push_back(std::move(part));
    }
    return parts;
}

std::string stockText(const std::vector<Part>& parts) {
    ordered_json out = ordered_json::array();
    for (const Part& part : parts)
        out.push_back(partJson(part));
    return out.dump(-1, ' ', false, ordered_json::error_handler_t::replace);
}

std::vector<Part> stockFromText(const std::string& text) {
    std::vector<Part> parts;
    try {
        for (const auto& part : json::parse(text))
            parts.push_back(partFrom(part));
    } catch (const std::exception&) {
        return {};
    }
    return parts;
}

std::vector<Part> withStock(std::vector<Part> parts, const std::vector<Part>& more) {
    for (const Part& part : more) {
        const auto twin = std::ranges::find_if(
            parts, [&](const Part& one) { return one.kind == part.kind && one.name == part.name; });
        if (twin == parts.end())
            parts.push_back(part);
        else
            *twin = part;
    }
    return parts;
}

} // namespace knot::files
