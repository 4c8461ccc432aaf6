#include "logbook/logbook.h"

#include "core/record/check.h"
#include "files/base/file.h"
#include "logbook/connection.h"
#include "logbook/migration.h"
#include "logbook/units.h"

#include <sqlite3.h>

#include <cerrno>
#include <cstdio>
#include <cstring>

namespace knot::logbook {
namespace {

using SQLite::Database;
using SQLite::Statement;

// Nobody asks SQLite how much memory it has; counting it costs a lock at every piece.
const int uncounted = sqlite3_config(SQLITE_CONFIG_MEMSTATUS, 0);

constexpr std::uintmax_t largestHalfMade = 16384; // bytes

} // namespace

Logbook::Logbook(std::string path, std::unique_ptr<Connection> connection)
    : m_path(std::move(path))
    , m_connection(std::move(connection)) {}
Logbook::Logbook(Logbook&&) noexcept = default;
Logbook& Logbook::operator=(Logbook&&) noexcept = default;
Logbook::~Logbook() = default;

// Whole under another name first, so that an end half-way leaves nothing that can't be opened.
Result<Logbook> Logbook::make(const std::string& path, bool overBlank) {
    if (!hasRoomForJournal(path))
        return refuse(ErrorKind::cannotOpen, path,
                      "its name is too long: beside it there must be room for one with “-journal”");
    const std::string part = files::newBeside(path, files::For::thisUser);
    if (part.empty())
        return refuse(ErrorKind::cannotOpen, path, std::strerror(errno));
    auto held = HeldFile::hold(part);
    if (!held) {
        held.error().file = path;
        return tl::unexpected(held.error());
    }
    auto made = guarded(path, [&]() -> Result<Logbook> {
        {
            Database database(plainPath(part), SQLite::OPEN_READWRITE, busyWait);
            configureConnection(database);
            createSchema(database);
        }
        if (!held->sync(part))
            return refuse(ErrorKind::storage, path, std::strerror(errno));
        const bool named = overBlank ? std::rename(part.c_str(), path.c_str()) == 0 : renameIfFree(part, path);
        if (!named)
            return refuse(errno == EEXIST ? ErrorKind::exists : ErrorKind::cannotOpen, path, std::strerror(errno));
        syncFolderOf(path);
        return Logbook(path, std::make_unique<Connection>(path, std::move(*held)));
    });
    auto result = made ? std::move(*made) : tl::unexpected(made.error());
    if (!result)
        removeWithBesides(part);
    return result;
}

Result<Logbook> Logbook::create(const std::string& path) {
    if (std::filesystem::path(path).filename().empty())
        return refuse(ErrorKind::cannotOpen, path.empty() ? "The logbook" : path, "it has no name");
    std::error_code status;
    if (std::filesystem::exists(path, status))
        return refuse(ErrorKind::exists, path);
    return make(path, false);
}

Result<Logbook> Logbook::open(const std::string& path) {
    if (!hasRoomForJournal(path))
        return refuse(ErrorKind::cannotOpen, path,
                      "its name is too long: beside it there must be room for one with “-journal”");
    auto held = HeldFile::hold(path);
    if (!held)
        return tl::unexpected(held.error());
    const FileHead head = headOf(path);
    if (head.isEmpty && !hasJournal(path))
        return make(path, true);
    if (!head.isSqlite)
        return refuse(ErrorKind::notALogbook, path);
    auto opened = guarded(path, [&]() -> Result<Logbook> {
        // What a killed program left is taken back in a file of ours alone.
        const bool halfMade = head.applicationId == 0 && std::filesystem::file_size(path) <= largestHalfMade;
        const bool ours = head.applicationId == applicationId || halfMade;
        int format = 0;
        {
            const int flags = ours && hasJournal(path) ? SQLite::OPEN_READWRITE : SQLite::OPEN_READONLY;
            Database database(plainPath(path), flags, busyWait);
            guardConnection(database);
            const auto found = formatOf(database, path);
            if (!found)
                return tl::unexpected(found.error());
            format = *found;
        }
        if (format == 0)
            return make(path, true);
        auto connection = std::make_unique<Connection>(path, std::move(*held));
        if (identityOf(path) != connection->held->identity())
            return refuse(ErrorKind::replaced, path);
        if (format < schemaVersion) {
            CopyBeside copy(connection->database, path, format);
            migrate(connection->database, format);
            copy.stay();
        }
        if (const auto faults = schemaFaults(connection->database); !faults.empty())
            return refuse(ErrorKind::damaged, path, faults.front());
        createViews(connection->database);
        return Logbook(path, std::move(connection));
    });
    return opened ? std::move(*opened) : tl::unexpected(opened.error());
}

Result<Logbook> Logbook::read(const std::string& path) {
    std::error_code status;
    if (!std::filesystem::exists(path, status))
        return refuse(ErrorKind::cannotOpen, path, "there is no such file");
    const FileHead head = headOf(path);
    if (!head.isSqlite || (head.applicationId != applicationId && head.applicationId != 0))
        return refuse(ErrorKind::notALogbook, path);
    if (head.format > schemaVersion)
        return refuse(ErrorKind::newer, path, std::to_string(head.format));
    auto opened = guarded(path, [&]() -> Result<Logbook> {
        // Bringing up to date and taking back what a killed program left happen in a copy.
        const bool leftOver = hasJournal(path) && !HeldFile::isHeld(path);
        const std::string copy =
            head.usesWal || head.format < schemaVersion || leftOver ? temporaryCopy(path) : std::string();
        auto connection = std::make_unique<Connection>(
            copy.empty() ? path : copy, copy.empty() ? SQLite::OPEN_READONLY : SQLite::OPEN_READWRITE, copy);
        auto format = formatOf(connection->database, path);
        if (!format)
            return tl::unexpected(format.error());
        if (*format == 0)
            return refuse(ErrorKind::notALogbook, path);
        if (*format < schemaVersion)
            migrate(connection->database, *format);
        if (const auto faults = schemaFaults(connection->database); !faults.empty())
            return refuse(ErrorKind::damaged, path, faults.front());
        return Logbook(path, std::move(connection));
    });
    return opened ? std::move(*opened) : tl::unexpected(opened.error());
}

Result<std::vector<TestEntry>> Logbook::tests() {
    return guarded(m_path, [&] { return listTests(m_connection->database); });
}

Result<record::Test> Logbook::load(const std::string& testId) {
    return guarded(m_path, [&] {
        auto test = readTest(m_connection->database, testId);
        m_connection->shotsOnDisk[testId] = test.shots.size();
        return test;
    });
}

void Logbook::reconnect() {
    auto anew = std::make_unique<Connection>(m_path, std::nullopt); // may throw: the file stays held meanwhile
    anew->held = std::move(m_connection->held);
    anew->shotsOnDisk = std::move(m_connection->shotsOnDisk);
    m_connection = std::move(anew);
}

// Shots are put over others only where the file holds as many as was thought.
void Logbook::replaceShots(const record::Test& test, std::size_t from) {
    expectShots(test, from);
    m_connection->shotWriter().replace(test, from);
}

void Logbook::expectShots(const record::Test& test, std::size_t from) {
    auto& known = m_connection->shotsOnDisk;
    Statement last(m_connection->database, "SELECT max(position) + 1 FROM shot WHERE test_id = ?");
    last.bind(1, test.id);
    last.executeStep();
    const auto there = static_cast<std::size_t>(last.getColumn(0).getInt64());
    const auto thought = known.find(test.id);
    if (there < from || (thought != known.end() && thought->second != there))
        throw ChangedElsewhere();
}

Result<void> Logbook::sound(const std::vector<std::string>& faults) const {
    return faults.empty() ? Result<void>() : refuse(ErrorKind::invalid, m_path, faults.front());
}

Result<std::string> Logbook::save(record::Test test, const Progress& tell) {
    test.nameShots();
    if (auto checked = sound(record::faultsOf(test)); !checked)
        return tl::unexpected(checked.error());
    auto saved = changing(test.id, [&] {
        if (test.id.empty()) {
            test.id = newId();
            m_connection->versionWriter().changed(test.id);
        }
        test.nameClubs();
        Statement clear(m_connection->database, "DELETE FROM test WHERE id = ?");
        clear.bind(1, test.id);
        clear.exec();
        takeKeptNames(m_connection->database, test);
        insertTest(m_connection->database, test, tell);
        return test.id;
    });
    if (saved)
        m_connection->shotsOnDisk[*saved] = test.shots.size();
    return saved;
}

Result<void> Logbook::saveHead(const record::Test& test) {
    if (auto checked = sound(record::headFaultsOf(test)); !checked)
        return checked;
    return changing(test.id, [&] { updateHead(m_connection->database, test); });
}

Result<void> Logbook::saveShots(const record::Test& test, std::size_t from) {
    if (auto checked = sound(record::shotFaultsOf(test, from)); !checked)
        return checked;
    return struck(test, changing(test.id, [&] { replaceShots(test, from); }));
}

Result<void> Logbook::saveShotsAndHead(const record::Test& test, std::size_t from) {
    if (auto checked = sound(record::headFaultsOf(test)); !checked)
        return checked;
    if (auto checked = sound(record::shotFaultsOf(test, from)); !checked)
        return checked;
    // What goes is taken away first, so that a club may go with its shots, and one that comes is there before them.
    return struck(test, changing(test.id, [&] {
                      expectShots(test, from);
                      m_connection->shotWriter().clearFrom(test, from);
                      updateHead(m_connection->database, test);
                      m_connection->shotWriter().replace(test, from);
                  }));
}

Result<void> Logbook::struck(const record::Test& test, Result<void> kept) {
    if (kept)
        m_connection->shotsOnDisk[test.id] = test.shots.size();
    return kept;
}

bool Logbook::isAt(const std::string& path) const {
    return m_connection->held && identityOf(path) == m_connection->held->identity();
}

Result<void> Logbook::stillThere() const {
    if (!m_connection->held)
        return refuse(ErrorKind::readOnly, m_path);
    const auto now = identityOf(m_path);
    if (!now)
        return refuse(ErrorKind::gone, m_path);
    if (*now != m_connection->held->identity())
        return refuse(ErrorKind::replaced, m_path);
    return {};
}

Result<void> Logbook::writeAnew() {
    const std::string part = files::newBeside(m_path, files::For::thisUser);
    if (part.empty())
        return refuse(ErrorKind::storage, m_path, std::strerror(errno));
    auto copied = guarded(m_path, [&] {
        Statement copy(m_connection->database, "VACUUM INTO ?");
        copy.bind(1, part);
        copy.exec();
    });
    auto held = copied ? HeldFile::hold(part) : tl::unexpected(copied.error());
    if (held && (!held->sync(part) || !renameIfFree(part, m_path)))
        held = refuse(errno == EEXIST ? ErrorKind::replaced : ErrorKind::storage, m_path, std::strerror(errno));
    if (!held) {
        removeWithBesides(part);
        return tl::unexpected(held.error());
    }
    syncFolderOf(m_path);
    // Where the new connection can't be opened now, the next write tries again.
    m_connection->held = std::move(*held);
    m_connection->isStale = true;
    return guarded(m_path, [&] { reconnect(); });
}

Result<void> Logbook::remove(const std::string& testId) {
    return writing([&] {
        forgetFinding(m_connection->database, testId);
        Statement clear(m_connection->database, "DELETE FROM test WHERE id = ?");
        clear.bind(1, testId);
        if (clear.exec() == 0)
            throw NoSuchTest(testId);
        m_connection->versionWriter().deleted(testId);
    });
}

Result<void> Logbook::keepFinding(const std::string& testId, const TestEntry::Finding& finding) {
    return setSetting(findingKey(testId), std::to_string(finding.verdict) + ' ' + finding.text);
}

Result<std::vector<PlayerEntry>> Logbook::players() {
    return guarded(m_path, [&] { return listPlayers(m_connection->database); });
}

Result<std::vector<record::Player>> Logbook::playersOf(const std::string& testId) {
    return guarded(m_path, [&] { return logbook::playersOf(m_connection->database, testId); });
}

Result<void> Logbook::savePlayer(const record::Player& player) {
    auto faults = record::faultsOf(player);
    if (player.id.empty())
        faults.emplace_back("A player needs an id.");
    if (auto checked = sound(faults); !checked)
        return checked;
    return writing([&] { writePlayer(m_connection->database, player); });
}

Result<void> Logbook::joinPlayers(const std::string& from, const std::string& into) {
    return writing([&] {
        logbook::joinPlayers(m_connection->database, from, into);
        m_connection->versionWriter().joined(from, into);
    });
}

Result<void> Logbook::removePlayer(const std::string& id) {
    return writing([&] { logbook::removePlayer(m_connection->database, id); });
}

Result<record::DisplayUnits> Logbook::units() {
    return guarded(m_path, [&] { return keptUnits(m_connection->database); });
}

Result<void> Logbook::setUnits(const record::DisplayUnits& units) {
    return writing([&] { keepUnits(m_connection->database, units); });
}

Result<std::vector<record::Part>> Logbook::parts() {
    return guarded(m_path, [&] { return listParts(m_connection->database, m_path); });
}

Result<std::string> Logbook::setting(const std::string& key) {
    return guarded(m_path, [&] {
        Statement s(m_connection->database, "SELECT value FROM setting WHERE key = ?");
        s.bind(1, key);
        return s.executeStep() ? s.getColumn(0).getString() : std::string();
    });
}

Result<void> Logbook::setSetting(const std::string& key, const std::string& value) {
    return writing([&] {
        Statement s(m_connection->database, "INSERT OR REPLACE INTO setting(key, value) VALUES(?, ?)");
        s.bind(1, key);
        s.bind(2, value);
        s.exec();
    });
}

Result<std::vector<std::string>> Logbook::integrityFaults() {
    return guarded(m_path, [&] {
        auto faults = faultsIn(m_connection->database);
        // What can't be opened is not sound, whatever SQLite says.
        Statement ids(m_connection->database, "SELECT id, title FROM test ORDER BY created_at");
        while (ids.executeStep()) {
            const std::string id = ids.getColumn(0).getString();
            const auto test = guarded(m_path, [&] { return readTest(m_connection->database, id); });
            if (!test)
                faults.push_back("“" + ids.getColumn(1).getString() + "”: " + test.error().detail);
        }
        return faults;
    });
}

} // namespace knot::logbook
