#pragma once

#include "app/shell/pages.h"
#include "core/record/shot.h"

#include <QObject>
#include <QString>

#include <vector>

class QWidget;

namespace knot::app {

class ImportPage;
class Session;

/// The ways in: files, cells and the demo on their way to the session, and what was open lately.
class WaysIn : public QObject {
    Q_OBJECT

public:
    WaysIn(Session& session, ImportPage& page, QObject* parent = nullptr);

    /// A logbook is opened and an exported test read at once; files of shots, and those of a folder, go to the import
    /// page as one record.
    void takeUp(const QStringList& paths);
    /// Cells copied from a spreadsheet or a text.
    void paste();
    /// Adds another logbook's tests to the open one, and shows side by side what both have and is not the same.
    void addLogbook(const QString& path, QWidget* window);
    /// Adds a file's shots to the test in hand; by way of the import page where something is asked.
    void add(const QString& path);
    /// Lays a file's shots on the plan in hand; by way of the import page where something is asked.
    void layFile(const QString& path);
    /// The path of the demo logbook, made if need be; empty, with a sentence, where it can't be.
    QString makeDemo();
    /// Keeps the test in hand for the start page and the list, with what was found or where it stands.
    void rememberTest();

signals:
    void pageRequested(PageId page);
    void layRequested(const QString& file, std::vector<record::Shot> shots);
    void complained(const QString& sentence);
    void noted(const QString& sentence);
    /// What was said before is settled.
    void cleared();

private:
    void read();
    void keepAsSitting();
    void addToTest();
    bool putIntoTest();
    void lay();
    void finish(bool done, PageId page);
    void takeChart(const QString& path);
    Session& m_session;
    ImportPage& m_page;
};

} // namespace knot::app
