#pragma once

#include "files/csv_headings.h"

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>

#include <map>
#include <string>
#include <vector>

namespace knot::app {

class Session;

/// A folder that a device writes shot files to: one file that grows, or one file a shot. What stood
/// there when watching began is left alone. A line counts once its end is written; a file that was
/// renamed, copied away or cut short and begun anew gives no shot twice.
class WatchedFolder : public QObject {
    Q_OBJECT

public:
    explicit WatchedFolder(Session& session, QObject* parent = nullptr);

    /// Watches a folder from now on; false where it can't be read.
    bool watch(const QString& folder);
    /// Goes on with the folder that was watched before the program ended, shots written meanwhile
    /// included; false where none was.
    bool goOn();
    void stop();
    QString folder() const { return m_folder; }
    QString status() const;
    /// Looks at the files now; called by itself when something changes and every second.
    void look();

signals:
    void statusChanged();
    void complained(const QString& sentence);

private:
    struct File {
        std::vector<std::string> rows; ///< complete lines of shots that were taken or left alone
        std::string heading;
        qint64 size = 0;
        int generation = 0; ///< how often it was begun anew
        QString complaint;  ///< said once
    };
    void lookAt(const QString& path);
    bool isCopy(const std::string& heading, const std::vector<std::string>& rows) const;
    void keepPlace();

    Session& m_session;
    QString m_folder;
    std::map<quint64, File> m_files; ///< by the file's own number, which a new name doesn't change
    std::vector<File> m_past; ///< files as they were before they were begun anew
    QFileSystemWatcher m_watcher;
    QTimer m_timer;
    bool m_leaveAlone = false; ///< the first look only learns what stands there
    int m_taken = 0;
};

} // namespace knot::app
