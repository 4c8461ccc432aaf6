#include "app/session/book.h"

#include "app/form/typed.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "files/base/file.h"
#include "files/stock.h"

#include <QDir>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QLocale>
#include <QStandardPaths>
#include <QUuid>

#include <algorithm>

namespace knot::app {

namespace {

std::string newPlayerId() {
    return QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString();
}

constexpr const char* stockSetting = "stock";

// As one measures where this is, until somebody chooses.
constexpr const char* unitsChosen = "unitsChosen";

record::DisplayUnits unitsOfLocale() {
    const auto system = QLocale::system().measurementSystem();
    if (system == QLocale::MetricSystem)
        return {};
    const bool isAmerican = system == QLocale::ImperialUSSystem;
    return {.speed = record::SpeedUnit::mph,
            .distance = record::DistanceUnit::yd,
            .length = isAmerican ? record::LengthUnit::in : record::LengthUnit::mm};
}

} // namespace

Book::Book(QObject* parent)
    : QObject(parent)
    , m_units(unitsOfLocale()) {}
Book::~Book() = default;

template<typename T> bool Book::ok(const logbook::Result<T>& result) {
    if (!result)
        emit refused(QString::fromStdString(logbook::sentence(result.error())));
    return result.has_value();
}

// A file that was deleted is put back first, with all that was kept in it.
template<typename Write> auto Book::written(Write write) -> decltype(write()) {
    ++m_writes;
    auto result = write();
    if (result || result.error().kind != logbook::ErrorKind::gone || !m_logbook->writeAnew())
        return result;
    result = write();
    if (result)
        emit noted(
            tr("%1 was deleted while it was open. It is written anew, with everything that was in it.").arg(path()));
    return result;
}

QString Book::path() const {
    return m_logbook ? QString::fromStdString(m_logbook->path()) : QString();
}

QString ownLogbookPath() {
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
        .filePath(QStringLiteral("My shots.knotbook"));
}

std::optional<record::Test> Book::peek(const std::string& id) {
    if (m_logbook)
        if (auto test = m_logbook->load(id))
            return std::move(*test);
    return std::nullopt;
}

// The new file is held before the old one is let go.
std::optional<logbook::Logbook> Book::acquire(const QString& path, Missing missing) {
    const std::string name = path.toStdString();
    const bool isNew = missing == Missing::make && !QFileInfo::exists(path);
    auto book = isNew ? logbook::Logbook::create(name) : logbook::Logbook::open(name);
    if (!ok(book))
        return std::nullopt;
    if (isNew)
        ok(book->setUnits(m_units)); // as one measures where this is
    return std::move(*book);
}

void Book::adopt(logbook::Logbook opened) {
    m_unitsChosen = false;
    m_logbook.emplace(std::move(opened));
    forgetLists();
    if (auto units = m_logbook->units(); ok(units))
        m_units = *units;
    emit unitsChanged();
    list();
}

bool Book::isOpenAt(const QString& path) const {
    return m_logbook && m_logbook->isAt(path.toStdString());
}

bool Book::open(const QString& path) {
    if (isOpenAt(path)) {
        list();
        return true;
    }
    auto opened = acquire(path, Missing::refuse);
    if (opened)
        adopt(std::move(*opened));
    return opened.has_value();
}

bool Book::openOrMake(const QString& path) {
    QDir().mkpath(QFileInfo(path).path());
    if (isOpenAt(path))
        return true;
    auto opened = acquire(path, Missing::make);
    if (opened)
        adopt(std::move(*opened));
    return opened.has_value();
}

std::optional<std::string> Book::keepIn(const QString& path, record::Test test) {
    test.id.clear();
    if (isOpenAt(path))
        return save(test);
    auto opened = acquire(path, Missing::make);
    if (!opened)
        return std::nullopt;
    auto id = savedIn(*opened, test);
    if (!ok(id) || !ok(opened->setUnits(m_units)))
        return std::nullopt;
    adopt(std::move(*opened));
    return *id;
}

// Parts and players are of the tests that there are.
void Book::forgetLists() {
    m_parts.reset();
    m_players.reset();
}

void Book::list() {
    m_stale = false;
    if (!m_logbook)
        return; // a test in hand that is not kept yet
    if (auto tests = m_logbook->tests(); ok(tests))
        m_tests = std::move(*tests);
    emit changed();
}

void Book::listIfStale() {
    if (m_stale)
        list();
}

std::optional<record::Test> Book::load(const std::string& id) {
    if (!m_logbook)
        return std::nullopt;
    auto test = m_logbook->load(id);
    return ok(test) ? std::optional(std::move(*test)) : std::nullopt;
}

// What takes long says how far it is.
logbook::Result<std::string> Book::savedIn(logbook::Logbook& logbook, const record::Test& test) {
    QElapsedTimer since;
    since.start();
    bool told = false;
    auto id = logbook.save(test, [&](double share) {
        constexpr qint64 quietMs = 1000;
        if (since.elapsed() < quietMs)
            return;
        told = true;
        emit saving(tr("Saving %L1 shots: %2 of 100.").arg(test.shots.size()).arg(static_cast<int>(100 * share)));
    });
    if (told)
        emit saving({});
    return id;
}

std::optional<std::string> Book::save(const record::Test& test) {
    if (!m_logbook)
        return std::nullopt;
    auto id = written([&] { return savedIn(*m_logbook, test); });
    if (!ok(id))
        return std::nullopt;
    forgetLists();
    list();
    return *id;
}

bool Book::saveHead(const record::Test& test) {
    if (!m_logbook || !ok(written([&] { return m_logbook->saveHead(test); })))
        return false;
    forgetLists();
    m_stale = true;
    return true;
}

logbook::Result<void> Book::saveStruck(const record::Test& test, std::size_t from, bool headChanged) {
    m_stale = true;
    if (headChanged)
        m_players.reset(); // somebody may have joined
    // A file that is put back holds what was committed; everything in hand follows in one transaction.
    return written(
        [&] { return headChanged ? m_logbook->saveShotsAndHead(test, from) : m_logbook->saveShots(test, from); });
}

std::optional<logbook::Merged> Book::addAllOf(const QString& path) {
    if (!m_logbook)
        return std::nullopt;
    if (isOpenAt(path)) {
        emit refused(tr("%1 is the logbook that is open.").arg(path));
        return std::nullopt;
    }
    auto other = logbook::Logbook::read(path.toStdString());
    if (!ok(other))
        return std::nullopt;
    auto merged = written([&] { return m_logbook->addAll(*other); });
    if (!ok(merged))
        return std::nullopt;
    forgetLists();
    list();
    emit playersChanged();
    return *merged;
}

bool Book::takeBack(const logbook::Merged::Step& step) {
    if (!m_logbook || !ok(written([&] { return m_logbook->takeBack(step); })))
        return false;
    forgetLists();
    list();
    emit playersChanged();
    return true;
}

std::optional<logbook::Logbook::Come> Book::add(const record::Test& test) {
    if (!m_logbook)
        return std::nullopt;
    auto come = written([&] { return m_logbook->add(test); });
    if (!ok(come))
        return std::nullopt;
    forgetLists();
    list();
    return *come;
}

// With how it came to be, so that it is known when it comes back.
bool Book::makeWith(const QString& path, const record::Test& test) {
    auto made = logbook::Logbook::create(path.toStdString());
    if (!ok(made) || !ok(made->setUnits(m_units)))
        return false;
    return m_logbook && !test.id.empty() ? ok(made->addAll(*m_logbook, {test.id})) : ok(made->save(test));
}

void Book::keepFinding(const std::string& id, const logbook::TestEntry::Finding& finding) {
    const auto at = std::ranges::find(m_tests, id, &logbook::TestEntry::id);
    if (!m_logbook || (at != m_tests.end() && at->finding == finding) || !m_logbook->keepFinding(id, finding))
        return;
    if (at != m_tests.end())
        at->finding = finding;
    emit found(id, finding);
}

bool Book::remove(const std::string& id) {
    if (!m_logbook || !ok(written([&] { return m_logbook->remove(id); })))
        return false;
    forgetLists();
    list();
    return true;
}

record::Typing Book::typing() const {
    return {m_units, decimalsHere()};
}

void Book::setUnits(const record::DisplayUnits& units, UnitsBy who) {
    if (who == UnitsBy::file) {
        record::DisplayUnits spoken = units;
        spoken.length = m_units.length;
        if (!m_unitsChosen && setting(unitsChosen).isEmpty())
            showIn(spoken);
        return;
    }
    m_unitsChosen = true;
    setSetting(unitsChosen, QStringLiteral("1"));
    showIn(units);
}

void Book::showIn(const record::DisplayUnits& units) {
    if (units == m_units)
        return;
    m_units = units;
    if (m_logbook)
        ok(written([&] { return m_logbook->setUnits(units); }));
    emit unitsChanged();
}

QString Book::setting(const char* key) {
    if (m_logbook)
        if (const auto value = m_logbook->setting(key))
            return QString::fromStdString(*value);
    return {};
}

void Book::setSetting(const char* key, const QString& value) {
    if (m_logbook)
        ok(written([&] { return m_logbook->setSetting(key, value.toStdString()); }));
}

bool Book::addStock(const QString& path) {
    if (path.isEmpty())
        return false; // thought better of
    const auto text = files::readFile(path.toStdString());
    const auto parts = text ? files::stockOf(path.toStdString(), *text) : tl::unexpected(text.error());
    if (!parts) {
        emit refused(QString::fromStdString(files::sentence(parts.error())));
        return false;
    }
    const auto before = files::stockFromText(setting(stockSetting).toStdString());
    setSetting(stockSetting, QString::fromStdString(files::stockText(files::withStock(before, *parts))));
    m_parts.reset();
    emit noted(tr("%1 of the stock can be typed on the Clubs page from now on.")
                   .arg(QString::fromStdString(record::counted(parts->size(), "part"))));
    return true;
}

const std::vector<record::Part>& Book::knownParts() {
    if (!m_parts) {
        m_parts.emplace();
        if (m_logbook)
            if (auto parts = m_logbook->parts()) // what was used goes before what is on the shelf
                m_parts = files::withStock(files::stockFromText(setting(stockSetting).toStdString()), *parts);
    }
    return *m_parts;
}

const std::vector<logbook::PlayerEntry>& Book::players() {
    if (!m_players) {
        m_players.emplace();
        if (m_logbook)
            if (auto players = m_logbook->players(); ok(players))
                m_players = std::move(*players);
    }
    return *m_players;
}

record::Player Book::playerCalled(const std::string& name, const std::vector<record::Player>& others) {
    for (const auto& entry : players())
        if (!name.empty() && record::lowerCase(entry.player.name) == record::lowerCase(name))
            return entry.player;
    auto isTaken = [&](const std::string& one) {
        return std::ranges::find(others, one, &record::Player::name) != others.end() ||
               std::ranges::any_of(players(), [&](const auto& entry) { return entry.player.name == one; });
    };
    int n = 1;
    while (isTaken("Player " + std::to_string(n)))
        ++n;
    return {.id = newPlayerId(), .name = name.empty() ? "Player " + std::to_string(n) : name};
}

std::vector<record::Player> Book::playersOf(const std::string& testId) {
    if (m_logbook)
        if (auto players = m_logbook->playersOf(testId))
            return std::move(*players);
    return {};
}

template<typename Write> bool Book::changePlayers(Write write) {
    if (!m_logbook || !ok(written(write)))
        return false;
    m_players.reset();
    m_stale = true;
    emit playersChanged();
    return true;
}

bool Book::savePlayer(const record::Player& player) {
    return changePlayers([&] { return m_logbook->savePlayer(player); });
}

bool Book::joinPlayers(const std::string& from, const std::string& into) {
    return changePlayers([&] { return m_logbook->joinPlayers(from, into); });
}

bool Book::removePlayer(const std::string& id) {
    return changePlayers([&] { return m_logbook->removePlayer(id); });
}

} // namespace knot::app
