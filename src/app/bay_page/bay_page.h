#pragma once

#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_side.h"
#include "app/bay_page/entry/figure_keys.h"
#include "app/bay_page/now_view.h"
#include "app/form/page.h"
#include "app/sources/cues.h"
#include "app/sources/monitor_server.h"
#include "app/sources/stand_in.h"
#include "app/sources/watched_folder.h"
#include "core/bay/lay.h"

#include <QTimer>

class QLabel;

namespace knot::app {

class AskBar;
class AveragesLine;
class Book;
class CourseStrip;
class Declaring;
class EarlierTests;
class KeyRow;
class LayView;
class ShotList;
class PlayerWindow;

/// The test as it is struck: what is handed over, which shot, what became of the last one, and the
/// keys. Shots come by themselves; a key is for what goes wrong. Everything is said once and large.
class BayPage : public Page {
    Q_OBJECT

public:
    BayPage(const TestInHand& hand, Declaring& declaring, BayRun& bay, Book& book, const EarlierTests& earlier,
            QWidget* parent = nullptr);
    ~BayPage() override;

    /// The page is turned to: listens for shots of the test in hand from now on.
    void enter();
    void takeFocus() override;
    QString subtitle() const override;
    BayActions& actions() { return m_actions; }
    MonitorServer& server() { return m_server; }
    const WatchedFolder& folder() const { return m_folder; }
    PlayerWindow* playerWindow() const { return m_playerWindow; }

    // What keys and menu do beside the actions on the test.
    void typeShot(const QString& typed);
    void feel();
    void showConditions() { turnTo(BaySide::Side::conditions); }
    void showLinkForm() { turnTo(BaySide::Side::link); }
    void showHelp() { turnTo(BaySide::Side::help); }
    void askAboutWaitingMonitor() { m_server.askAgain(); }
    void togglePlayerWindow();
    bool playerWindowShows() const;
    void toggleStandIn();
    bool standInRuns() const { return m_standIn.runs(); }
    void toggleSounds();
    bool soundsOn() const { return m_cues.isOn(); }
    void watchFolder(const QString& folder);
    void stopWatching();
    bool watchesFolder() const { return !m_folder.folder().isEmpty(); }
    /// The list of the test's shots, to put the record right.
    void showShots();
    void layShots(const QString& file, std::vector<record::Shot> shots);

signals:
    void complained(const QString& sentence);
    void readingRequested();
    void folderRequested();
    void layRequested();
    /// Whoever put the record right is done with it.
    void shotsLeft();
    /// What the menu shows may have changed.
    void stateChanged();

protected:
    void refresh() override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    void buildUi();
    void wire();
    void wireSources();
    void askWhetherToLetIn(const QString& device);
    void testChanged();
    void refreshStatus(const Situation& now);
    void shotsChanged(std::size_t from);
    void tick();
    void turnTo(BaySide::Side side);
    void takeClubTyped(int number);
    bool act(int key, Qt::KeyboardModifiers modifiers);
    void leaveLaying();

    const TestInHand& m_hand;
    Declaring& m_declaring;
    BayRun& m_bay;
    Book& m_book;
    const EarlierTests& m_earlier;
    MonitorServer m_server;
    WatchedFolder m_folder;
    Cues m_cues;
    StandIn m_standIn;
    AskBar* m_ask;
    BayActions m_actions;
    FigureKeys m_figures;
    CourseStrip* m_strip = nullptr;
    NowView* m_now = nullptr;
    BaySide* m_side = nullptr;
    QStackedWidget* m_bottom = nullptr;
    QStackedWidget* m_body = nullptr; ///< the bay, a file being laid, or the list of shots
    KeyRow* m_keys = nullptr;
    LayView* m_lay = nullptr;
    ShotList* m_shots = nullptr;
    QLabel* m_source = nullptr;
    AveragesLine* m_averages = nullptr;
    QLabel* m_trouble = nullptr;
    PlayerWindow* m_playerWindow = nullptr;
    bool m_restOver = false;
    QTimer m_tick;
    std::string m_entered; ///< the test that the page listens for
};

} // namespace knot::app
