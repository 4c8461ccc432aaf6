#include "app/sources/watched_folder.h"
#include "app/sources/headings_memory.h"

#include "app/session/background.h"
#include "app/session/bay_run.h"
#include "app/session/book.h"
#include "app/session/moment.h"
#include "app/session/test_in_hand.h"
#include "core/record/number_text.h"
#include "files/csv_reader.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>

#include <sys/stat.h>

#include <algorithm>

namespace knot::app {
namespace {

constexpr const char* placeKey = "watched_folder";
constexpr qint64 largestFile = 64LL << 20;

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

// Where watching began, for a program that is killed: how many lines each file had then.
void WatchedFolder::keepPlace() {
    QJsonObject files;
    for (const auto& [number, file] : m_files)
        files.insert(QString::number(number), static_cast<qint64>(file.rows.size()));
    const QJsonObject place{{QStringLiteral("folder"), m_folder},
                            {QStringLiteral("test"), QString::fromStdString(m_hand.test().id)},
                            {QStringLiteral("files"), files}};
    m_book.setSetting(placeKey, QString::fromUtf8(QJsonDocument(place).toJson(QJsonDocument::Compact)));
}

bool WatchedFolder::goOn() {
    const QJsonObject place = QJsonDocument::fromJson(m_book.setting(placeKey).toUtf8()).object();
    const QString folder = place.value(QStringLiteral("folder")).toString();
    if (folder.isEmpty() || !m_hand.has() ||
        place.value(QStringLiteral("test")).toString().toStdString() != m_hand.test().id || !QDir(folder).isReadable())
        return false;
    stop();
    m_folder = folder;
    const QJsonObject files = place.value(QStringLiteral("files")).toObject();
    for (auto file = files.begin(); file != files.end(); ++file)
        m_files[file.key().toULongLong()].rows.resize(static_cast<std::size_t>(file.value().toInteger()));
    m_watcher.addPath(folder);
    m_timer.start();
    look();
    emit statusChanged();
    return true;
}

void WatchedFolder::stop() {
    if (!m_folder.isEmpty() && m_watcher.directories().contains(m_folder))
        m_watcher.removePath(m_folder);
    m_timer.stop();
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
                                    {.headings = headings, .clubs = files::ReadOptions::Clubs::unknown})};
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
        if (const auto stamp = stampOf(file.filePath()); stamp && m_files[stamp->number].stamp != *stamp)
            changed.emplace_back(file.filePath(), *stamp);
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
        [this, watch = m_watch](std::vector<Content> contents) {
            if (watch != m_watch)
                return;
            m_reading = false;
            for (auto& content : contents)
                take(std::move(content));
            learned();
            if (std::exchange(m_again, false))
                look();
        });
}

void WatchedFolder::learned() {
    ++m_looks;
    if (std::exchange(m_leaveAlone, false))
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

// Nothing is known of the lines that an earlier run of this program left alone but their number. A
// device may write its averages anew below each shot, so the beginnings decide.
WatchedFolder::Compared WatchedFolder::compare(const File& before, const Content& now) {
    if (before.heading.empty())
        return {std::min(before.rows.size(), now.rows.size()), false};
    const auto same = std::ranges::mismatch(before.rows, now.rows).in1 - before.rows.begin();
    const bool goesOn =
        before.heading == now.heading && now.rows.size() >= before.rows.size() && (same > 0 || before.rows.empty());
    return goesOn ? Compared{static_cast<std::size_t>(same), false} : Compared{0, true};
}

void WatchedFolder::complain(File& file, const files::Error& error) {
    const QString complaint = QString::fromStdString(files::sentence(error));
    if (error.kind != files::ErrorKind::headerOnly && complaint != file.complaint)
        emit complained(complaint);
    file.complaint = complaint;
}

void WatchedFolder::take(Content content) {
    File& file = m_files[content.stamp.number];
    const auto [known, begunAnew] = compare(file, content);
    if (begunAnew) {
        m_past.push_back(file);
        ++file.generation;
    }
    const bool copied = known == 0 && isCopy(content.heading, content.rows);
    const std::size_t lines = content.rows.size();
    file.stamp = content.stamp;
    file.heading = std::move(content.heading);
    file.rows = std::move(content.rows);
    if (m_leaveAlone || copied || lines == known)
        return;
    if (!content.shots) {
        complain(file, content.shots.error());
        file.rows.resize(known); // tried again when the file has grown
        return;
    }
    // Lines and shots go together from the end: units and headings stand at the beginning.
    const auto& shots = content.shots->test.shots;
    std::vector<bay::Arrival> arrivals;
    for (std::size_t i = shots.size() - std::min(shots.size(), lines - known); i < shots.size(); ++i) {
        const std::string id = "folder:" + std::to_string(content.stamp.number) + '.' +
                               std::to_string(file.generation) + ':' + std::to_string(i + 1);
        if (!bay::isKnown(m_hand.test(), id))
            arrivals.push_back({.readings = shots[i].readings,
                                .at = localTime(shots[i].takenAt).toStdString(),
                                .readId = id,
                                .reason = shots[i].note});
    }
    const auto taken = static_cast<int>(arrivals.size());
    if (!m_bay.arrive(std::move(arrivals))) {
        file.rows.resize(known); // no test takes shots: they wait in their file
        file.stamp = {};
        return;
    }
    m_taken += taken;
    emit statusChanged();
}

} // namespace knot::app
