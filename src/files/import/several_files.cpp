// Several files that are one record: a file a club, or a file a sitting.
#include "files/import/shot_file.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <filesystem>
#include <map>
#include <set>

namespace knot::files {
namespace {

bool namesClub(const ImportedTest& file) {
    return std::ranges::any_of(file.test.builds, [](const auto& build) { return !build.name.empty(); });
}

std::optional<double> firstTime(const ImportedTest& file) {
    std::optional<double> first;
    for (const auto& shot : file.test.shots) {
        const auto seconds = shot.takenAt.seconds();
        if (!seconds)
            return std::nullopt;
        first = std::min(first.value_or(*seconds), *seconds);
    }
    return first;
}

void putInOrder(std::vector<ImportedTest>& files) {
    std::vector<std::pair<double, std::size_t>> times;
    for (std::size_t i = 0; i < files.size(); ++i) {
        const auto time = firstTime(files[i]);
        if (!time)
            return;
        times.emplace_back(*time, i);
    }
    std::ranges::stable_sort(times, {}, [](const auto& each) { return each.first; });
    std::vector<ImportedTest> sorted;
    for (const auto& [time, at] : times)
        sorted.push_back(std::move(files[at]));
    files = std::move(sorted);
}

// The columns of all, each heading once; what is asked of any is asked.
void addColumns(std::vector<ColumnTaken>& all, const std::vector<ColumnTaken>& more) {
    for (const auto& column : more) {
        const auto same = std::ranges::find_if(
            all, [&](const ColumnTaken& other) { return other.meaning.heading == column.meaning.heading; });
        if (same == all.end())
            all.push_back(column);
        else if (column.isAsked() && !same->isAsked())
            *same = column;
    }
}

class Together {
public:
    Together(EachFile each, bool anyNamed)
        : m_each(each)
        , m_anyNamed(anyNamed) {}

    void add(ImportedTest file, bool clubsDiffer) {
        auto& test = m_all.test;
        m_all.parts.push_back({file.test.title, test.shots.size()});
        std::vector<record::BuildAt> builds;
        for (const auto& build : file.test.builds) {
            // A file's title names its club where it has none, or where all files have the same.
            const bool byTitle =
                build.name.empty() ? m_each == EachFile::club || m_anyNamed : m_each == EachFile::club && !clubsDiffer;
            builds.push_back(buildNamed(byTitle ? file.test.title : build.name, build));
        }
        std::vector<std::size_t> extras;
        for (const auto& name : file.test.extraColumns) {
            const auto at = std::ranges::find(test.extraColumns, name) - test.extraColumns.begin();
            if (static_cast<std::size_t>(at) == test.extraColumns.size())
                test.extraColumns.push_back(name);
            extras.push_back(static_cast<std::size_t>(at));
        }
        for (std::size_t i = 0; i < file.test.shots.size(); ++i) {
            record::Shot shot = std::move(file.test.shots[i]);
            shot.id = record::ShotId{static_cast<std::int64_t>(test.shots.size()) + 1};
            shot.build = builds[shot.build];
            if (m_each == EachFile::sitting && shot.sitting.empty())
                shot.sitting = file.test.title;
            std::vector<std::string> texts(test.extraColumns.size());
            for (std::size_t k = 0; k < shot.extra.size(); ++k)
                texts[extras[k]] = std::move(shot.extra[k]);
            shot.extra = std::move(texts);
            test.shots.push_back(std::move(shot));
            m_all.lines.push_back(i < file.lines.size() ? file.lines[i] : 0);
        }
        // What is asked is of a column, whose heading it begins with, and once for all.
        for (const auto& note : file.notes)
            if (!note.starts_with("“"))
                addNote(file.test.title, note);
            else if (std::ranges::find(m_all.notes, note) == m_all.notes.end())
                m_all.notes.push_back(note);
        addColumns(m_all.columns, file.columns);
        m_all.units = file.units ? file.units : m_all.units;
    }

    ImportedTest whole() {
        for (record::Shot& shot : m_all.test.shots)
            shot.extra.resize(m_all.test.extraColumns.size());
        m_all.test.namePlayers();
        for (const auto& [note, titles] : m_notes)
            m_all.notes.push_back(
                (titles.size() == 1 ? titles.front() : "In each of " + std::to_string(titles.size()) + " files") +
                ": " + note);
        return std::move(m_all);
    }

private:
    // What is said of several files is said once.
    void addNote(const std::string& title, const std::string& note) {
        const auto same = std::ranges::find(m_notes, note, [](const auto& each) { return each.first; });
        if (same == m_notes.end())
            m_notes.push_back({note, {title}});
        else
            same->second.push_back(title);
    }

    record::BuildAt buildNamed(const std::string& name, const record::Build& build) {
        auto& builds = m_all.test.builds;
        const auto [at, added] = m_builds.try_emplace(record::lowerCase(name), record::BuildAt(builds.size()));
        if (added) {
            builds.push_back(build);
            builds.back().name = name;
        }
        return at->second;
    }

    EachFile m_each;
    bool m_anyNamed; ///< some file names its clubs: what has no name then is called by its file
    ImportedTest m_all;
    std::vector<std::pair<std::string, std::vector<std::string>>> m_notes; ///< with the titles of its files
    std::map<std::string, record::BuildAt> m_builds;
};

} // namespace

std::vector<std::string> shotFilesIn(const std::string& folder) {
    constexpr std::array<std::string_view, 9> ends = {".csv",  ".tsv",  ".txt", ".xlsx", ".ods",
                                                      ".json", ".html", ".htm", ".xml"};
    std::vector<std::string> inside;
    std::error_code status;
    for (const auto& entry : std::filesystem::directory_iterator(folder, status)) {
        const std::string end = record::lowerCase(entry.path().extension().string());
        if (std::ranges::find(ends, end) != ends.end() && entry.is_regular_file(status) &&
            !entry.path().filename().string().starts_with("."))
            inside.push_back(entry.path().string());
    }
    std::ranges::sort(inside);
    return inside;
}

EachFile likelierOf(const std::vector<ImportedTest>& files) {
    std::set<std::string> names;
    bool anyNamed = false;
    for (const auto& file : files) {
        if (file.test.builds.size() > 1)
            return EachFile::sitting;
        anyNamed = anyNamed || namesClub(file);
        for (const auto& build : file.test.builds)
            names.insert(record::lowerCase(build.name));
    }
    return !anyNamed || names.size() == 1 || names.size() == files.size() ? EachFile::club : EachFile::sitting;
}

ImportedTest together(std::vector<ImportedTest> files, EachFile each) {
    putInOrder(files);
    std::set<std::string> names;
    for (const auto& file : files)
        for (const auto& build : file.test.builds)
            names.insert(record::lowerCase(build.name));
    Together all(each, std::ranges::any_of(files, namesClub));
    for (auto& file : files)
        all.add(std::move(file), names.size() > 1);
    return all.whole();
}

} // namespace knot::files
