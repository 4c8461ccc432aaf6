// Shots as JSON, in whatever arrangement.
#include "files/import/forms/text_forms.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace knot::files {
namespace {

using nlohmann::ordered_json;

constexpr int deepest = 8; // objects within objects

std::string textOf(const ordered_json& value) {
    if (value.is_null())
        return {};
    if (value.is_string())
        return value.get<std::string>();
    return value.is_number() || value.is_boolean() ? value.dump() : std::string();
}

// The members of a shot by name, objects inside taken apart.
void flatten(const ordered_json& object, const std::string& before, int depth,
             std::vector<std::pair<std::string, std::string>>& cells) {
    for (const auto& [key, value] : object.items()) {
        const std::string name = before.empty() ? key : before + " " + key;
        if (value.is_object() && depth < deepest)
            flatten(value, name, depth + 1, cells);
        else if (value.is_primitive())
            cells.emplace_back(name, textOf(value));
    }
}

bool isTable(const ordered_json& value) {
    return value.is_array() && !value.empty() &&
           std::ranges::all_of(value, [](const auto& shot) { return shot.is_object(); });
}

// The first array of objects, on the way down; scalars beside it are what is said above a table.
const ordered_json* tableIn(const ordered_json& value, int depth,
                            std::vector<std::pair<std::string, std::string>>& above) {
    if (isTable(value))
        return &value;
    if (!value.is_object() || depth > deepest)
        return nullptr;
    for (const auto& [key, member] : value.items())
        if (member.is_primitive())
            above.emplace_back(key, textOf(member));
    const ordered_json* longest = nullptr;
    for (const auto& [key, member] : value.items())
        if (const auto* found = tableIn(member, depth + 1, above);
            found != nullptr && (longest == nullptr || found->size() > longest->size()))
            longest = found;
    return longest;
}

void addRow(Sheet& sheet, const std::vector<std::string>& cells, std::size_t line) {
    for (const auto& cell : cells)
        sheet.addCell(cell);
    sheet.endRow(line);
}

// An object of arrays of one length: {"carry": [150, 152], "spin": [6000, 6100]}.
ordered_json turnedToShots(const ordered_json& columns) {
    ordered_json shots = ordered_json::array();
    if (!columns.is_object() || columns.size() < 2)
        return shots;
    const std::size_t length = columns.begin()->is_array() ? columns.begin()->size() : 0;
    for (const auto& [key, column] : columns.items())
        if (!column.is_array() || column.size() != length)
            return ordered_json::array();
    for (std::size_t i = 0; i < length && i < mostRows; ++i) {
        ordered_json shot;
        for (const auto& [key, column] : columns.items())
            shot[key] = column[i];
        shots.push_back(std::move(shot));
    }
    return shots;
}

Result<Sheet> sheetOf(const std::string& file, const ordered_json& shots,
                      const std::vector<std::pair<std::string, std::string>>& above) {
    auto refuse = [&](ErrorKind kind, std::size_t most) {
        return tl::unexpected(Error{kind, file, 0, 0, {}, std::to_string(most + 1), std::to_string(most)});
    };
    if (shots.size() > mostRows)
        return refuse(ErrorKind::tooManyRows, mostRows);
    Sheet sheet;
    for (const auto& [name, text] : above)
        addRow(sheet, {name, text}, 0);
    std::vector<std::vector<std::pair<std::string, std::string>>> rows;
    std::vector<std::string> headings;
    std::map<std::string, std::size_t> at;
    for (const auto& shot : shots) {
        flatten(shot, {}, 0, rows.emplace_back());
        for (const auto& [name, text] : rows.back())
            if (at.try_emplace(name, headings.size()).second)
                headings.push_back(name);
        if (headings.size() > mostColumns)
            return refuse(ErrorKind::tooManyColumns, mostColumns);
    }
    addRow(sheet, headings, 0);
    for (std::size_t i = 0; i < rows.size(); ++i) {
        std::vector<std::string> cells(headings.size());
        for (const auto& [name, text] : rows[i])
            cells[at.at(name)] = text;
        addRow(sheet, cells, i + 1);
    }
    return sheet;
}

// An object a line.
std::optional<ordered_json> shotsByLine(const std::string& text) {
    ordered_json shots = ordered_json::array();
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        const auto line = record::trimmed(std::string_view(text).substr(from, end - from));
        from = end + 1;
        if (line.empty())
            continue;
        auto shot = ordered_json::parse(line, nullptr, false);
        if (!shot.is_object())
            return std::nullopt;
        shots.push_back(std::move(shot));
    }
    return shots.size() > 1 ? std::optional(std::move(shots)) : std::nullopt;
}

} // namespace

bool looksLikeJson(std::string_view text) {
    const auto begin = record::trimmed(text);
    return begin.starts_with('{') || begin.starts_with('[');
}

Result<std::vector<Sheet>> sheetsOfJson(const std::string& file, const std::string& text) {
    std::vector<std::pair<std::string, std::string>> above;
    ordered_json shots;
    if (auto byLine = shotsByLine(text)) {
        shots = std::move(*byLine);
    } else {
        try {
            const auto whole = ordered_json::parse(text);
            const ordered_json* table = tableIn(whole, 0, above);
            shots = table != nullptr ? *table : turnedToShots(whole);
        } catch (const ordered_json::parse_error& fault) {
            const auto line = static_cast<std::size_t>(
                1 + std::count(text.begin(),
                               text.begin() + static_cast<std::ptrdiff_t>(std::min(fault.byte, text.size())), '\n'));
            return tl::unexpected(Error{ErrorKind::badJson, file, line, 0, {}, {}});
        }
    }
    if (shots.empty())
        return tl::unexpected(Error{ErrorKind::headerOnly, file, 0, 0, {}, {}});
    auto sheet = sheetOf(file, shots, above);
    if (!sheet)
        return tl::unexpected(sheet.error());
    std::vector<Sheet> sheets;
    sheets.push_back(std::move(*sheet));
    return sheets;
}

} // namespace knot::files
