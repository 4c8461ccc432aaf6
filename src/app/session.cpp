#include "app/session.h"

#include "core/plan/seal.h"
#include "core/record/structure.h"
#include "files/csv_writer.h"
#include "files/test_json.h"

#include <QDateTime>
#include <QFileInfo>
#include <QFutureWatcher>
#include <QLockFile>
#include <QtConcurrent>

#include <algorithm>

namespace knot::app {

Session::Session(QObject* parent)
    : QObject(parent)
    , m_generation(std::make_shared<std::atomic<int>>(0)) {
    m_retry.setInterval(2000);
    connect(&m_retry, &QTimer::timeout, this, &Session::saveAgain);
}

Session::~Session() {
    ++*m_generation;
}

QString Session::logbookPath() const {
    return m_logbook ? QString::fromStdString(m_logbook->path()) : QString();
}

// One program at a time; the lock of one that was killed is taken over.
bool Session::lock(const QString& path) {
    if (m_logbook && QFileInfo(path) == QFileInfo(logbookPath()))
        return true;
    auto taken = std::make_unique<QLockFile>(path + QStringLiteral(".lock"));
    taken->setStaleLockTime(0);
    if (!taken->tryLock() && taken->error() == QLockFile::LockFailedError) {
        qint64 process = 0;
        QString host;
        QString program;
        taken->getLockInfo(&process, &host, &program);
        emit refused(tr("%1 is open in another Knot Count (process %2). Close it there first.").arg(path).arg(process));
        return false;
    }
    m_lock = std::move(taken);
    return true;
}

bool Session::openLogbook(const QString& path) {
    if (!mayLeave())
        return false;
    if (QFileInfo::exists(path) && !lock(path))
        return false;
    auto book = logbook::Logbook::open(path.toStdString());
    if (!ok(book))
        return false;
    m_logbook.emplace(std::move(*book));
    if (auto units = m_logbook->units(); ok(units))
        m_units = *units;
    m_test.reset();
    m_reading.reset();
    forgetBay();
    ++*m_generation;
    listTests();
    emit unitsChanged();
    emit testChanged();
    return true;
}

void Session::listTestsIfStale() {
    if (m_listStale)
        listTests();
}

void Session::listTests() {
    m_listStale = false;
    if (!m_logbook)
        return; // a test in hand that is not kept yet
    auto tests = m_logbook->tests();
    if (ok(tests))
        m_tests = std::move(*tests);
    emit logbookChanged();
}

bool Session::importShots(const QString& path, const files::HeadingMap& headings) {
    if (!mayLeave())
        return false;
    const std::string name = path.toStdString();
    auto imported = path.endsWith(QStringLiteral(".json"), Qt::CaseInsensitive)
                        ? files::readTestFile(name)
                        : files::readShotFile(name, {.headings = headings});
    m_headingsUnknown = !imported && files::isAboutHeadings(imported.error().kind);
    if (!imported) {
        emit refused(QString::fromStdString(files::sentence(imported.error())));
        return false;
    }
    record::Test test = std::move(imported->test);
    if (test.createdAt.empty())
        test.createdAt = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    if (!keepAndUse(std::move(test)))
        return false;
    for (const auto& note : imported->notes)
        emit noted(QString::fromStdString(note));
    return true;
}

bool Session::openTest(const std::string& id) {
    if (!m_logbook || !mayLeave())
        return false;
    auto test = m_logbook->load(id);
    if (!ok(test))
        return false;
    useTest(std::move(*test));
    return true;
}

bool Session::keepIn(const QString& path) {
    if (!m_test || !lock(path))
        return false;
    const std::string name = path.toStdString();
    auto book = QFileInfo::exists(path) ? logbook::Logbook::open(name) : logbook::Logbook::create(name);
    if (!ok(book))
        return false;
    record::Test copy = *m_test;
    copy.id.clear();
    auto id = book->save(copy);
    if (!ok(id) || !ok(book->setUnits(m_units)))
        return false;
    m_logbook.emplace(std::move(*book));
    m_test->id = *id;
    if (hasUnsaved()) {
        m_unsavedFrom.reset();
        m_unsavedHead = false;
        m_retry.stop();
        emit storageTroubled({});
    }
    emit shotsKept();
    listTests();
    emit testChanged();
    return true;
}

bool Session::exportShots(const QString& path) {
    if (!m_test)
        return false;
    const bool json = path.endsWith(QStringLiteral(".json"), Qt::CaseInsensitive);
    auto written = files::writeFile(path.toStdString(), json ? files::testJson(*m_test) : files::shotCsv(*m_test));
    if (!written)
        emit refused(QString::fromStdString(files::sentence(written.error())));
    return written.has_value();
}

bool Session::removeTest(const std::string& id) {
    if (!ok(m_logbook->remove(id)))
        return false;
    if (m_test && m_test->id == id) {
        m_test.reset();
        m_reading.reset();
        ++*m_generation;
        emit testChanged();
    }
    listTests();
    return true;
}

void Session::setUnits(const record::DisplayUnits& units) {
    if (units == m_units)
        return;
    m_units = units;
    if (m_logbook)
        ok(m_logbook->setUnits(units));
    emit unitsChanged();
}

// Into the logbook where one is open, and in hand.
bool Session::keepAndUse(record::Test test) {
    if (m_logbook) {
        auto id = m_logbook->save(test);
        if (!ok(id))
            return false;
        test.id = *id;
        listTests();
    }
    useTest(std::move(test));
    return true;
}

void Session::useTest(record::Test test) {
    m_test = std::move(test);
    m_undo.clear();
    m_redo.clear();
    m_lastChange.clear();
    forgetBay();
    m_reading.reset();
    emit testChanged();
    judgeAgain();
}

void Session::changeCard(const QString& what, const std::function<void(record::Card&)>& edit) {
    change(what, [&](record::Test& test) { edit(test.card); });
}

void Session::setComparison(record::Comparison comparison) {
    changeCard(tr("the kind of comparison"), [=](record::Card& card) { card.comparison = comparison; });
}

void Session::setBaseline(std::size_t build) {
    if (!m_test || isSealed() || build >= m_test->builds.size() || build == m_test->baselineIndex())
        return;
    changeCard(tr("the baseline"), [&](record::Card& card) { card.baseline = m_test->builds[build].name; });
}

void Session::togglePrimary(const record::Outcome& outcome) {
    const auto& primary = m_test->card.primary;
    if (std::ranges::find(primary, outcome) == primary.end() && primary.size() >= 3) {
        emit refused(tr("Three outcomes can be declared at most; take one back first."));
        return;
    }
    changeCard(tr("the declared outcomes"), [&](record::Card& card) {
        if (const auto at = std::ranges::find(card.primary, outcome); at != card.primary.end())
            card.primary.erase(at);
        else
            card.primary.push_back(outcome);
    });
}

void Session::setMargin(record::Metric metric, double gap) {
    if (!(gap > 0)) {
        emit refused(tr("A worthwhile gap must be greater than 0; the old one stands."));
        return;
    }
    changeCard(tr("the worthwhile gap in %1").arg(QString::fromStdString(record::info(metric).label)),
               [=](record::Card& card) { card.margins[metric] = gap; });
}

void Session::setWant(const record::Outcome& outcome, record::Want::Kind kind) {
    changeCard(tr("the wanted direction"),
               [&](record::Card& card) { card.wants[outcome] = {.kind = kind, .value = 0}; });
}

void Session::judgeIfStale() {
    if (m_stale && m_test)
        judgeAgain();
}

void Session::judgeAgain() {
    m_stale = false;
    const int mine = ++*m_generation;
    auto snapshot =
        std::make_shared<const record::Test>(record::withSuccessors(plan::asSealed(bay::withoutUnnamed(*m_test))));
    auto latest = m_generation;
    using Answer = std::optional<judge::Reading>;
    auto* watcher = new QFutureWatcher<Answer>(this);
    connect(watcher, &QFutureWatcher<Answer>::finished, this, [this, watcher, mine, snapshot] {
        watcher->deleteLater();
        if (mine != *m_generation)
            return;
        m_reading = watcher->result();
        m_judged = snapshot;
        emit readingChanged();
    });
    watcher->setFuture(QtConcurrent::run([snapshot, latest, mine]() -> Answer {
        return judge::judge({.test = *snapshot, .seed = 1, .cancelled = [latest, mine] { return *latest != mine; }});
    }));
}

} // namespace knot::app
