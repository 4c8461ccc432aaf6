#include "app/shell/main_window.h"
#include "app/bay_page/bay_actions.h"
#include "app/bay_page/bay_page.h"
#include "app/decision_page/decision_page.h"
#include "app/form/page.h"
#include "app/form/press_by_enter.h"
#include "app/form/typed.h"
#include "app/import_page/import_page.h"
#include "app/logbook_page/logbook_page.h"
#include "app/plan_page/plan_page.h"
#include "app/plan_page/seal_panel.h"
#include "app/player_page/player_page.h"
#include "app/rack_page/rack_page.h"
#include "app/reading_page/reading_page.h"
#include "app/report/report_page.h"
#include "app/session/session.h"
#include "app/sheet_page/sheet_page.h"
#include "app/shell/handing_over.h"
#include "app/shell/message_bar.h"
#include "app/shell/spine.h"
#include "app/shell/stages_menu.h"
#include "app/shell/units_menu.h"
#include "app/shell/ways_in.h"
#include "app/shell/ways_out.h"
#include "app/start_page/start_page.h"
#include "app/style/fonts.h"
#include "app/style/labels.h"
#include "app/style/palette.h"
#include "core/record/text/number_text.h"
#include "files/import/shot_file.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QLabel>
#include <QMenuBar>
#include <QMimeData>
#include <QSettings>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <array>

namespace knot::app {
namespace {

QString anyFile() {
    return MainWindow::tr(
        "Logbooks and shot files (*.knotbook *.csv *.txt *.tsv *.xlsx *.ods *.json *.html *.xml);;All files (*)");
}
QString shotFiles() {
    return MainWindow::tr("Shot files (*.csv *.txt *.tsv *.xlsx *.ods *.json *.html *.xml);;All files (*)");
}
} // namespace

MainWindow::MainWindow(Session& session, std::unique_ptr<Prompter> prompter)
    : m_session(session)
    , m_prompter(std::move(prompter)) {
    setAcceptDrops(true);
    buildUi();
    buildMenus();
    wire();
    new PressByEnter(this);
    showPage(PageId::start);
}

MainWindow::~MainWindow() {
    Typed::commitAll(); // while there is still somebody to take it
}

void MainWindow::buildUi() {
    QStringList names;
    for (const PageEntry& entry : pageEntries)
        names << nameOf(entry);
    m_spine = new Spine(names);
    m_title = new OneLineLabel;
    m_title->setObjectName(QStringLiteral("title"));
    m_title->setFont(typeface(size::title, QFont::DemiBold));
    m_subtitle = new OneLineLabel;
    m_subtitle->setObjectName(QStringLiteral("subtitle"));
    m_subtitle->setForegroundRole(QPalette::PlaceholderText);
    m_messages = new MessageBar;
    m_pages = new QStackedWidget;
    m_logbookPage = new LogbookPage(m_session.book());
    m_readingPage = new ReadingPage(m_session.hand(), m_session.declaring(), m_session.judging(), m_session.book());
    m_decisionPage = new DecisionPage(m_session.hand(), m_session.declaring(), m_session.judging(), m_session.book());
    m_sheetPage = new SheetPage(m_session.hand(), m_session.declaring(), m_session.book(), m_session.earlier());
    m_rackPage = new RackPage(m_session.hand(), m_session.declaring(), m_session.bay(), m_session.book());
    m_planPage = new PlanPage(m_session.hand(), m_session.declaring(), m_session.book(), m_session.earlier());
    m_bayPage =
        new BayPage(m_session.hand(), m_session.declaring(), m_session.bay(), m_session.book(), m_session.earlier());
    m_startPage = new StartPage;
    m_importPage = new ImportPage(m_session.hand(), m_session.book());
    m_playerPage = new PlayerPage(m_session.book());
    m_reportPage = new ReportPage(m_session.hand(), m_session.declaring(), m_session.judging(), m_session.book());
    for (Page* one : allPages())
        m_pages->addWidget(one);
    m_waysIn = new WaysIn(m_session, *m_importPage, this);
    m_waysOut = new WaysOut(m_session, *m_prompter, this);

    auto* column = new QVBoxLayout;
    column->setContentsMargins(24, 10, 24, 20);
    column->setSpacing(2);
    column->addWidget(m_title);
    column->addWidget(m_subtitle);
    column->addSpacing(10);
    column->addWidget(m_messages);
    column->addSpacing(size::grid);
    column->addWidget(m_pages, 1);
    auto* body = new QWidget;
    auto* row = new QHBoxLayout(body);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(m_spine);
    row->addLayout(column, 1);
    setCentralWidget(body);
    setMinimumSize(800, 600);
    resize(1280, 800);
}

// In the order of their ids.
std::array<Page*, 11> MainWindow::allPages() const {
    return {m_logbookPage,  m_sheetPage, m_rackPage,   m_planPage,   m_bayPage,   m_readingPage,
            m_decisionPage, m_startPage, m_importPage, m_playerPage, m_reportPage};
}

Page* MainWindow::page(PageId id) const {
    return allPages().at(static_cast<std::size_t>(id));
}

Page* MainWindow::currentPage() const {
    return static_cast<Page*>(m_pages->currentWidget());
}

void MainWindow::buildFileMenu() {
    QMenu* file = menuBar()->addMenu(tr("&File"));
    auto add = [&](const QString& text, const QKeySequence& keys, const char* name, auto action) {
        QAction* item = file->addAction(text, keys, this, action);
        item->setObjectName(QLatin1String(name));
        return item;
    };
    add(tr("&New test"), QKeySequence::New, "actionNewTest", [this] { startTest(record::Stage::test); });
    add(tr("New s&creening"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N), "actionNewScreening",
        [this] { startTest(record::Stage::screening); });
    add(tr("Just &hit"), QKeySequence(Qt::CTRL | Qt::Key_H), "actionOpenSitting",
        [this] { startTest(record::Stage::openSitting); });
    m_copy =
        add(tr("New test like &this"), QKeySequence(Qt::CTRL | Qt::Key_L), "actionCopyTest", [this] { copyTest(); });
    file->addSeparator();
    add(tr("&Open…"), QKeySequence::Open, "actionOpen", [this] { askOpen(); });
    add(tr("&Import shots…"), QKeySequence(Qt::CTRL | Qt::Key_I), "actionImport", [this] { askImport(); });
    m_keep = add(tr("&Save to a logbook…"), QKeySequence::Save, "actionKeep", [this] { m_waysOut->keep(); });
    m_export = add(tr("&Export this test…"), QKeySequence(Qt::CTRL | Qt::Key_E), "actionExport",
                   [this] { m_waysOut->exportTest(); });
    add(tr("&Report…"), QKeySequence::Print, "actionReport", [this] { goTo(PageId::report); });
    add(tr("&Print the test sheet…"), {}, "actionPrintSheet", [this] { m_waysOut->printSheet(); });
    add(tr("Add another log&book…"), {}, "actionAddLogbook", [this] {
        const QString path = m_prompter->fileToOpen(this, tr("Add another logbook's tests to this one"),
                                                    tr("Knot Count logbooks (*.knotbook)"));
        if (!path.isEmpty())
            m_waysIn->addLogbook(path, this);
    });
    add(tr("Add a stock of par&ts…"), {}, "actionStock", [this] {
        m_session.book().addStock(m_prompter->fileToOpen(this, tr("Add a stock of parts"), tr("Tables (*.csv *.txt)")));
    });
    m_addShots = add(tr("&Add shots to this test…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_I), "actionAddShots",
                     [this] { askShots(); });
    file->addSeparator();
    add(tr("&Quit"), QKeySequence::Quit, "actionQuit", [this] { close(); });
}

void MainWindow::buildMenus() {
    buildFileMenu();
    QMenu* edit = menuBar()->addMenu(tr("&Edit"));
    auto onBay = [this] { return currentPage() == m_bayPage; };
    m_undo = edit->addAction(tr("&Undo"), QKeySequence::Undo, this, &MainWindow::undo);
    m_undo->setObjectName(QStringLiteral("actionUndo"));
    m_redo = edit->addAction(tr("&Redo"), QKeySequence::Redo, this,
                             [this, onBay] { onBay() ? m_session.bay().redo() : m_session.declaring().redo(); });
    m_redo->setObjectName(QStringLiteral("actionRedo"));
    edit->addAction(tr("&Paste shots"), QKeySequence::Paste, m_waysIn, &WaysIn::paste)
        ->setObjectName(QStringLiteral("actionPaste"));
    QMenu* go = menuBar()->addMenu(tr("&Go"));
    addStages(go, [this](PageId id) { goTo(id); });
    go->addSeparator();
    go->addAction(tr("Pla&yers"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_P), this, &MainWindow::showPlayers)
        ->setObjectName(QStringLiteral("actionPlayers"));
    buildBayMenu();
    QMenu* view = menuBar()->addMenu(tr("&View"));
    QAction* theme =
        view->addAction(tr("&Light or dark"), QKeySequence(Qt::CTRL | Qt::Key_D), this, &MainWindow::switchTheme);
    theme->setObjectName(QStringLiteral("actionTheme"));
    addUnits(view->addMenu(tr("&Units")), m_session.book());
    auto* escape = new QAction(this);
    escape->setShortcut(Qt::Key_Escape);
    connect(escape, &QAction::triggered, m_messages, &MessageBar::clear);
    addAction(escape);
}

void MainWindow::undo() {
    Typed::commitAll();
    const Page* page = currentPage();
    if (page == m_logbookPage)
        m_session.undoListed();
    else if (page == m_playerPage)
        m_playerPage->undo();
    else
        page == m_bayPage ? m_session.bay().undo() : m_session.declaring().undo();
}

void MainWindow::showPlayers() {
    if (m_session.hasTest() && !m_session.test().players.empty())
        m_playerPage->show(m_session.test().firstPlayer().id);
    goTo(PageId::players);
}

void MainWindow::wirePlayers() {
    connect(m_playerPage, &PlayerPage::changed, this, &MainWindow::refreshHeading);
    connect(m_playerPage, &PlayerPage::complained, m_messages, &MessageBar::note);
    connect(m_sheetPage, &SheetPage::playerRequested, this, [this](const std::string& id) {
        m_playerPage->show(id);
        goTo(PageId::players);
    });
}

void MainWindow::wire() {
    connect(m_spine, &Spine::chosen, this, [this](int stage) { goTo(static_cast<PageId>(stage)); });
    connect(m_logbookPage, &LogbookPage::openRequested, this, &MainWindow::openListed);
    connect(m_logbookPage, &LogbookPage::removeRequested, this, [this](const std::string& id) {
        m_messages->clear();
        m_session.removeTest(id);
        refreshHeading();
    });
    connect(m_logbookPage, &LogbookPage::renameRequested, this, [this](const std::string& id, const QString& title) {
        m_session.renameTest(id, title);
        refreshHeading();
    });
    connect(m_logbookPage, &LogbookPage::testRequested, this, [this] { startTest(record::Stage::test); });
    connect(m_rackPage, &RackPage::shotsRequested, this, &MainWindow::askShots);
    connect(m_rackPage, &RackPage::shotTyped, &m_session, &Session::addShot);
    connect(m_rackPage, &RackPage::confirmRequested, this, [this](const std::vector<std::string>& clubs) {
        if (m_session.copyDeclaration(clubs))
            showPage(PageId::sheet);
    });
    wireStart();
    wirePlayers();
    connect(m_waysIn, &WaysIn::pageRequested, this, &MainWindow::showPage);
    connect(m_waysIn, &WaysIn::cleared, m_messages, &MessageBar::clear);
    connect(m_waysIn, &WaysIn::layRequested, m_bayPage, &BayPage::layShots);
    connect(m_waysOut, &WaysOut::cleared, m_messages, &MessageBar::clear);
    connect(m_waysOut, &WaysOut::noted, m_messages, &MessageBar::note);
    connect(m_waysOut, &WaysOut::complained, m_messages, &MessageBar::fault);
    connect(m_waysIn, &WaysIn::complained, m_messages, &MessageBar::fault);
    connect(m_waysIn, &WaysIn::noted, m_messages, &MessageBar::note);
    connect(m_importPage, &ImportPage::changed, this, &MainWindow::refreshHeading);
    connect(m_logbookPage, &LogbookPage::importRequested, this, &MainWindow::askImport);
    connect(m_logbookPage, &LogbookPage::logbookRequested, this, &MainWindow::askOpen);
    connect(m_bayPage, &BayPage::complained, m_messages, &MessageBar::note);
    connect(m_bayPage, &BayPage::folderRequested, this, &MainWindow::askFolder);
    connect(m_bayPage, &BayPage::layRequested, this, &MainWindow::askLay);
    connect(m_readingPage, &ReadingPage::shotsRequested, this, &MainWindow::showShots);
    connect(m_bayPage, &BayPage::shotsLeft, this, [this] { showPage(std::exchange(m_listedFrom, PageId::bay)); });
    auto fairTest = [this](const std::vector<std::string>& clubs) {
        if (m_session.copyDeclaration(clubs))
            showPage(PageId::sheet);
    };
    connect(&m_bayPage->actions(), &BayActions::fairTestRequested, this, fairTest);
    connect(m_readingPage, &ReadingPage::fairTestRequested, this, fairTest);
    connect(m_bayPage, &BayPage::readingRequested, this, [this] { goTo(PageId::reading); });
    connect(m_bayPage, &BayPage::stateChanged, this, &MainWindow::refreshHeading);
    connect(&m_session.bay(), &BayRun::storageTroubled, this, &MainWindow::refreshHeading);
    connect(m_readingPage, &ReadingPage::keepRequested, m_waysOut, &WaysOut::keep);
    connect(m_readingPage, &ReadingPage::saveRequested, m_waysOut, &WaysOut::savePicture);
    connect(m_readingPage, &ReadingPage::copyRequested, m_waysOut, &WaysOut::copyPicture);
    auto* handingOver = new HandingOver(m_session, *m_prompter, *m_waysOut, *m_decisionPage, *m_reportPage);
    handingOver->wire(*m_planPage->sealPanel());
    connect(handingOver, &HandingOver::pageRequested, this, &MainWindow::goTo);
    connect(m_reportPage, &ReportPage::changed, this, &MainWindow::refreshHeading);
    connect(&m_session, &Session::refused, m_messages, &MessageBar::fault);
    connect(&m_session, &Session::noted, m_messages, &MessageBar::note);
    connect(&m_session, &Session::noted, this, &MainWindow::refreshHeading); // what was done may be undone
    connect(&m_session.hand(), &TestInHand::replaced, this, &MainWindow::refreshHeading);
    connect(&m_session.declaring(), &Declaring::changed, this, &MainWindow::refreshHeading);
    connect(&m_session.book(), &Book::changed, this, &MainWindow::refreshHeading);
    connect(&m_session.book(), &Book::saving, m_messages, &MessageBar::showAtOnce);
    connect(&m_session.judging(), &Judging::changed, this, &MainWindow::refreshHeading);
}

void MainWindow::showPage(PageId id) {
    m_listedFrom = PageId::bay; // whoever turns the page has left the list that way
    Typed::commitAll();
    m_waysIn->rememberTest(); // as it stands on the page that is left
    if (id == PageId::import) {
        if (!m_importPage->hasFile())
            id = PageId::logbook;
    } else if (id != PageId::start && id != PageId::players &&
               (!m_session.hasTest() || (isOfShots(id) && m_session.test().shots.empty())))
        id = isOfShots(id) && m_session.hasTest() ? PageId::plan : PageId::logbook;
    if (id == PageId::logbook && !m_session.book().isOpen())
        id = PageId::start;
    m_session.findings().setWatched(id == PageId::logbook);
    if (id == PageId::logbook || id == PageId::players)
        m_session.book().listIfStale();
    m_pages->setCurrentWidget(page(id));
    m_session.judging().setWatched(isOfShots(id)); // after the page that is left has let go of it
    const PageId stage = id == PageId::report ? PageId::decision : id;
    m_spine->setCurrent(stage < PageId::start ? static_cast<int>(stage) : 0); // the others stand before the logbook
    if (id == PageId::bay)
        m_bayPage->enter();
    page(id)->takeFocus();
    refreshHeading();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!m_session.readyToLeave())
        event->ignore();
}

// The user turns the page, and has read what was said.
void MainWindow::goTo(PageId page) {
    m_messages->clear();
    showPage(page);
    if (page == PageId::report)
        m_waysOut->missReport();
}

void MainWindow::showShots() {
    const bool fromReading = currentPage() == m_readingPage;
    goTo(PageId::bay);
    m_listedFrom = fromReading ? PageId::reading : PageId::bay;
    m_bayPage->showShots();
}

void MainWindow::startTest(record::Stage stage) {
    m_messages->clear();
    if (m_session.newTest(stage))
        showPage(stage == record::Stage::test ? PageId::sheet : PageId::bay);
}

// In the list the one in hand there, else the one that is open.
void MainWindow::copyTest() {
    const std::string listed = currentPage() == m_logbookPage ? m_logbookPage->current() : std::string();
    if (!listed.empty() && !m_session.openTest(listed))
        return;
    if (m_session.copyDeclaration())
        showPage(PageId::sheet);
    else if (m_session.isSealed())
        m_messages->show(tr("Its clubs are sealed; a test like it can be made after the reveal."),
                         MessageBar::Tone::fault);
}

void MainWindow::askShots() {
    if (!m_session.hasTest())
        return;
    const QString path = m_prompter->fileToOpen(this, tr("Add shots to this test"), shotFiles());
    m_messages->clear();
    if (!path.isEmpty())
        m_waysIn->add(path);
}

void MainWindow::refreshHeading() {
    for (int stage = 1; stage <= 4; ++stage)
        m_spine->setReachable(stage, m_session.hasTest());
    for (const PageId id : {PageId::reading, PageId::decision})
        m_spine->setReachable(static_cast<int>(id), m_session.hasTest() && !m_session.test().shots.empty());
    m_copy->setEnabled((m_session.hasTest() && !m_session.isSealed()) ||
                       (currentPage() == m_logbookPage && !m_logbookPage->current().empty()));
    m_addShots->setEnabled(m_session.hasTest());
    const Page* page = currentPage();
    const bool onBay = page == m_bayPage;
    m_undo->setEnabled(page == m_logbookPage  ? m_session.canUndoListed()
                       : page == m_playerPage ? m_playerPage->canUndo()
                       : onBay                ? m_session.bay().canUndo()
                                              : m_session.declaring().canUndo());
    m_redo->setEnabled(onBay ? m_session.bay().canRedo() : m_session.declaring().canRedo());
    m_keep->setEnabled(m_session.hasTest() && (!m_session.isKept() || m_session.bay().hasUnsaved()));
    refreshBayMenu();
    m_export->setEnabled(m_session.hasTest());
    const bool onTest = page != m_logbookPage && page->heading().isEmpty();
    const QString book = QFileInfo(m_session.book().path()).completeBaseName();
    if (!page->heading().isEmpty()) {
        m_title->setText(page->heading());
        m_subtitle->setText(page->subtitle());
    } else if (onTest && m_session.hasTest()) {
        m_title->setText(QString::fromStdString(m_session.test().title));
        m_subtitle->setText(page->subtitle());
    } else {
        m_title->setText(m_session.book().isOpen() ? book : tr("No logbook open"));
        m_subtitle->setText(m_logbookPage->subtitle());
    }
    const QString name = onTest ? m_title->text() : book;
    setWindowTitle(name.isEmpty() ? tr("Knot Count") : tr("%1 – Knot Count").arg(name));
}

void MainWindow::openPaths(const QStringList& paths) {
    if (paths.isEmpty())
        return;
    m_messages->clear();
    m_waysIn->takeUp(paths);
}

// A test opens where it stands.
void MainWindow::openListed(const std::string& id) {
    if (!m_session.openTest(id))
        return;
    const auto& test = m_session.test();
    const bool underWay =
        !test.sittings.empty() && m_session.bay().takesShots() && m_session.bay().stand().phase() != bay::Phase::done;
    showPage(underWay                                                   ? PageId::bay
             : !test.shots.empty() && test.stage == record::Stage::test ? PageId::reading
             : test.stage == record::Stage::test                        ? PageId::sheet
                                                                        : PageId::rack);
}

void MainWindow::wireStart() {
    connect(m_startPage, &StartPage::shotsRequested, this, &MainWindow::askImport);
    connect(m_startPage, &StartPage::hitRequested, this, [this] { startTest(record::Stage::openSitting); });
    connect(m_startPage, &StartPage::testRequested, this, [this] { startTest(record::Stage::test); });
    connect(m_startPage, &StartPage::logbookRequested, this, &MainWindow::askOpen);
    connect(m_startPage, &StartPage::demoRequested, this, [this] {
        m_messages->clear();
        if (const QString demo = m_waysIn->makeDemo(); !demo.isEmpty())
            openPath(demo);
    });
    connect(m_startPage, &StartPage::latelyRequested, this, [this](const QString& path, const QString& id) {
        m_messages->clear();
        if (m_session.book().path() == path || m_session.openLogbook(path))
            openListed(id.toStdString());
    });
}

void MainWindow::askOpen() {
    openPaths(m_prompter->filesToOpen(this, tr("Open"), anyFile()));
}

void MainWindow::askImport() {
    openPaths(m_prompter->filesToOpen(this, tr("Import shots"), shotFiles()));
}

void MainWindow::switchTheme() {
    applyTheme(theme() == Theme::light ? Theme::dark : Theme::light);
    QSettings().setValue(QStringLiteral("theme"), theme() == Theme::dark ? "dark" : "light");
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() && event->mimeData()->urls().first().isLocalFile())
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList paths;
    for (const QUrl& url : event->mimeData()->urls())
        paths << url.toLocalFile();
    openPaths(paths);
}

} // namespace knot::app
