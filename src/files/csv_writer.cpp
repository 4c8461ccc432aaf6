#include "files/csv_writer.h"

#include "core/bay/stand.h"
#include "core/record/shot_fields.h"
#include "files/base/cell_text.h"
#include "files/import/columns.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <functional>

namespace knot::files {
namespace {

using record::Metric;
using record::Shot;

std::string quoted(const std::string& cell) {
    const bool plain = cell.find_first_of(",;\t\"\r\n") == std::string::npos &&
                       (cell.empty() || (cell.front() != ' ' && cell.back() != ' '));
    if (plain)
        return cell;
    std::string text = "\"";
    for (const char c : cell)
        text += c == '"' ? std::string("\"\"") : std::string(1, c);
    return text + '"';
}

// The shortest text that reads back as the same number.
std::string exactNumber(double value) {
    std::array<char, 32> buffer{};
    const auto result = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value);
    return {buffer.data(), result.ptr};
}

struct WrittenColumn {
    std::string heading;
    std::function<std::string(const Shot&)> cell;
};

std::vector<WrittenColumn> columnsFor(const record::Test& test) {
    std::vector<WrittenColumn> columns;
    auto addIfUsed = [&](const char* heading, std::function<std::string(const Shot&)> cell) {
        if (std::ranges::any_of(test.shots, [&](const Shot& s) { return !cell(s).empty(); }))
            columns.push_back({heading, std::move(cell)});
    };
    auto addFields = [&](record::ShotField::InShotFiles place) {
        for (const record::ShotField& field : record::shotFields())
            if (field.inShotFiles == place)
                addIfUsed(std::string(field.key).c_str(), [&field](const Shot& s) { return asCell(field.text(s)); });
    };
    addFields(record::ShotField::InShotFiles::before);
    columns.push_back({"build", [&test](const Shot& s) {
                           return bay::isUnnamed(test, s) ? std::string("tag not entered")
                                                          : asCell(test.builds[s.build].name);
                       }});
    const auto read = test.metricsRead();
    for (const Metric metric : read)
        addIfUsed(record::info(metric).key.c_str(), [metric](const Shot& s) {
            const auto value = s.readings.at(metric);
            return value && !s.readings.derived(metric) ? exactNumber(*value) : std::string();
        });
    if (read.empty()) // a shot file has a measurement, if only without readings
        columns.push_back({record::info(Metric::carry).key, [](const Shot&) { return std::string(); }});
    addFields(record::ShotField::InShotFiles::after);
    for (std::size_t i = 0; i < test.extraColumns.size(); ++i)
        columns.push_back({asCell(asTextHeading(test.extraColumns[i])),
                           [i](const Shot& s) { return i < s.extra.size() ? asCell(s.extra[i]) : std::string(); }});
    return columns;
}

} // namespace

std::string shotCsv(const record::Test& test) {
    const auto columns = columnsFor(test);
    std::string text;
    for (std::size_t i = 0; i < columns.size(); ++i)
        text += (i == 0 ? "" : ",") + quoted(columns[i].heading);
    text += "\r\n";
    for (const Shot& shot : test.shots) {
        for (std::size_t i = 0; i < columns.size(); ++i)
            text += (i == 0 ? "" : ",") + quoted(columns[i].cell(shot));
        text += "\r\n";
    }
    return text;
}

} // namespace knot::files
