#include "app/shell/main_window.h"

#include "app/bay_page/bay_page.h"
#include "app/import/heading_dialog.h"
#include "app/logbook_page/logbook_page.h"
#include "app/plan_page/order_slip.h"
#include "app/plan_page/plan_page.h"
#include "app/plan_page/seal_panel.h"
#include "app/rack_page/rack_page.h"
#include "app/reading_page/reading_page.h"
#include "app/session.h"
#include "app/sheet_page/sheet_page.h"
#include "app/shell/message_bar.h"
#include "app/shell/spine.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/record/number_text.h"
#include "files/csv_reader.h"

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

namespace knot::app {
namespace {

QString anyFile() {
    return MainWindow::tr("Logbooks and shot files (*.knotbook *.csv *.txt *.tsv *.json);;All files (*)");
}
QString shotFiles() {
    return MainWindow::tr("Shot files (*.csv *.txt *.tsv);;Exported tests (*.json);;All files (*)");
}
QString logbooks() {
    return MainWindow::tr("Knot Count logbook (*.knotbook)");
}

} // namespace

MainWindow::MainWindow(Session& session, std::unique_ptr<Prompter> prompter)
    : m_session(session)
    , m_prompter(std::move(prompter)) {
    setAcceptDrops(true);
    buildUi();
    buildMenus();
    wire();
    showPage(Page::logbook);
}

MainWindow::~MainWindow() = default;

void MainWindow::buildUi() {
    m_spine = new Spine({tr("Logbook"), tr("Sheet"), tr("Rack"), tr("Plan"), tr("Bay"), tr("Reading")});
    m_title = new QLabel;
    m_title->setObjectName(QStringLiteral("title"));
    m_title->setFont(typeface(size::title, QFont::DemiBold));
    m_subtitle = new QLabel;
    m_subtitle->setObjectName(QStringLiteral("subtitle"));
    m_subtitle->setForegroundRole(QPalette::PlaceholderText);
    m_messages = new MessageBar;
    m_pages = new QStackedWidget;
    m_logbookPage = new LogbookPage(m_session);
    m_readingPage = new ReadingPage(m_session);
    m_pages->addWidget(m_logbookPage);
    m_sheetPage = new SheetPage(m_session);
    m_rackPage = new RackPage(m_session);
    m_planPage = new PlanPage(m_session);
    m_pages->addWidget(m_sheetPage);
    m_pages->addWidget(m_rackPage);
    m_pages->addWidget(m_planPage);
    m_bayPage = new BayPage(m_session);
    m_pages->addWidget(m_bayPage);
    m_pages->addWidget(m_readingPage);

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
    setMinimumSize(900, 600);
    resize(1280, 800);
}

void MainWindow::buildMenus() {
    QMenu* file = menuBar()->addMenu(tr("&File"));
    auto add = [&](QMenu* menu, const QString& text, const QKeySequence& keys, auto action, const char* name) {
        QAction* item = menu->addAction(text, keys, this, action);
        item->setObjectName(QLatin1String(name));
        return item;
    };
    add(
        file, tr("&New test"), QKeySequence::New, [this] { startTest(record::Stage::test); }, "actionNewTest");
    add(
        file, tr("New s&creening"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N),
        [this] { startTest(record::Stage::screening); }, "actionNewScreening");
    add(
        file, tr("Just &hit"), QKeySequence(Qt::CTRL | Qt::Key_H), [this] { startTest(record::Stage::openSitting); },
        "actionOpenSitting");
    m_copy = add(
        file, tr("New test like &this"), QKeySequence(Qt::CTRL | Qt::Key_L),
        [this] {
            if (m_session.copyDeclaration())
                showPage(Page::sheet);
        },
        "actionCopyTest");
    file->addSeparator();
    add(file, tr("&Open…"), QKeySequence::Open, &MainWindow::askOpen, "actionOpen");
    add(file, tr("&Import shots…"), QKeySequence(Qt::CTRL | Qt::Key_I), &MainWindow::askImport, "actionImport");
    m_keep = add(file, tr("&Keep in a logbook…"), QKeySequence::Save, &MainWindow::askKeep, "actionKeep");
    m_export =
        add(file, tr("&Export this test…"), QKeySequence(Qt::CTRL | Qt::Key_E), &MainWindow::askExport, "actionExport");
    m_addShots = add(file, tr("&Add shots to this test…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_I),
                     &MainWindow::askShots, "actionAddShots");
    file->addSeparator();
    add(
        file, tr("&Quit"), QKeySequence::Quit, [this] { close(); }, "actionQuit");
    QMenu* edit = menuBar()->addMenu(tr("&Edit"));
    auto onBay = [this] { return m_pages->currentWidget() == m_bayPage; };
    m_undo = add(
        edit, tr("&Undo"), QKeySequence::Undo, [this, onBay] { onBay() ? m_session.undoInBay() : m_session.undo(); },
        "actionUndo");
    m_redo = add(
        edit, tr("&Redo"), QKeySequence::Redo, [this, onBay] { onBay() ? m_session.redoInBay() : m_session.redo(); },
        "actionRedo");
    QMenu* go = menuBar()->addMenu(tr("&Go"));
    add(
        go, tr("&Logbook"), QKeySequence(Qt::ALT | Qt::Key_1), [this] { goTo(Page::logbook); }, "actionLogbook");
    add(
        go, tr("&Sheet"), QKeySequence(Qt::ALT | Qt::Key_2), [this] { goTo(Page::sheet); }, "actionSheet");
    add(
        go, tr("R&ack"), QKeySequence(Qt::ALT | Qt::Key_3), [this] { goTo(Page::rack); }, "actionRack");
    add(
        go, tr("&Plan"), QKeySequence(Qt::ALT | Qt::Key_4), [this] { goTo(Page::plan); }, "actionPlan");
    add(
        go, tr("&Bay"), QKeySequence(Qt::ALT | Qt::Key_5), [this] { goTo(Page::bay); }, "actionBay");
    add(
        go, tr("&Reading"), QKeySequence(Qt::ALT | Qt::Key_6), [this] { goTo(Page::reading); }, "actionReading");
    buildBayMenu();
    QMenu* view = menuBar()->addMenu(tr("&View"));
    add(view, tr("&Light or dark"), QKeySequence(Qt::CTRL | Qt::Key_D), &MainWindow::switchTheme, "actionTheme");
    auto* escape = new QAction(this);
    escape->setShortcut(Qt::Key_Escape);
    connect(escape, &QAction::triggered, m_messages, &MessageBar::clear);
    addAction(escape);
}

void MainWindow::wire() {
    connect(m_spine, &Spine::chosen, this, [this](int stage) { goTo(static_cast<Page>(stage)); });
    connect(m_logbookPage, &LogbookPage::openRequested, this, [this](const std::string& id) {
        if (m_session.openTest(id)) {
            const auto& test = m_session.test();
            const bool underWay =
                !test.sittings.empty() && m_session.takesShots() && bay::standOf(test).phase != bay::Phase::done;
            showPage(underWay                                                   ? Page::bay
                     : !test.shots.empty() && test.stage == record::Stage::test ? Page::reading
                     : test.stage == record::Stage::test                        ? Page::sheet
                                                                                : Page::rack);
        }
    });
    connect(m_logbookPage, &LogbookPage::testRequested, this, [this] { startTest(record::Stage::test); });
    connect(m_rackPage, &RackPage::shotsRequested, this, &MainWindow::askShots);
    connect(m_rackPage, &RackPage::testMade, this, [this] { showPage(Page::sheet); });
    connect(m_planPage->sealPanel(), &SealPanel::printRequested, this, &MainWindow::askPrint);
    connect(m_logbookPage, &LogbookPage::importRequested, this, &MainWindow::askImport);
    connect(m_logbookPage, &LogbookPage::logbookRequested, this, &MainWindow::askOpen);
    connect(m_bayPage, &BayPage::complained, this,
            [this](const QString& text) { m_messages->show(text, MessageBar::Tone::note); });
    connect(m_bayPage, &BayPage::readingRequested, this, [this] { goTo(Page::reading); });
    connect(m_bayPage, &BayPage::stateChanged, this, &MainWindow::refreshHeading);
    connect(&m_session, &Session::storageTroubled, this, &MainWindow::refreshHeading);
    connect(m_readingPage, &ReadingPage::keepRequested, this, &MainWindow::askKeep);
    connect(&m_session, &Session::refused, this,
            [this](const QString& text) { m_messages->show(text, MessageBar::Tone::fault); });
    connect(&m_session, &Session::noted, this,
            [this](const QString& text) { m_messages->show(text, MessageBar::Tone::note); });
    connect(&m_session, &Session::testChanged, this, &MainWindow::refreshHeading);
    connect(&m_session, &Session::declarationChanged, this, &MainWindow::refreshHeading);
    connect(&m_session, &Session::logbookChanged, this, &MainWindow::refreshHeading);
    connect(&m_session, &Session::readingChanged, this, &MainWindow::refreshHeading);
}

void MainWindow::showPage(Page page) {
    if (!m_session.hasTest() || (page == Page::reading && m_session.test().shots.empty()))
        page = page == Page::reading && m_session.hasTest() ? Page::plan : Page::logbook;
    m_pages->setCurrentIndex(static_cast<int>(page));
    m_spine->setCurrent(static_cast<int>(page));
    switch (page) {
    case Page::logbook:
        m_logbookPage->takeFocus();
        break;
    case Page::sheet:
        m_sheetPage->takeFocus();
        break;
    case Page::rack:
        m_rackPage->takeFocus();
        break;
    case Page::plan:
        m_planPage->takeFocus();
        break;
    case Page::bay:
        m_bayPage->enter();
        m_bayPage->takeFocus();
        break;
    case Page::reading:
        m_session.judgeIfStale();
        m_readingPage->takeFocus();
        break;
    }
    if (page == Page::logbook)
        m_session.listTestsIfStale();
    refreshHeading();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!m_session.readyToLeave())
        event->ignore();
}

// The user turns the page, and has read what was said.
void MainWindow::goTo(Page page) {
    m_messages->clear();
    showPage(page);
}

void MainWindow::startTest(record::Stage stage) {
    m_messages->clear();
    if (m_session.newTest(stage))
        showPage(stage == record::Stage::test ? Page::sheet : Page::rack);
}

void MainWindow::askShots() {
    if (!m_session.hasTest())
        return;
    const QString path = m_prompter->fileToOpen(this, tr("Add shots to this test"), shotFiles());
    if (!path.isEmpty())
        m_session.addShots(path, rememberedHeadings());
}

void MainWindow::askPrint(const QString& html) {
    QString path = m_prompter->fileToSave(this, tr("Print the order slip"), tr("Order slip.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty())
        return;
    if (!OrderSlip::print(html, path))
        m_messages->show(tr("%1 can't be written. Choose another place.").arg(path), MessageBar::Tone::fault);
}

void MainWindow::refreshHeading() {
    for (int stage = 1; stage <= 4; ++stage)
        m_spine->setReachable(stage, m_session.hasTest());
    m_spine->setReachable(5, m_session.hasTest() && !m_session.test().shots.empty());
    m_copy->setEnabled(m_session.hasTest() && !m_session.isSealed());
    m_addShots->setEnabled(m_session.hasTest());
    const bool onBay = m_pages->currentWidget() == m_bayPage;
    m_undo->setEnabled(onBay ? m_session.canUndoInBay() : m_session.canUndo());
    m_redo->setEnabled(onBay ? m_session.canRedoInBay() : m_session.canRedo());
    m_keep->setEnabled(m_session.hasTest() && (!m_session.isKept() || m_session.hasUnsaved()));
    refreshBayMenu();
    m_export->setEnabled(m_session.hasTest());
    const QWidget* page = m_pages->currentWidget();
    const bool onTest = page != m_logbookPage;
    const QString book = QFileInfo(m_session.logbookPath()).completeBaseName();
    if (onTest && m_session.hasTest()) {
        m_title->setText(QString::fromStdString(m_session.test().title));
        m_subtitle->setText(page == m_sheetPage  ? m_sheetPage->subtitle()
                            : page == m_rackPage ? m_rackPage->subtitle()
                            : page == m_planPage ? m_planPage->subtitle()
                            : page == m_bayPage  ? m_bayPage->subtitle()
                                                 : m_readingPage->subtitle());
    } else {
        m_title->setText(m_session.hasLogbook() ? book : tr("No logbook open"));
        m_subtitle->setText(m_session.hasLogbook()
                                ? QString::fromStdString(record::counted(m_session.tests().size(), "test"))
                                : tr("A logbook keeps tests, shots and readings in one file of yours."));
    }
    const QString name = onTest ? m_title->text() : book;
    setWindowTitle(name.isEmpty() ? tr("Knot Count") : tr("%1 – Knot Count").arg(name));
}

void MainWindow::openPath(const QString& path) {
    m_messages->clear();
    if (path.endsWith(QStringLiteral(".knotbook"), Qt::CaseInsensitive)) {
        if (m_session.openLogbook(path))
            showPage(Page::logbook);
    } else if (importShots(path)) {
        showPage(Page::reading);
    }
}

bool MainWindow::importShots(const QString& path) {
    files::HeadingMap known = rememberedHeadings();
    if (m_session.importShots(path, known))
        return true;
    if (!m_session.headingsUnknown())
        return false;
    const auto answer =
        m_prompter->matchHeadings(this, QFileInfo(path).fileName(), files::headingsOf(path.toStdString()), known);
    if (!answer)
        return false;
    m_messages->clear();
    for (const auto& [heading, column] : *answer)
        known[heading] = column;
    if (!m_session.importShots(path, known))
        return false;
    rememberHeadings(*answer);
    return true;
}

void MainWindow::askOpen() {
    if (const QString path = m_prompter->fileToOpen(this, tr("Open"), anyFile()); !path.isEmpty())
        openPath(path);
}

void MainWindow::askImport() {
    if (const QString path = m_prompter->fileToOpen(this, tr("Import shots"), shotFiles()); !path.isEmpty())
        openPath(path);
}

void MainWindow::askKeep() {
    if (!m_session.hasTest() || (m_session.isKept() && !m_session.hasUnsaved()))
        return;
    QString path = m_prompter->fileToSave(this, tr("Keep in a logbook"), tr("My shots.knotbook"), logbooks());
    if (path.isEmpty())
        return;
    if (!path.endsWith(QStringLiteral(".knotbook"), Qt::CaseInsensitive))
        path += QStringLiteral(".knotbook");
    m_messages->clear();
    m_session.keepIn(path);
}

void MainWindow::askExport() {
    if (!m_session.hasTest())
        return;
    const QString name = QString::fromStdString(m_session.test().title) + QStringLiteral(".csv");
    const QString path =
        m_prompter->fileToSave(this, tr("Export this test"), name, tr("Shots (*.csv);;Whole test (*.json)"));
    if (!path.isEmpty())
        m_session.exportShots(path);
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
    for (const QUrl& url : event->mimeData()->urls())
        openPath(url.toLocalFile());
}

} // namespace knot::app
