#include "app/shell/ways_in.h"

#include "app/demo.h"
#include "app/import_page/import_page.h"
#include "app/import_page/test_chooser.h"
#include "app/lists/lately.h"
#include "app/session/own_chart.h"
#include "app/session/session.h"
#include "app/shell/versions_view.h"
#include "core/words/headline.h"
#include "files/base/file.h"
#include "files/test_json.h"
#include "files/window_chart.h"

#include <QApplication>
#include <QClipboard>
#include <QFileInfo>

#include <algorithm>

namespace knot::app {

namespace {

// JSON may hold a whole test, or shots alone.
bool holdsTest(const QString& path) {
    if (!path.endsWith(QStringLiteral(".json"), Qt::CaseInsensitive))
        return false;
    const auto bytes = files::readFile(path.toStdString());
    return !bytes || files::looksLikeTest(*bytes);
}

// Of a table, its headings alone: what is wanted by ball speed, and no shots.
bool holdsChart(const QString& path) {
    if (!path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive))
        return false;
    const auto bytes = files::readFile(path.toStdString());
    return bytes && files::looksLikeChart(*bytes);
}

} // namespace

WaysIn::WaysIn(Session& session, ImportPage& page, QObject* parent)
    : QObject(parent)
    , m_session(session)
    , m_page(page) {
    connect(&page, &ImportPage::refused, this, &WaysIn::complained);
    connect(&page, &ImportPage::changed, this, &WaysIn::cleared);
    connect(&page, &ImportPage::readRequested, this, &WaysIn::read);
    connect(&page, &ImportPage::sittingRequested, this, &WaysIn::keepAsSitting);
    connect(&page, &ImportPage::addRequested, this, &WaysIn::addToTest);
    connect(&page, &ImportPage::layRequested, this, &WaysIn::lay);
    connect(&session.hand(), &TestInHand::replaced, this, &WaysIn::rememberTest);
    connect(&session.judging(), &Judging::changed, this, &WaysIn::rememberTest);
}

void WaysIn::takeUp(const QStringList& paths) {
    QStringList shots;
    for (const QString& path : paths)
        if (QFileInfo(path).isDir()) {
            for (const std::string& file : files::shotFilesIn(path.toStdString()))
                shots << QString::fromStdString(file);
            if (shots.isEmpty())
                emit complained(tr("%1 is a folder without shot files.").arg(path));
        } else if (path.endsWith(QStringLiteral(".knotbook"), Qt::CaseInsensitive)) {
            if (m_session.openLogbook(path))
                emit pageRequested(PageId::logbook);
        } else if (holdsChart(path)) {
            takeChart(path);
        } else if (holdsTest(path)) {
            if (m_session.importTest(path))
                emit pageRequested(PageId::reading);
        } else {
            shots << path;
        }
    if (!shots.isEmpty() && m_page.openFiles(shots))
        emit pageRequested(PageId::import);
}

void WaysIn::takeChart(const QString& path) {
    const auto bytes = files::readFile(path.toStdString());
    const std::string name = QFileInfo(path).fileName().toStdString();
    auto chart = bytes ? files::readChart(name, *bytes) : tl::unexpected(bytes.error());
    if (!chart)
        return emit complained(QString::fromStdString(files::sentence(chart.error())));
    if (!m_session.book().isOpen() && !m_session.book().openOrMake(ownLogbookPath()))
        return;
    setOwnChart(m_session.book(), *chart);
    emit noted(
        tr("“%1” says from now on what is usual of launch, spin, height and descent, in the window picture and on "
           "the test sheet.")
            .arg(QString::fromStdString(name)));
}

void WaysIn::paste() {
    const QString text = QApplication::clipboard()->text();
    emit cleared();
    if (!text.trimmed().isEmpty() && m_page.openText(text))
        emit pageRequested(PageId::import);
}

void WaysIn::addLogbook(const QString& path, QWidget* window) {
    emit cleared();
    const auto merged = m_session.addLogbook(path);
    if (!merged || merged->conflicts.empty())
        return;
    auto* view = new VersionsView(window);
    for (const auto& conflict : merged->conflicts) {
        const auto here = m_session.book().peek(conflict.here);
        const auto there = m_session.book().peek(conflict.there);
        if (here && there)
            view->add(*here, *there);
    }
    view->show();
}

void WaysIn::add(const QString& path) {
    if (!m_page.openFile(path))
        return;
    if (m_page.asksNothing())
        putIntoTest(); // and the page in hand stays
    else
        emit pageRequested(PageId::import);
}

void WaysIn::read() {
    emit cleared();
    finish(m_session.takeImported(m_page.forKeeping()), PageId::reading);
}

void WaysIn::keepAsSitting() {
    emit cleared();
    auto imported = m_page.forKeeping();
    imported.test.stage = record::Stage::openSitting;
    finish(m_session.takeImported(std::move(imported)), PageId::rack);
}

// Which one is asked where the logbook has others than the one in hand.
void WaysIn::addToTest() {
    emit cleared();
    m_session.book().listIfStale();
    const auto& tests = m_session.book().tests();
    const std::string inHand = m_session.hasTest() ? m_session.test().id : std::string();
    if (m_session.hasTest() && std::ranges::all_of(tests, [&](const auto& entry) { return entry.id == inHand; }))
        return finish(putIntoTest(), PageId::reading);
    std::vector<std::string> clubs;
    for (const auto& build : m_page.imported()->test.builds)
        if (!build.name.empty())
            clubs.push_back(build.name);
    auto* chooser = new TestChooser(tests, clubs, inHand, m_page.window());
    connect(chooser, &TestChooser::chosen, this, [this, inHand](const std::string& id) {
        if (id == inHand || m_session.openTest(id))
            finish(putIntoTest(), PageId::reading);
    });
    chooser->open();
}

bool WaysIn::putIntoTest() {
    auto from = m_page.forKeeping().test;
    for (auto& shot : from.shots)
        if (shot.sitting.empty() && !m_session.test().shots.empty())
            shot.sitting = from.title;
    return m_session.addShots(from);
}

void WaysIn::lay() {
    emit cleared();
    m_page.remember();
    emit pageRequested(PageId::bay);
    emit layRequested(m_page.name(), m_page.forKeeping().test.shots);
}

void WaysIn::layFile(const QString& path) {
    if (!m_page.openFile(path))
        return;
    if (m_page.asksNothing())
        lay();
    else
        emit pageRequested(PageId::import);
}

void WaysIn::finish(bool done, PageId page) {
    if (!done)
        return;
    m_page.remember();
    emit pageRequested(page);
}

QString WaysIn::makeDemo() {
    if (auto made = ensureDemo(demoPath().toStdString()); !made) {
        emit complained(QString::fromStdString(logbook::sentence(made.error())));
        return {};
    }
    return demoPath();
}

void WaysIn::rememberTest() {
    if (!m_session.hasTest() || !m_session.isKept() || !m_session.book().isOpen())
        return;
    const auto& test = m_session.test();
    const auto standing = words::standingOf(test, m_session.judging().reading(), m_session.book().units());
    rememberLately({.path = m_session.book().path(),
                    .id = QString::fromStdString(test.id),
                    .title = QString::fromStdString(test.title),
                    .said = QString::fromStdString(standing.text),
                    .verdict = standing.verdict ? static_cast<int>(*standing.verdict) : -1});
    if (!m_session.bay().hasUnsaved())
        m_session.findings().keep(test, standing);
}

} // namespace knot::app
