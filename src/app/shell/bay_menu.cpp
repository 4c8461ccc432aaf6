// The Bay menu: the bay's commands that have a place in it, in their groups.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/keys/commands.h"
#include "app/bay_page/player_window.h"
#include "app/session/session.h"
#include "app/shell/main_window.h"
#include "app/shell/ways_in.h"

#include <QMenuBar>

namespace knot::app {

void MainWindow::buildBayMenu() {
    QMenu* menu = menuBar()->addMenu(tr("&Bay"));
    int group = 0;
    for (const BayCommand& command : bayCommands()) {
        if (command.menuGroup == 0)
            continue;
        if (group != 0 && group != command.menuGroup)
            menu->addSeparator();
        group = command.menuGroup;
        QString text = QCoreApplication::translate("Bay", command.menuText);
        if (command.key != 0)
            text += QLatin1Char('\t') + QLatin1String(command.cap);
        QAction* item = menu->addAction(text, this, [this, &command] {
            showPage(PageId::bay);
            command.run(*m_bayPage);
            refreshBayMenu();
        });
        item->setObjectName(QLatin1String(command.menuName));
        item->setCheckable(command.isOn != nullptr);
        m_bayActions << item;
    }
}

void MainWindow::refreshBayMenu() {
    const bool takes = m_session.hasTest() && m_session.bay().takesShots();
    auto action = m_bayActions.begin();
    for (const BayCommand& command : bayCommands()) {
        if (command.menuGroup == 0)
            continue;
        (*action)->setEnabled(takes && (!command.ofPlan || m_session.test().stage == record::Stage::test));
        if (command.isOn != nullptr)
            (*action)->setChecked(command.isOn(*m_bayPage));
        ++action;
    }
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
    const QString path = m_prompter->fileToOpen(this, tr("Match a device's file to the plan"),
                                                tr("Shot files (*.csv *.txt *.tsv *.xlsx *.ods);;All files (*)"));
    if (!path.isEmpty())
        m_waysIn->layFile(path);
}

} // namespace knot::app
