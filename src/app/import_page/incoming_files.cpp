#include "app/import_page/incoming_files.h"

#include "app/form/waiting.h"
#include "app/session/book.h"
#include "app/sources/headings_memory.h"
#include "core/record/check.h"

#include <QCoreApplication>
#include <QFileInfo>

#include <algorithm>
#include <map>
#include <utility>

namespace knot::app {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(ImportPage)
};

// What keeps a file from being read and may be mended by saying what a column is.
bool isAboutColumns(files::ErrorKind kind) {
    using files::ErrorKind;
    return kind == ErrorKind::noMetricColumn || kind == ErrorKind::noBuildColumn || kind == ErrorKind::notANumber ||
           kind == ErrorKind::ambiguousNumber || kind == ErrorKind::beyondMeasure || kind == ErrorKind::unknownWord ||
           kind == ErrorKind::duplicateColumn || kind == ErrorKind::unknownUnit || kind == ErrorKind::missingUnit;
}

files::ReadOptions optionsWith(const IncomingFiles::How& how, files::Watch& watch) {
    return {.headings = how.answers,
            .clubs = files::ReadOptions::Clubs::unknown,
            .doubt = files::ReadOptions::Doubt::takeLikelier,
            .split = how.split,
            .watch = &watch};
}

QString notRead(const QString& file) {
    return Words::tr("%1 can't be read: there is not the memory for it. Save the part with the shots as a file of its "
                     "own.")
        .arg(file);
}

std::string titleOf(const Incoming& file) {
    return (file.path.isEmpty() ? file.name : QFileInfo(file.path).completeBaseName()).toStdString();
}

QString nameOf(const std::vector<Incoming>& files) {
    if (files.empty())
        return {};
    return files.size() == 1 ? files.front().name
                             : Words::tr("%1 and %2 more").arg(files.front().name).arg(files.size() - 1);
}

} // namespace

/// What reading gave, in another thread.
struct IncomingFiles::Read {
    std::vector<files::ImportedTest> tests;
    std::vector<std::pair<std::size_t, files::Error>> refused; ///< by file
    std::optional<std::vector<files::ColumnTaken>> columns;    ///< of the first that was refused
    bool isGivenUp = false;
};

QString IncomingFiles::name() const {
    return nameOf(m_files);
}

QString IncomingFiles::take(std::vector<Incoming> taken) {
    const QString name = nameOf(taken);
    // Any that can be looked at will do: what keeps the others out is said once they are read.
    auto looked = waited(Words::tr("Looking at %1").arg(name), [taken](files::Watch& watch) {
        files::Result<std::vector<files::ColumnTaken>> columns;
        for (const Incoming& file : taken)
            if (columns = files::columnsIn(file.name.toStdString(), *file.bytes, optionsWith({}, watch)); columns)
                break;
        return columns;
    });
    if (!looked || !*looked)
        return looked ? QString::fromStdString(files::sentence(looked->error())) : notRead(name);
    std::vector<std::string> headings;
    for (const auto& column : **looked)
        headings.push_back(column.meaning.heading);
    auto before = std::exchange(m_files, std::move(taken));
    const auto clubsBefore = std::exchange(m_clubsOut, {});
    const auto rowsBefore = std::exchange(m_rowsOut, {});
    const auto partsBefore = std::exchange(m_partsOut, {});
    const auto valuesBefore = std::exchange(m_ofValues, {});
    const QString refused = read({.answers = rememberedFor(m_book, headings)});
    if (!refused.isEmpty()) {
        m_files = std::move(before);
        m_clubsOut = clubsBefore;
        m_rowsOut = rowsBefore;
        m_partsOut = partsBefore;
        m_ofValues = valuesBefore;
    }
    return refused;
}

QString IncomingFiles::read(const How& how) {
    auto given = waited(Words::tr("Reading %1").arg(name()), [files = m_files, how](auto& watch) {
        Read done;
        for (std::size_t i = 0; i < files.size() && !done.isGivenUp; ++i) {
            const auto options = optionsWith(how, watch);
            auto test = files::readShots(files[i].name.toStdString(), *files[i].bytes, options);
            if (test) {
                test->test.title = titleOf(files[i]);
                done.tests.push_back(std::move(*test));
                continue;
            }
            done.isGivenUp = test.error().kind == files::ErrorKind::givenUp;
            done.refused.emplace_back(i, test.error());
            if (!done.columns && !done.isGivenUp)
                if (auto columns = files::columnsIn(files[i].name.toStdString(), *files[i].bytes, options))
                    done.columns = std::move(*columns);
        }
        return done;
    });
    if (!given)
        return notRead(name());
    if (given->isGivenUp)
        return QString::fromStdString(files::sentence(given->refused.back().second));
    m_how = how;
    accept(std::move(*given));
    return {};
}

void IncomingFiles::accept(Read read) {
    for (const auto& test : read.tests)
        for (const auto& column : test.columns)
            if (column.isOfValues)
                m_ofValues.insert(column.meaning.heading);
    m_fault.clear();
    m_imported.reset();
    QStringList faults;
    for (const auto& [at, error] : read.refused)
        faults << QString::fromStdString(files::sentence(error)) +
                      (isAboutColumns(error.kind) ? Words::tr(" Say what that column is, or keep it as text.")
                                                  : QString());
    if (read.tests.empty()) {
        m_columns = read.columns.value_or(std::move(m_columns));
        m_fault = faults.join(QLatin1Char('\n'));
        return;
    }
    if (m_files.size() == 1) {
        m_imported = std::move(read.tests.front());
    } else {
        m_each = m_how.each.value_or(files::likelierOf(read.tests));
        auto all = files::together(std::move(read.tests), m_each);
        if (all.test.builds.size() > record::mostClubs) {
            m_columns = std::move(all.columns);
            m_fault = Words::tr("These files have %1 clubs; at most %2 are compared.")
                          .arg(all.test.builds.size())
                          .arg(record::mostClubs);
            return;
        }
        all.test.title = nameOf(m_files).toStdString();
        m_imported = std::move(all);
    }
    // One that can't be read keeps the others from nothing.
    for (const QString& fault : faults)
        m_imported->notes.push_back(Words::tr("Left out: %1").arg(fault).toStdString());
    m_columns = m_imported->columns;
    // Of several files and sheets many shots stand on one line: they are told by which of them it is.
    m_rows.clear();
    std::map<std::size_t, std::size_t> before;
    for (std::size_t i = 0; i < m_imported->test.shots.size(); ++i) {
        const std::size_t line = i < m_imported->lines.size() ? m_imported->lines[i] : i;
        m_rows.push_back({before[line]++, line});
    }
    m_parts.assign(m_imported->test.shots.size(), 0);
    for (std::size_t part = 1; part < m_imported->parts.size(); ++part)
        std::fill(m_parts.begin() + static_cast<std::ptrdiff_t>(m_imported->parts[part].begin), m_parts.end(), part);
}

void IncomingFiles::remember() {
    std::vector<std::string> headings;
    files::HeadingMap answers = m_how.answers;
    for (const auto& column : m_columns) {
        headings.push_back(column.meaning.heading);
        if (column.isAsked())
            answers[column.meaning.heading] = files::canonicalName(column.meaning);
    }
    for (const std::string& heading : m_ofValues)
        answers.erase(heading);
    if (!answers.empty())
        rememberFor(m_book, headings, answers);
}

void IncomingFiles::toggleClub(const std::string& club) {
    if (m_clubsOut.erase(club) == 0)
        m_clubsOut.insert(club);
}

void IncomingFiles::toggleShot(std::size_t shot) {
    if (m_rowsOut.erase(m_rows[shot]) == 0)
        m_rowsOut.insert(m_rows[shot]);
}

void IncomingFiles::togglePart(std::size_t shot) {
    if (m_partsOut.erase(m_parts[shot]) == 0)
        m_partsOut.insert(m_parts[shot]);
}

bool IncomingFiles::isLeftOut(std::size_t shot) const {
    const auto& test = m_imported->test;
    return m_clubsOut.contains(test.builds[test.shots[shot].build].name) || m_rowsOut.contains(m_rows[shot]) ||
           isPartLeftOut(shot);
}

std::size_t IncomingFiles::leftOut() const {
    std::size_t count = 0;
    if (m_imported && (!m_clubsOut.empty() || !m_rowsOut.empty() || !m_partsOut.empty()))
        for (std::size_t i = 0; i < m_imported->test.shots.size(); ++i)
            count += isLeftOut(i) ? 1 : 0;
    return count;
}

files::ImportedTest IncomingFiles::kept() const {
    if (leftOut() == 0)
        return *m_imported;
    std::vector<bool> isOut;
    for (std::size_t i = 0; i < m_imported->test.shots.size(); ++i)
        isOut.push_back(isLeftOut(i));
    return files::without(*m_imported, isOut);
}

} // namespace knot::app
