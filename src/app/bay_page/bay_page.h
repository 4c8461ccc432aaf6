#pragma once

#include "app/bay_page/bay_words.h"
#include "app/bay_page/face_view.h"
#include "app/sources/cues.h"
#include "app/sources/monitor_server.h"
#include "app/sources/watched_folder.h"

#include <QElapsedTimer>
#include <QProcess>
#include <QTimer>
#include <QWidget>

class QLabel;
class QLineEdit;
class QScrollArea;
class QStackedWidget;

namespace knot::app {

class AskBar;
class ConditionsForm;
class FeelView;
class HandEntry;
class LayView;
class LinkForm;
class PlayerWindow;
class Session;
class StripView;

/// The test as it is struck: what is handed over, which shot, what became of the last one, and the
/// keys. Shots come by themselves; a key is for what goes wrong. Everything is said once and large.
class BayPage : public QWidget {
    Q_OBJECT

public:
    explicit BayPage(Session& session, QWidget* parent = nullptr);
    ~BayPage() override;

    /// The page is turned to: listens for shots of the test in hand from now on.
    void enter();
    void takeFocus();
    QString subtitle() const;
    MonitorServer& server() { return m_server; }
    PlayerWindow* playerWindow() const { return m_playerWindow; }
    bool playerWindowShows() const;

    // What the Bay menu does too (bay_commands.cpp).
    void togglePlayerWindow();
    void toggleStandIn();
    bool standInRuns() const { return m_standIn.state() != QProcess::NotRunning; }
    void toggleSounds();
    bool soundsOn() const { return m_cues.isOn(); }
    void watchFolder(const QString& folder);
    void stopWatching();
    bool watchesFolder() const { return !m_folder.folder().isEmpty(); }
    void showLinkForm();
    void showConditions();
    void layFile(const QString& path);
    void endStint();
    void leaveClubOut();
    void endHere();
    void anotherLap();
    void newSitting();
    void stopForToday();
    void markClub();
    void markPlayer();

signals:
    void complained(const QString& sentence);
    void readingRequested();
    /// What the menu shows may have changed.
    void stateChanged();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    enum class Side { shot, feel, conditions, link };
    void buildUi();
    QWidget* buildSide();
    QWidget* buildStage();
    void wire();
    void refresh();
    void refreshSide(const bay::Stand& stand);
    void refreshStrip(const bay::Stand& stand);
    void refreshStatus(const bay::Stand& stand);
    void shotsChanged(std::size_t from);
    void sayResumed();
    bool isAnotherVisit();
    void tick();
    void showSide(Side side);

    bool act(int key, Qt::KeyboardModifiers modifiers);
    bool actOnClub(int number);
    void takeClub();
    void next();
    void callMishit();
    void setAsideSeen();
    void noReading();
    void rest();
    void word();
    void guess();
    void guessAtEnd(std::size_t build);
    void feel();
    void askReason(std::size_t shot);
    void ask(const std::function<void()>& asking);
    LastShot lastShot() const;
    int secondsToNumber() const;
    QStringList clubNames() const;

    Session& m_session;
    MonitorServer m_server;
    WatchedFolder m_folder;
    Cues m_cues;
    QProcess m_standIn;
    StripView* m_strip = nullptr;
    QScrollArea* m_stripArea = nullptr;
    NowView* m_now = nullptr;
    FaceView* m_face = nullptr;
    HandEntry* m_entry = nullptr;
    FeelView* m_feel = nullptr;
    QLineEdit* m_feelWords = nullptr;
    QLabel* m_feelHeading = nullptr;
    ConditionsForm* m_conditions = nullptr;
    LinkForm* m_link = nullptr;
    QStackedWidget* m_side = nullptr;
    QStackedWidget* m_bottom = nullptr;
    QStackedWidget* m_body = nullptr; ///< the bay, or a file being laid
    KeyRow* m_keys = nullptr;
    AskBar* m_ask = nullptr;
    LayView* m_lay = nullptr;
    QLabel* m_source = nullptr;
    QLabel* m_averages = nullptr;
    QLabel* m_trouble = nullptr;
    PlayerWindow* m_playerWindow = nullptr;

    std::optional<std::size_t> m_last; ///< the shot that came last
    std::size_t m_count = 0;           ///< shots there were at the last look
    QElapsedTimer m_sinceLast;
    bool m_called = false; ///< the coming shot is a mishit
    QElapsedTimer m_resting;
    bool m_restOver = false;
    QTimer m_tick;
    std::string m_entered; ///< the test that the page listens for
};

} // namespace knot::app
