#include "files/csv_writer.h"

#include "core/bay/stand.h"
#include "core/record/names.h"

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <cstdio>
#include <cstring>
#include <fstream>
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
    char buffer[32];
    const auto result = std::to_chars(buffer, buffer + sizeof buffer, value);
    return {buffer, result.ptr};
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
    addIfUsed("shot", &Shot::number);
    addIfUsed("sitting", &Shot::sitting);
    addIfUsed("player", &Shot::player);
    addIfUsed("round", &Shot::round);
    addIfUsed("turn", &Shot::turn);
    addIfUsed("handed_over", [](const Shot& s) { return s.handedOver ? std::string("1") : std::string(); });
    addIfUsed("mark", [](const Shot& s) {
        return s.mark == record::Mark::none ? std::string() : std::string(nameOf(record::markNames, s.mark));
    });
    columns.push_back({"build", [&test](const Shot& s) {
                           return bay::isUnnamed(test, s) ? std::string("tag not entered") : test.builds[s.build].name;
                       }});
    for (const Metric metric : test.metricsRead())
        addIfUsed(record::info(metric).key.c_str(), [metric](const Shot& s) {
            const auto value = s.readings.at(metric);
            return value && !s.readings.derived(metric) ? exactNumber(*value) : std::string();
        });
    columns.push_back({"status", [](const Shot& s) { return std::string(nameOf(record::statusNames, s.status)); }});
    addIfUsed("set_aside_when", [](const Shot& s) {
        return s.setAsideWhen == record::SetAsideWhen::unknown
                   ? std::string()
                   : std::string(nameOf(record::setAsideWhenNames, s.setAsideWhen));
    });
    addIfUsed("reason", &Shot::reason);
    addIfUsed("taken_at", &Shot::takenAt);
    addIfUsed("delivery", &Shot::delivery);
    addIfUsed("feel", [](const Shot& s) { return s.feel > 0 ? std::to_string(s.feel) : std::string(); });
    addIfUsed("note", &Shot::note);
    for (std::size_t i = 0; i < test.extraColumns.size(); ++i)
        columns.push_back(
            {test.extraColumns[i], [i](const Shot& s) { return i < s.extra.size() ? s.extra[i] : std::string(); }});
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

Result<void> writeFile(const std::string& path, const std::string& text) {
    auto fail = [&] { return tl::unexpected(Error{ErrorKind::cannotWrite, path, 0, 0, {}, std::strerror(errno)}); };
    const std::string partial = path + ".part";
    {
        std::ofstream out(partial, std::ios::binary | std::ios::trunc);
        out.write(text.data(), static_cast<std::streamsize>(text.size()));
        out.flush();
        if (!out) {
            auto error = fail();
            std::remove(partial.c_str());
            return error;
        }
    }
    if (std::rename(partial.c_str(), path.c_str()) != 0)
        return fail();
    return {};
}

} // namespace knot::files
