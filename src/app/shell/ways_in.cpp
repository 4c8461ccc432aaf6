#include "app/shell/ways_in.h"

#include "app/demo.h"
#include "app/import_page/import_page.h"
#include "app/session/session.h"
#include "app/start_page/lately.h"

#include <QApplication>
#include <QClipboard>

#include <algorithm>

namespace knot::app {

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

void WaysIn::takeUp(const QString& path) {
    if (path.endsWith(QStringLiteral(".json"), Qt::CaseInsensitive)) {
        if (m_session.importTest(path))
            emit pageRequested(PageId::reading);
    } else if (m_page.openFile(path)) {
        emit pageRequested(PageId::import);
    }
}

void WaysIn::paste() {
    const QString text = QApplication::clipboard()->text();
    emit cleared();
    if (!text.trimmed().isEmpty() && m_page.openText(text))
        emit pageRequested(PageId::import);
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
    finish(m_session.takeImported(m_page.forKeeping()), PageId::reading);
}

void WaysIn::keepAsSitting() {
    auto imported = m_page.forKeeping();
    imported.test.stage = record::Stage::openSitting;
    finish(m_session.takeImported(std::move(imported)), PageId::rack);
}

void WaysIn::addToTest() {
    finish(putIntoTest(), PageId::reading);
}

bool WaysIn::putIntoTest() {
    auto from = m_page.forKeeping().test;
    for (auto& shot : from.shots)
        if (shot.sitting.empty() && !m_session.test().shots.empty())
            shot.sitting = from.title;
    return m_session.addShots(from);
}

void WaysIn::lay() {
    m_page.remember();
    emit pageRequested(PageId::bay);
    emit layRequested(m_page.path());
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
    const auto now = latelyOf(m_session.book().path(), test, m_session.judging().reading(), m_session.book().units());
    rememberLately(now);
    if (test.shots.empty())
        return; // the list says so by itself
    const auto struck =
        std::ranges::count_if(test.shots, [](const auto& shot) { return shot.status != record::ShotStatus::warmUp; });
    m_session.book().keepFinding(
        test.id, {.verdict = now.verdict, .text = now.said.toStdString(), .shots = static_cast<std::size_t>(struck)});
}

} // namespace knot::app
