#include "app/sources/watched_folder.h"

#include "app/session/background.h"
#include "app/session/bay_run.h"
#include "app/session/book.h"
#include "app/session/moment.h"
#include "app/session/test_in_hand.h"
#include "app/sources/headings_memory.h"
#include "core/record/text/number_text.h"
#include "files/import/shot_file.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSettings>

#include <sys/stat.h>

#include <algorithm>
#include <cstdint>

namespace knot::app {
namespace {

constexpr int writtenIn = 30; // ms that a device needs to write a line or a short file
constexpr qsizetype mostWatched = 16;
constexpr const char* placeKey = "watched_folder";
// Which folder a test watches is this computer's to know: a logbook that comes from elsewhere decides nothing here.
constexpr const char* ownKey = "bay/watched_folder";

QStringList ownPlace(const QString& folder, const std::string& test) {
    return {folder, QString::fromStdString(test)};
}

constexpr qint64 largestFile = 32LL << 20;
constexpr std::size_t hashedRows = 500;
constexpr qint64 anotherWrite = 1000000000; // ns: one shot is written in less
constexpr qint64 freshFor = 3000;           // ms: a clock of files may tick slowly

// Complete lines; what has no end yet is still being written.
std::vector<std::string> linesOf(const QByteArray& bytes) {
    std::vector<std::string> lines;
    qsizetype at = 0;
    for (qsizetype end = bytes.indexOf('\n'); end >= 0; end = bytes.indexOf('\n', at)) {
        lines.push_back(bytes.mid(at, end - at).toStdString());
        at = end + 1;
    }
    return lines;
}

std::string hashOf(const std::string& line) {
    std::uint64_t hash = 14695981039346656037U; // FNV-1a
    for (const char c : line)
        hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211U;
    return QString::number(hash, 16).toStdString();
}

// Of the heading and the lines after it, as far as a place is kept.
std::vector<std::string> hashesOf(const std::string& heading, const std::vector<std::string>& rows) {
    std::vector<std::string> hashes{hashOf(heading)};
    for (std::size_t i = 0; i < std::min(rows.size(), hashedRows); ++i)
        hashes.push_back(hashOf(rows[i]));
    return hashes;
}

QString localTime(const std::string& text) {
    const QDateTime at = QDateTime::fromString(QString::fromStdString(text), Qt::ISODateWithMs).toLocalTime();
    return at.isValid() ? momentText(at) : QString();
}

} // namespace

WatchedFolder::WatchedFolder(const TestInHand& hand, BayRun& bay, Book& book, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_bay(bay)
    , m_book(book) {
    connect(&m_watcher, &QFileSystemWatcher::directoryChanged, this, &WatchedFolder::look);
    connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_soon, qOverload<>(&QTimer::start));
    connect(&m_soon, &QTimer::timeout, this, &WatchedFolder::look);
    m_soon.setSingleShot(true);
    m_soon.setInterval(writtenIn);
    connect(&m_timer, &QTimer::timeout, this, &WatchedFolder::look);
    m_timer.setInterval(1000);
}

bool WatchedFolder::watch(const QString& folder) {
    stop();
    if (!QDir(folder).isReadable()) {
        emit complained(tr("%1 can't be read. Choose a folder that may be.").arg(folder));
        return false;
    }
    m_folder = folder;
    m_taken = 0;
    m_leaveAlone = true;
    m_watcher.addPath(folder);
    m_timer.start();
    look();
    emit statusChanged();
    return true;
}

// What is known of each file, for a program that is killed.
void WatchedFolder::keepPlace() {
    QJsonObject files;
    for (const auto& [number, file] : m_files) {
        QJsonArray hashes;
        for (const auto& hash : file.heading.empty() ? file.keptHashes : hashesOf(file.heading, file.rows))
            hashes.append(QString::fromStdString(hash));
        const auto rows = file.heading.empty() ? file.keptRows : file.rows.size();
        files.insert(QString::number(number), QJsonObject{{QStringLiteral("rows"), static_cast<qint64>(rows)},
                                                          {QStringLiteral("generation"), file.generation},
                                                          {QStringLiteral("hashes"), hashes}});
    }
    const QJsonObject place{{QStringLiteral("folder"), m_folder},
                            {QStringLiteral("test"), QString::fromStdString(m_hand.test().id)},
                            {QStringLiteral("files"), files}};
    QSettings own;
    if (const QStringList mine = ownPlace(m_folder, m_hand.test().id); own.value(ownKey).toStringList() != mine) {
        own.setValue(ownKey, mine);
        own.sync();
    }
    m_book.setSetting(placeKey, QString::fromUtf8(QJsonDocument(place).toJson(QJsonDocument::Compact)));
}

bool WatchedFolder::goOn() {
    const QJsonObject place = QJsonDocument::fromJson(m_book.setting(placeKey).toUtf8()).object();
    const QString folder = place.value(QStringLiteral("folder")).toString();
    if (folder.isEmpty() || !m_hand.has() ||
        place.value(QStringLiteral("test")).toString().toStdString() != m_hand.test().id ||
        QSettings().value(ownKey).toStringList() != ownPlace(folder, m_hand.test().id) || !QDir(folder).isReadable())
        return false;
    stop();
    m_folder = folder;
    const QJsonObject files = place.value(QStringLiteral("files")).toObject();
    for (auto at = files.begin(); at != files.end(); ++at) {
        File& file = m_files[at.key().toULongLong()];
        const QJsonObject kept = at.value().toObject();
        // An earlier version kept the number of lines alone.
        const QJsonValue rows = at.value().isObject() ? kept.value(QStringLiteral("rows")) : at.value();
        file.keptRows = static_cast<std::size_t>(std::max<qint64>(0, rows.toInteger()));
        file.generation = kept.value(QStringLiteral("generation")).toInt();
        const QJsonArray hashes = kept.value(QStringLiteral("hashes")).toArray();
        for (const auto& hash : hashes)
            file.keptHashes.push_back(hash.toString().toStdString());
    }
    m_watcher.addPath(folder);
    m_timer.start();
    look();
    emit statusChanged();
    return true;
}

void WatchedFolder::stop() {
    if (const auto watched = m_watcher.directories() + m_watcher.files(); !watched.isEmpty())
        m_watcher.removePaths(watched);
    m_timer.stop();
    m_soon.stop();
    ++m_watch;
    m_reading = m_again = m_leaveAlone = false;
    m_files.clear();
    m_past.clear();
    m_folder.clear();
    emit statusChanged();
}

QString WatchedFolder::status() const {
    if (m_folder.isEmpty())
        return {};
    if (!QDir(m_folder).isReadable())
        return tr("The watched folder %1 is gone.").arg(m_folder);
    return tr("Watching %1: %2 so far.")
        .arg(QDir(m_folder).dirName(),
             QString::fromStdString(record::counted(static_cast<std::size_t>(m_taken), "shot")));
}

std::optional<WatchedFolder::Stamp> WatchedFolder::stampOf(const QString& path) {
    struct stat status {};
    if (::stat(QFile::encodeName(path).constData(), &status) != 0 || status.st_size > largestFile)
        return std::nullopt;
    return Stamp{static_cast<quint64>(status.st_ino), static_cast<qint64>(status.st_size),
                 static_cast<qint64>(status.st_mtim.tv_sec) * 1000000000 + status.st_mtim.tv_nsec};
}

// Nothing where no line is complete yet.
std::optional<WatchedFolder::Content> WatchedFolder::read(const QString& path, const Stamp& stamp,
                                                          const files::HeadingMap& headings) {
    QFile in(path);
    if (!in.open(QIODevice::ReadOnly))
        return std::nullopt;
    std::vector<std::string> rows = linesOf(in.read(stamp.size)); // what is written since is the next look's
    if (rows.empty())
        return std::nullopt;
    // The unit row, where there is one, and everything before it keep their meaning: it is read whole.
    std::string text;
    for (const auto& row : rows)
        text += row + '\n';
    const QString name = QFileInfo(path).fileName();
    const std::string heading = rows.front();
    rows.erase(rows.begin());
    return Content{name, stamp, heading, std::move(rows),
                   files::readShots(name.toStdString(), text,
                                    {.headings = headings,
                                     .clubs = files::ReadOptions::Clubs::unknown,
                                     .impossible = files::ReadOptions::Impossible::leftOut})};
}

void WatchedFolder::look() {
    if (m_folder.isEmpty() || !m_bay.takesShots())
        return;
    if (m_reading) {
        m_again = true;
        return;
    }
    std::vector<std::pair<QString, Stamp>> changed;
    const auto files =
        QDir(m_folder).entryInfoList({QStringLiteral("*.csv"), QStringLiteral("*.txt"), QStringLiteral("*.tsv")},
                                     QDir::Files, QDir::Time | QDir::Reversed);
    for (const auto& file : files)
        if (const auto stamp = stampOf(file.filePath());
            stamp && (m_files[stamp->number].stamp != *stamp || m_files[stamp->number].fresh))
            changed.emplace_back(file.filePath(), *stamp);
    watchNewest(files);
    if (changed.empty())
        return learned();
    m_reading = true;
    inBackground(
        this,
        [changed, headings = rememberedHeadings()] {
            std::vector<Content> contents;
            for (const auto& [path, stamp] : changed)
                if (auto content = read(path, stamp, headings))
                    contents.push_back(std::move(*content));
            return contents;
        },
        [this, watch = m_watch](std::optional<std::vector<Content>> contents) {
            if (watch != m_watch)
                return;
            m_reading = false;
            for (auto& content : std::move(contents).value_or(std::vector<Content>()))
                take(std::move(content));
            learned();
            if (std::exchange(m_again, false))
                look();
        });
}

// A file written over within the second would hide a shot: the ones written last are watched themselves.
void WatchedFolder::watchNewest(const QFileInfoList& files) {
    QStringList earlier = m_watcher.files();
    for (const auto& file : files.last(std::min<qsizetype>(files.size(), mostWatched)))
        if (earlier.removeAll(file.filePath()) == 0)
            m_watcher.addPath(file.filePath());
    if (!earlier.isEmpty())
        m_watcher.removePaths(earlier);
}

void WatchedFolder::learned() {
    ++m_looks;
    const bool began = std::exchange(m_leaveAlone, false);
    if (std::exchange(m_moved, false) || began)
        keepPlace();
}

// Whether these lines are the beginning of a file that is known under another number: a copy made
// when the device rotated its files. One line alone may be a new shot like an old one.
bool WatchedFolder::isCopy(const std::string& heading, const std::vector<std::string>& rows) const {
    auto begins = [&](const File& file) {
        return file.heading == heading && file.rows.size() >= rows.size() &&
               std::equal(rows.begin(), rows.end(), file.rows.begin());
    };
    return rows.size() > 1 && (std::ranges::any_of(m_files, [&](const auto& known) { return begins(known.second); }) ||
                               std::ranges::any_of(m_past, begins));
}

// A device may write its averages anew below each shot, so the beginnings decide.
WatchedFolder::Compared WatchedFolder::compare(const File& before, const Content& now) {
    if (before.heading.empty())
        return compareKept(before, now);
    const auto same = std::ranges::mismatch(before.rows, now.rows).in1 - before.rows.begin();
    const bool goesOn =
        before.heading == now.heading && now.rows.size() >= before.rows.size() && (same > 0 || before.rows.empty());
    return goesOn ? Compared{static_cast<std::size_t>(same), false} : Compared{0, true};
}

// The same by what an earlier run of this program kept.
WatchedFolder::Compared WatchedFolder::compareKept(const File& before, const Content& now) {
    if (before.keptHashes.empty())
        return {std::min(before.keptRows, now.rows.size()), false};
    const auto hashes = hashesOf(now.heading, now.rows);
    const auto same = std::ranges::mismatch(before.keptHashes, hashes).in1 - before.keptHashes.begin();
    const bool goesOn = now.rows.size() >= before.keptRows && (same > 1 || (same == 1 && before.keptRows == 0));
    if (!goesOn)
        return {0, true};
    const bool all = static_cast<std::size_t>(same) == before.keptHashes.size();
    return {all ? before.keptRows : static_cast<std::size_t>(same) - 1, false};
}

void WatchedFolder::complainOnce(File& file, const QString& complaint) {
    if (complaint != file.complaint)
        emit complained(complaint);
    file.complaint = complaint;
}

// Known by its line: the same line twice is two shots, and the same line after the file was begun anew
// is another.
std::vector<bay::Arrival> WatchedFolder::arrivalsOf(const Content& content, const File& file, std::size_t known) const {
    std::map<std::string, int> alike;
    std::vector<std::string> ids;
    for (const auto& row : file.rows) {
        const std::string hash = hashOf(row);
        ids.push_back("folder:" + std::to_string(content.stamp.number) + '.' + std::to_string(file.generation) + ':' +
                      hash + '.' + std::to_string(++alike[hash]));
    }
    std::vector<bay::Arrival> arrivals;
    const auto& shots = content.shots->test.shots;
    for (std::size_t i = 0; i < shots.size(); ++i) {
        const std::size_t row = content.shots->lines[i] - 2; // after the heading, from 0
        if (row >= known && row < ids.size() && !bay::isKnown(m_hand.test(), ids[row]))
            arrivals.push_back({.readings = shots[i].readings,
                                .at = localTime(shots[i].takenAt.text()).toStdString(),
                                .readId = ids[row],
                                .reason = shots[i].note});
    }
    return arrivals;
}

void WatchedFolder::take(Content content) {
    File& file = m_files[content.stamp.number];
    const auto [known, begunAnew] = compare(file, content);
    const bool changed = file.heading.empty() || begunAnew || known < content.rows.size();
    const bool wasKnown = file.stamp.size >= 0 || file.keptRows > 0;
    if (begunAnew) {
        m_past.push_back(file);
        ++file.generation;
    }
    const bool isAgain = !changed && !begunAnew && file.rows.size() == 1 && file.stamp.size >= 0 &&
                         content.stamp.changed - file.stamp.changed > anotherWrite;
    const bool copied = known == 0 && isCopy(content.heading, content.rows);
    file.stamp = content.stamp;
    file.fresh = QDateTime::currentMSecsSinceEpoch() - content.stamp.changed / 1000000 < freshFor;
    file.heading = content.heading;
    file.rows = content.rows;
    // A device that keeps its last shot alone may have seen another one just like it; nothing tells.
    if (isAgain && !m_leaveAlone)
        emit complained(tr("%1 was written anew with the very same shot, which is taken once. If it was another swing, "
                           "type it.")
                            .arg(content.name));
    if (m_leaveAlone || copied || !changed)
        return;
    if (!content.shots) {
        if (content.shots.error().kind != files::ErrorKind::headerOnly)
            complainOnce(file, QString::fromStdString(files::sentence(content.shots.error())));
        else if (begunAnew && wasKnown && !content.rows.empty())
            complainOnce(file, tr("%1 was changed, and no new shot is in it.").arg(content.name));
        file.rows.resize(known); // tried again when the file has grown
        return;
    }
    auto arrivals = arrivalsOf(content, file, known);
    if (arrivals.empty()) {
        if (begunAnew && wasKnown)
            complainOnce(file, tr("%1 was changed, and no new shot is in it.").arg(content.name));
        return;
    }
    const auto taken = static_cast<int>(arrivals.size());
    if (!m_bay.arrive(std::move(arrivals))) {
        file.rows.resize(known); // no test takes shots: they wait in their file
        file.stamp = {};
        return;
    }
    file.complaint.clear();
    m_taken += taken;
    m_moved = true;
    emit statusChanged();
}

} // namespace knot::app
