#include "files/stock.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/club_json.h"
#include "files/import/sheet.h"

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

constexpr double millimetres = 25.4; // of an inch

struct NumberColumn {
    const char* word;
    std::optional<double> Part::*member;
};
constexpr std::array<NumberColumn, 9> numberColumns = {{{"mass", &Part::mass},
                                                        {"weight", &Part::mass},
                                                        {"length", &Part::length},
                                                        {"balance", &Part::balance},
                                                        {"loft", &Part::loft},
                                                        {"lie", &Part::lie},
                                                        {"volume", &Part::volume},
                                                        {"butt", &Part::buttStiffness},
                                                        {"trim", &Part::tipTrim}}};
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
    double scale = 1;
};

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
    if (heading.starts_with("tip"))
        column.number = heading.find("trim") != std::string::npos ? &Part::tipTrim : &Part::tipStiffness;
    for (const NumberColumn& one : numberColumns)
        if (column.number == nullptr && heading.starts_with(one.word))
            column.number = one.member;
    const bool isLength = column.number == &Part::length || column.number == &Part::balance;
    if (isLength && (heading.find("in") != std::string::npos || heading.find('"') != std::string::npos))
        column.scale = millimetres;
    return column;
}

PartKind kindOf(std::string_view word) {
    const std::string text = lowerCase(word);
    return text.starts_with("head") ? PartKind::head : text.starts_with("grip") ? PartKind::grip : PartKind::shaft;
}

} // namespace

Result<std::vector<Part>> stockOf(const std::string& file, const std::string& bytes) {
    const auto sheet = sheetOfText(file, bytes);
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
                const auto number = record::numberIn(cell);
                if (!number)
                    return tl::unexpected(Error{ErrorKind::notANumber, file, sheet->line(r), c + 1,
                                                std::string(sheet->cell(0, c)), cell});
                part.*column.number = *number * column.scale;
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
