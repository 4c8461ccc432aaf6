#include "app/sources/watched_folder.h"

#include "app/import/heading_dialog.h"
#include "app/session.h"
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

std::optional<quint64> numberOf(const QString& path) {
    struct stat status {};
    if (::stat(QFile::encodeName(path).constData(), &status) != 0)
        return std::nullopt;
    return static_cast<quint64>(status.st_ino);
}

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
    return at.isValid() ? at.toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss.zzz")) : QString();
}

} // namespace

WatchedFolder::WatchedFolder(Session& session, QObject* parent)
    : QObject(parent)
    , m_session(session) {
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
    look();
    m_leaveAlone = false;
    m_watcher.addPath(folder);
    m_timer.start();
    keepPlace();
    emit statusChanged();
    return true;
}

// Where watching began, for a program that is killed: how many lines each file had then.
void WatchedFolder::keepPlace() {
    QJsonObject files;
    for (const auto& [number, file] : m_files)
        files.insert(QString::number(number), static_cast<qint64>(file.rows.size()));
    const QJsonObject place{{QStringLiteral("folder"), m_folder},
                            {QStringLiteral("test"), QString::fromStdString(m_session.test().id)},
                            {QStringLiteral("files"), files}};
    m_session.setSetting(placeKey, QString::fromUtf8(QJsonDocument(place).toJson(QJsonDocument::Compact)));
}

bool WatchedFolder::goOn() {
    const QJsonObject place = QJsonDocument::fromJson(m_session.setting(placeKey).toUtf8()).object();
    const QString folder = place.value(QStringLiteral("folder")).toString();
    if (folder.isEmpty() || !m_session.hasTest() ||
        place.value(QStringLiteral("test")).toString().toStdString() != m_session.test().id ||
        !QDir(folder).isReadable())
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

void WatchedFolder::look() {
    if (m_folder.isEmpty() || !m_session.takesShots())
        return;
    QDir folder(m_folder);
    const auto files = folder.entryInfoList({QStringLiteral("*.csv"), QStringLiteral("*.txt"), QStringLiteral("*.tsv")},
                                            QDir::Files, QDir::Time | QDir::Reversed);
    for (const auto& file : files)
        lookAt(file.filePath());
}

// Whether these lines are the beginning of a file that is known under another number: a copy made
// when the device rotated its files. One line alone may be a new shot like an old one.
bool WatchedFolder::isCopy(const std::string& heading, const std::vector<std::string>& rows) const {
    auto begins = [&](const File& file) {
        return file.heading == heading && file.rows.size() >= rows.size() &&
               std::equal(rows.begin(), rows.end(), file.rows.begin());
    };
    return rows.size() > 1 &&
           (std::ranges::any_of(m_files, [&](const auto& known) { return begins(known.second); }) ||
            std::ranges::any_of(m_past, begins));
}

void WatchedFolder::lookAt(const QString& path) {
    const auto number = numberOf(path);
    QFile in(path);
    if (!number || in.size() > largestFile)
        return;
    File& file = m_files[*number];
    if (in.size() == file.size && file.size > 0)
        return;
    if (!in.open(QIODevice::ReadOnly))
        return;
    const QByteArray bytes = in.readAll();
    file.size = bytes.size();
    std::vector<std::string> rows = linesOf(bytes);
    if (rows.empty())
        return;
    const std::string heading = rows.front();
    rows.erase(rows.begin());
    // Nothing is known of the lines that an earlier run of this program left alone but their number. A
    // device may write its averages anew below each shot, so the beginnings decide.
    const auto common = static_cast<std::size_t>(std::ranges::mismatch(file.rows, rows).in1 - file.rows.begin());
    const bool goesOn = file.heading.empty() || (file.heading == heading && rows.size() >= file.rows.size() &&
                                                 (common > 0 || file.rows.empty()));
    if (!goesOn) {
        m_past.push_back(file);
        ++file.generation;
    }
    const std::size_t known = file.heading.empty() ? std::min(file.rows.size(), rows.size()) : goesOn ? common : 0;
    const bool copied = known == 0 && isCopy(heading, rows);
    file.heading = heading;
    file.rows = rows;
    if (m_leaveAlone || copied || rows.size() == known)
        return;
    // The unit row, where there is one, and everything before it keep their meaning: read the file whole.
    std::string text = heading + '\n';
    for (const auto& row : rows)
        text += row + '\n';
    const QString name = QFileInfo(path).fileName();
    const auto read = files::readShots(name.toStdString(), text,
                                       {.headings = rememberedHeadings(), .clubs = files::ReadOptions::Clubs::unknown});
    if (!read) {
        const QString complaint = QString::fromStdString(files::sentence(read.error()));
        if (read.error().kind != files::ErrorKind::headerOnly && complaint != file.complaint)
            emit complained(complaint);
        file.complaint = complaint;
        file.rows.resize(known); // tried again when the file has grown
        return;
    }
    // Lines and shots go together from the end: units and headings stand at the beginning.
    const auto& shots = read->test.shots;
    const std::size_t fresh = std::min(shots.size(), rows.size() - known);
    std::vector<bay::Arrival> arrivals;
    for (std::size_t i = shots.size() - fresh; i < shots.size(); ++i) {
        const std::string id =
            "folder:" + std::to_string(*number) + '.' + std::to_string(file.generation) + ':' + std::to_string(i + 1);
        if (!bay::isKnown(m_session.test(), id))
            arrivals.push_back({.readings = shots[i].readings,
                                .at = localTime(shots[i].takenAt).toStdString(),
                                .readId = id,
                                .reason = shots[i].note});
    }
    m_taken += static_cast<int>(arrivals.size());
    m_session.arrive(std::move(arrivals));
    emit statusChanged();
}

} // namespace knot::app
