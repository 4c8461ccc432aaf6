// The Bay menu: everything of the bay that has no key of its own, and most that has.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/player_window.h"
#include "app/session.h"
#include "app/shell/main_window.h"

#include <QMenuBar>

namespace knot::app {

void MainWindow::buildBayMenu() {
    QMenu* menu = menuBar()->addMenu(tr("&Bay"));
    auto add = [&](QList<QAction*>& group, const QString& text, const char* name, auto action) {
        QAction* item = menu->addAction(text, this, [this, action] {
            showPage(Page::bay);
            action();
        });
        item->setObjectName(QLatin1String(name));
        group << item;
        return item;
    };
    m_standIn = add(m_bayActions, tr("&Simulated monitor"), "actionStandIn", [this] { m_bayPage->toggleStandIn(); });
    m_standIn->setCheckable(true);
    m_watch = add(m_bayActions, tr("&Watch a folder…"), "actionWatch", [this] { askFolder(); });
    m_watch->setCheckable(true);
    add(m_bayActions, tr("Monitor &link"), "actionLink", [this] { m_bayPage->showLinkForm(); });
    add(m_planActions, tr("Lay a device's &file on the plan…"), "actionLay", [this] { askLay(); });
    menu->addSeparator();
    m_playerWindow =
        add(m_bayActions, tr("&Player's window\tV"), "actionPlayerWindow", [this] { m_bayPage->togglePlayerWindow(); });
    m_playerWindow->setCheckable(true);
    m_sounds = add(m_bayActions, tr("So&unds"), "actionSounds", [this] { m_bayPage->toggleSounds(); });
    m_sounds->setCheckable(true);
    add(m_bayActions, tr("Con&ditions\tK"), "actionConditions", [this] { m_bayPage->showConditions(); });
    menu->addSeparator();
    add(m_bayActions, tr("This &club changed\tC"), "actionMarkClub", [this] { m_bayPage->markClub(); });
    add(m_bayActions, tr("The pla&yer changed\tP"), "actionMarkPlayer", [this] { m_bayPage->markPlayer(); });
    menu->addSeparator();
    add(m_planActions, tr("End this s&tint"), "actionEndStint", [this] { m_bayPage->endStint(); });
    add(m_planActions, tr("Leave a club &out…"), "actionLeaveOut", [this] { m_bayPage->leaveClubOut(); });
    add(m_planActions, tr("&End the test here…"), "actionEndHere", [this] { m_bayPage->endHere(); });
    add(m_planActions, tr("&Another lap"), "actionAnotherLap", [this] { m_bayPage->anotherLap(); });
    menu->addSeparator();
    add(m_bayActions, tr("&New sitting"), "actionNewSitting", [this] { m_bayPage->newSitting(); });
    add(m_bayActions, tr("Sto&p for today…\tX"), "actionStop", [this] { m_bayPage->stopForToday(); });
}

void MainWindow::refreshBayMenu() {
    const bool takes = m_session.hasTest() && m_session.takesShots();
    for (QAction* action : m_bayActions)
        action->setEnabled(takes);
    for (QAction* action : m_planActions)
        action->setEnabled(takes && m_session.test().stage == record::Stage::test);
    m_standIn->setChecked(m_bayPage->standInRuns());
    m_watch->setChecked(m_bayPage->watchesFolder());
    m_sounds->setChecked(m_bayPage->soundsOn());
    m_playerWindow->setChecked(m_bayPage->playerWindowShows());
}

QWidget* MainWindow::openPlayerWindow() {
    if (!m_bayPage->playerWindowShows())
        m_bayPage->togglePlayerWindow();
    return m_bayPage->playerWindow();
}

void MainWindow::askFolder() {
    if (m_bayPage->watchesFolder())
        return m_bayPage->stopWatching();
    const QString folder = m_prompter->folderToOpen(this, tr("Watch a folder for shots"));
    if (!folder.isEmpty())
        m_bayPage->watchFolder(folder);
    refreshBayMenu();
}

void MainWindow::askLay() {
    const QString path = m_prompter->fileToOpen(this, tr("Lay a device's file on the plan"),
                                                tr("Shot files (*.csv *.txt *.tsv);;All files (*)"));
    if (!path.isEmpty())
        m_bayPage->layFile(path);
}

} // namespace knot::app
