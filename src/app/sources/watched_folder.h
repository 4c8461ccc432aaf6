#pragma once

#include "core/bay/strike.h"
#include "files/import/shot_file.h"

#include <QFileInfoList>
#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::app {

class BayRun;
class Book;
class TestInHand;

/// A folder that a device writes shot files to: one file that grows, or one file a shot. What stood
/// there when watching began is left alone. A line counts once its end is written; a file that was
/// renamed, copied away or cut short and begun anew gives no shot twice, and one that is written over
/// with each shot gives each. Shots are known by what their line says, so that a program that was killed
/// goes on where it stood.
class WatchedFolder : public QObject {
    Q_OBJECT

public:
    WatchedFolder(const TestInHand& hand, BayRun& bay, Book& book, QObject* parent = nullptr);

    /// Watches a folder from now on; false where it can't be read.
    bool watch(const QString& folder);
    /// Goes on with the folder that was watched before the program ended, shots written meanwhile
    /// included; false where none was.
    bool goOn();
    void stop();
    QString folder() const { return m_folder; }
    QString status() const;
    /// How often the folder was looked at to the end.
    int looks() const { return m_looks; }
    /// Looks at the files now; called by itself when something changes and every second. What has
    /// changed is read off the window's thread.
    void look();

signals:
    void statusChanged();
    void complained(const QString& sentence);

private:
    /// When a file has changed: by its length alone it need not show.
    struct Stamp {
        quint64 number = 0; ///< the file's own, which a new name doesn't change
        qint64 size = -1, changed = 0;
        bool operator==(const Stamp&) const = default;
    };
    /// A file as it was read: complete lines, and the shots that they mean.
    struct Content {
        QString name;
        Stamp stamp;
        std::string heading;
        std::vector<std::string> rows;
        files::Result<files::ImportedTest> shots;
    };
    static std::optional<Stamp> stampOf(const QString& path);
    static std::optional<Content> read(const QString& path, const Stamp& stamp, const files::HeadingMap& headings);
    struct File {
        std::vector<std::string> rows; ///< complete lines of shots that were taken or left alone
        std::string heading;
        Stamp stamp;
        int generation = 0; ///< how often it was begun anew
        QString complaint;  ///< said once
        bool fresh = false; ///< changed so lately that another change may hide in the same moment
        /// Of an earlier run of this program: how many lines it had, and what they and the heading began
        /// with, as hashes.
        std::size_t keptRows = 0;
        std::vector<std::string> keptHashes = {};
    };
    void take(Content content);
    void learned();
    void watchNewest(const QFileInfoList& files);
    /// How many of these lines are known, and whether the file was begun anew.
    struct Compared {
        std::size_t known = 0;
        bool begunAnew = false;
    };
    static Compared compare(const File& before, const Content& now);
    static Compared compareKept(const File& before, const Content& now);
    std::vector<bay::Arrival> arrivalsOf(const Content& content, const File& file, std::size_t known) const;
    void complainOnce(File& file, const QString& complaint);
    bool isCopy(const std::string& heading, const std::vector<std::string>& rows) const;
    void keepPlace();

    const TestInHand& m_hand;
    BayRun& m_bay;
    Book& m_book;
    QString m_folder;
    std::map<quint64, File> m_files; ///< by the file's own number
    std::vector<File> m_past;        ///< files as they were before they were begun anew
    QFileSystemWatcher m_watcher;
    QTimer m_timer, m_soon;
    bool m_leaveAlone = false; ///< the first look only learns what stands there
    bool m_moved = false;      ///< shots were taken since the place was kept
    bool m_reading = false, m_again = false;
    int m_looks = 0;
    int m_watch = 0; ///< counts watches, so that what was read for an earlier one is dropped
    int m_taken = 0;
};

} // namespace knot::app
