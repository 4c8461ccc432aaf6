#include "files/import/shot_file.h"

#include "core/rack/club_name.h"
#include "core/record/check.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "files/base/file.h"
#include "files/base/text_decoding.h"
#include "files/import/forms/spreadsheet.h"
#include "files/import/forms/text_forms.h"
#include "files/import/label.h"
#include "files/import/table.h"
#include "files/import/table_reader.h"
#include "files/import/tables_apart.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <map>
#include <set>

namespace knot::files {
namespace {

// The cells are a third of the work, the rows the rest.
Stretch cellsOf(const ReadOptions& options) {
    return {options.watch, 0, 0.35};
}

// The sheets that hold shots: the longest table, and those with the same headings.
struct Chosen {
    std::vector<const Sheet*> sheets;
    bool haveClubs = false;
    std::vector<std::string> leftOut;
};

Chosen chosenOf(const std::vector<Sheet>& sheets, const HeadingMap& map) {
    std::vector<std::optional<TableAt>> tables;
    std::size_t best = 0;
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        const bool sumsUp = sheets.size() > 1 && Vocabulary::own().isSummary(sheets[i].name);
        tables.push_back(sumsUp ? std::nullopt : findTable(sheets[i], map));
        const auto& now = tables[i];
        const auto& most = tables[best];
        if (now && now->understood > 0 && (!most || most->understood == 0 || sheets[i].rows() > sheets[best].rows()))
            best = i;
    }
    Chosen chosen;
    for (std::size_t i = 0; i < sheets.size(); ++i)
        if (i == best ||
            (tables[i] && tables[best] && tables[i]->understood > 0 && tables[i]->headings == tables[best]->headings))
            chosen.sheets.push_back(&sheets[i]);
        else
            chosen.leftOut.push_back(sheets[i].name);
    if (chosen.sheets.size() > 1) {
        const auto columns = understandColumns(sheets[best], *tables[best], map, {});
        chosen.haveClubs =
            std::ranges::any_of(columns, [](const auto& c) { return c.meaning.role == ColumnRole::build; });
    }
    return chosen;
}

std::string listed(const std::vector<std::string>& names) {
    std::string text;
    for (const auto& name : names)
        text += (text.empty() ? "" : ", ") + name;
    return text;
}

// Clubs stand in the order in which they were first struck.
void nameInOrder(record::Test& test) {
    std::vector<record::BuildAt> now(test.builds.size());
    std::vector<record::Build> builds;
    std::vector<bool> met(test.builds.size());
    for (record::Shot& shot : test.shots) {
        if (!met[shot.build]) {
            met[shot.build] = true;
            now[shot.build] = record::BuildAt(builds.size());
            builds.push_back(test.builds[shot.build]);
        }
        shot.build = now[shot.build];
    }
    test.builds = std::move(builds);
}

// The units of its distances and speeds; nothing where it has neither.
std::optional<record::DisplayUnits> unitsIn(const std::vector<ColumnTaken>& columns) {
    std::map<record::Unit, std::size_t> often;
    for (const auto& column : columns)
        if (column.meaning.role == ColumnRole::metric)
            ++often[column.meaning.unit];
    using record::Unit;
    if (often[Unit::yd] + often[Unit::m] + often[Unit::ms] + often[Unit::mph] + often[Unit::kmh] == 0)
        return std::nullopt;
    // A file of speeds alone speaks of its distances too.
    const bool yards =
        often[Unit::yd] > often[Unit::m] || (often[Unit::yd] + often[Unit::m] == 0 && often[Unit::mph] > 0);
    const bool isImperial = often[Unit::mph] > 0 || (yards && often[Unit::ms] + often[Unit::kmh] == 0);
    return record::DisplayUnits{.speed = isImperial                           ? record::SpeedUnit::mph
                                         : often[Unit::kmh] > often[Unit::ms] ? record::SpeedUnit::kmh
                                                                              : record::SpeedUnit::ms,
                                .distance = yards ? record::DistanceUnit::yd : record::DistanceUnit::m};
}

// The shots of one table, by club.
using ByClub = std::map<std::size_t, std::vector<const record::Shot*>>;

// Whether a table's one row of each club holds the averages of that club in another.
bool averages(const ByClub& rows, const ByClub& shots) {
    constexpr std::size_t several = 3;
    constexpr double rounding = 0.006, nearlyAll = 0.8;
    std::size_t compared = 0;
    std::size_t same = 0;
    for (const auto& [club, row] : rows) {
        const auto there = shots.find(club);
        if (row.size() != 1 || there == shots.end() || there->second.size() < several)
            return false;
        for (const record::Metric metric : record::allMetrics()) {
            double sum = 0;
            double n = 0;
            for (const record::Shot* shot : there->second)
                if (const auto value = shot->readings.at(metric)) {
                    sum += *value;
                    ++n;
                }
            const auto written = row.front()->readings.at(metric);
            if (!written || n == 0 || row.front()->readings.derived(metric))
                continue;
            ++compared;
            same += std::fabs(*written - sum / n) <= rounding * std::max(1.0, std::fabs(sum / n)) ? 1 : 0;
        }
    }
    return rows.size() > 1 && compared > 2 && static_cast<double>(same) >= nearlyAll * static_cast<double>(compared);
}

// Leaves out tables of averages, and says how many. `begins` is where each table's shots begin.
std::size_t leaveOutAverages(ImportedTest& imported, std::vector<std::size_t> begins) {
    auto& shots = imported.test.shots;
    begins.push_back(shots.size());
    std::vector<ByClub> tables(begins.size() - 1);
    for (std::size_t table = 0; table < tables.size(); ++table)
        for (std::size_t i = begins[table]; i < begins[table + 1]; ++i)
            tables[table][shots[i].build].push_back(&shots[i]);
    std::vector<bool> isOut(shots.size());
    std::size_t leftOut = 0;
    for (std::size_t table = 0; table < tables.size(); ++table)
        if (std::ranges::any_of(tables, [&](const ByClub& other) { return averages(tables[table], other); })) {
            ++leftOut;
            std::fill(isOut.begin() + static_cast<std::ptrdiff_t>(begins[table]),
                      isOut.begin() + static_cast<std::ptrdiff_t>(begins[table + 1]), true);
        }
    if (leftOut == 0)
        return 0;
    imported = without(std::move(imported), isOut);
    return leftOut;
}

Result<ImportedTest> readSheets(const std::string& file, const std::vector<Sheet>& sheets, const ReadOptions& options) {
    const Chosen chosen = chosenOf(sheets, options.headings);
    ImportedTest imported;
    ClubsByName builds;
    const bool sheetsAreClubs = chosen.sheets.size() > 1 && !chosen.haveClubs;
    std::size_t read = 0;
    std::size_t ofAverages = 0;
    std::vector<std::size_t> begins;
    for (const Sheet* sheet : chosen.sheets) {
        const std::string place = sheets.size() > 1 ? file + ", sheet “" + sheet->name + "”" : file;
        const auto [tables, averages] = tablesApart(*sheet, options.headings);
        ofAverages += averages;
        if (chosen.sheets.size() > 1)
            imported.parts.push_back({sheet->name, imported.test.shots.size()});
        for (std::size_t i = 0; i < std::max<std::size_t>(tables.size(), 1); ++i) {
            const Place at{.sheetIsClub = sheetsAreClubs, .titleIsClub = tables.size() > 1, .isFurther = read++ > 0};
            begins.push_back(imported.test.shots.size());
            if (auto done = readTable(place, tables.empty() ? *sheet : tables[i], at, options, imported, builds); !done)
                return tl::unexpected(done.error());
        }
    }
    ofAverages += begins.size() > 1 ? leaveOutAverages(imported, std::move(begins)) : 0;
    if (ofAverages > 0)
        imported.notes.push_back(record::counted(ofAverages, "table of averages was", "tables of averages were") +
                                 " left out.");
    nameInOrder(imported.test);
    if (imported.test.shots.empty())
        return tl::unexpected(Error{ErrorKind::headerOnly, file, 0, 0, {}, {}});
    for (record::Shot& shot : imported.test.shots)
        shot.extra.resize(imported.test.extraColumns.size());
    splitLabels(imported, options.split);
    rack::takeLoftsFromNames(imported.test.builds);
    if (const auto clubs = imported.test.builds.size(); clubs > record::mostClubs)
        return tl::unexpected(
            Error{ErrorKind::tooManyClubs, file, 0, 0, {}, std::to_string(clubs), std::to_string(record::mostClubs)});
    imported.test.namePlayers();
    imported.units = unitsIn(imported.columns);
    if (!chosen.leftOut.empty())
        imported.notes.push_back("Left out: sheet " + listed(chosen.leftOut) + ".");
    return imported;
}

// Of a text without a mark between its cells the columns are set out with blanks.
Result<std::vector<Sheet>> sheetsOfPlainText(const std::string& file, const std::string& text,
                                             const ReadOptions& options) {
    std::vector<Sheet> sheets;
    auto sheet = sheetOfText(file, text, cellsOf(options));
    constexpr std::size_t fewUnderstood = 2;
    const auto table = sheet ? findTable(*sheet, options.headings) : std::nullopt;
    if (!table || table->understood < fewUnderstood)
        if (auto blanks = sheetOfBlanks(text))
            if (const auto other = findTable(*blanks, options.headings);
                other && other->understood > (table ? table->understood : 0)) {
                sheets.push_back(std::move(*blanks));
                return sheets;
            }
    if (!sheet)
        return tl::unexpected(sheet.error());
    sheets.push_back(std::move(*sheet));
    return sheets;
}

Result<std::vector<Sheet>> sheetsIn(const std::string& file, const std::string& bytes, const ReadOptions& options) {
    if (looksLikeSpreadsheet(bytes))
        return sheetsOf(file, bytes, cellsOf(options));
    const std::string text = decodeText(bytes);
    if (looksLikeJson(text))
        return sheetsOfJson(file, text);
    if (looksLikeMarkup(text))
        return sheetsOfMarkup(file, text);
    return sheetsOfPlainText(file, text, options);
}

} // namespace

ImportedTest without(ImportedTest imported, const std::vector<bool>& isOut) {
    record::Test& test = imported.test;
    std::vector<record::Shot> shots;
    std::vector<std::size_t> lines;
    std::vector<PartRead> parts;
    std::set<std::string> gone;
    std::set<std::string> stay;
    auto part = imported.parts.begin();
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        record::Shot& shot = test.shots[i];
        (isOut[i] ? gone : stay).insert(shot.player);
        if (isOut[i])
            continue;
        while (part != imported.parts.end() && part->begin <= i) {
            if (part + 1 == imported.parts.end() || (part + 1)->begin > i)
                parts.push_back({part->name, shots.size()});
            ++part;
        }
        shot.id = record::ShotId{static_cast<std::int64_t>(shots.size()) + 1};
        shots.push_back(std::move(shot));
        if (i < imported.lines.size())
            lines.push_back(imported.lines[i]);
    }
    test.shots = std::move(shots);
    std::erase_if(test.players,
                  [&](const auto& player) { return gone.contains(player.name) && !stay.contains(player.name); });
    imported.lines = std::move(lines);
    imported.parts = std::move(parts);
    nameInOrder(test);
    return imported;
}

Result<ImportedTest> readShots(const std::string& file, const std::string& bytes, const ReadOptions& options) {
    const auto sheets = sheetsIn(file, bytes, options);
    return sheets ? readSheets(file, *sheets, options) : tl::unexpected(sheets.error());
}

Result<std::vector<ColumnTaken>> columnsIn(const std::string& file, const std::string& bytes,
                                           const ReadOptions& options) {
    const auto sheets = sheetsIn(file, bytes, options);
    if (!sheets)
        return tl::unexpected(sheets.error());
    const Sheet& whole = *chosenOf(*sheets, options.headings).sheets.front();
    const auto tables = tablesApart(whole, options.headings).tables;
    const Sheet& sheet = tables.empty() ? whole : tables.front();
    const auto table = findTable(sheet, options.headings);
    if (!table)
        return tl::unexpected(Error{ErrorKind::emptyFile, file, 0, 0, {}, {}});
    return understandColumns(sheet, *table, options.headings, file);
}

Result<ImportedTest> readShotFile(const std::string& path, const ReadOptions& options) {
    auto bytes = readFile(path);
    if (!bytes)
        return tl::unexpected(bytes.error());
    auto imported = readShots(std::filesystem::path(path).filename().string(), *bytes, options);
    if (imported)
        imported->test.title = std::filesystem::path(path).stem().string();
    return imported;
}

std::string keptAsText(const std::vector<ColumnTaken>& columns) {
    std::vector<std::string> names;
    for (const auto& column : columns)
        if (column.meaning.role == ColumnRole::extra && !column.isAsked())
            names.push_back(column.meaning.heading.empty() ? "one without a heading" : column.meaning.heading);
    return names.empty() ? std::string()
                         : record::counted(names.size(), "column was", "columns were") +
                               " kept as text: " + record::printable(listed(names)) + ".";
}

void settleNamelessClub(record::Test& test) {
    if (test.builds.size() != 1 || !test.builds.front().name.empty())
        return;
    test.builds.front().name = "Club 1";
    test.stage = record::Stage::openSitting;
}

std::vector<std::string> explained(const std::vector<ColumnTaken>& columns) {
    std::vector<std::string> lines;
    for (const auto& column : columns) {
        const std::string name = canonicalName(column.meaning);
        std::string line = column.meaning.heading + ": " + (name.empty() ? "kept as text" : name);
        if (!column.why.empty())
            line += " (" + column.why + ")";
        constexpr std::size_t most = 40;
        if (!column.sample.empty())
            line +=
                ", as in " + (column.sample.size() <= most ? column.sample : column.sample.substr(0, most - 3) + "…");
        if (column.isAsked())
            line += ". " + column.question;
        lines.push_back(record::printable(line));
    }
    return lines;
}

} // namespace knot::files
