#pragma once

#include "app/shell/pages.h"
#include "app/shell/prompter.h"
#include "core/record/test.h"

#include <QMainWindow>

#include <array>

#include <memory>

class QLabel;
class QStackedWidget;

namespace knot::app {

class BayPage;
class ImportPage;
class LogbookPage;
class MessageBar;
class Page;
class PlanPage;
class PlayerPage;
class RackPage;
class DecisionPage;
class ReadingPage;
class ReportPage;
class Session;
class SheetPage;
class Spine;
class StartPage;
class WaysIn;
class WaysOut;

/// The window: the spine of stages, a heading, a line for messages, and the page of the stage.
class MainWindow : public QMainWindow {
    Q_OBJECT

public:
    explicit MainWindow(Session& session, std::unique_ptr<Prompter> prompter);
    ~MainWindow() override;

    void showPage(PageId page);
    /// Opens a logbook or an exported test, or takes up shot files to import, as one record, by the files' endings.
    void openPaths(const QStringList& paths);
    void openPath(const QString& path) { openPaths({path}); }
    /// The list of the shots, to put the record right; what was looked at comes back after it.
    void showShots();
    /// The page of the players, turned to the first one of the test in hand.
    void showPlayers();
    /// Opens the player's window beside this one.
    QWidget* openPlayerWindow();

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void closeEvent(QCloseEvent* event) override;

private:
    void buildUi();
    void buildMenus();
    void buildFileMenu();
    void buildBayMenu();
    void refreshBayMenu();
    std::array<Page*, 11> allPages() const;
    Page* page(PageId id) const;
    Page* currentPage() const;
    void askFolder();
    void askLay();
    void wire();
    void wireStart();
    void wirePlayers();
    void undo();
    void openListed(const std::string& id);
    void askOpen();
    void askImport();
    void askShots();
    void copyTest();
    void goTo(PageId page);
    void startTest(record::Stage stage);
    void refreshHeading();
    void switchTheme();

    Session& m_session;
    std::unique_ptr<Prompter> m_prompter;
    Spine* m_spine = nullptr;
    QLabel* m_title = nullptr;
    QLabel* m_subtitle = nullptr;
    MessageBar* m_messages = nullptr;
    QStackedWidget* m_pages = nullptr;
    StartPage* m_startPage = nullptr;
    ImportPage* m_importPage = nullptr;
    PageId m_listedFrom = PageId::bay; ///< where the list of shots was asked for
    WaysIn* m_waysIn = nullptr;
    WaysOut* m_waysOut = nullptr;
    LogbookPage* m_logbookPage = nullptr;
    SheetPage* m_sheetPage = nullptr;
    RackPage* m_rackPage = nullptr;
    PlanPage* m_planPage = nullptr;
    PlayerPage* m_playerPage = nullptr;
    BayPage* m_bayPage = nullptr;
    ReadingPage* m_readingPage = nullptr;
    DecisionPage* m_decisionPage = nullptr;
    ReportPage* m_reportPage = nullptr;
    QAction* m_keep = nullptr;
    QAction* m_export = nullptr;
    QAction* m_copy = nullptr;
    QAction* m_addShots = nullptr;
    QAction* m_undo = nullptr;
    QAction* m_redo = nullptr;
    QList<QAction*> m_bayActions; ///< beside the bay's commands that have a place in the menu
};

} // namespace knot::app
