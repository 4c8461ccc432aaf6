#include "app/session.h"

#include "core/record/structure.h"
#include "files/csv_writer.h"
#include "files/test_json.h"

#include <QDateTime>
#include <QFileInfo>
#include <QFutureWatcher>
#include <QtConcurrent>

#include <algorithm>

namespace knot::app {

Session::Session(QObject* parent)
    : QObject(parent)
    , m_generation(std::make_shared<std::atomic<int>>(0)) {}

Session::~Session() {
    ++*m_generation;
}

template<typename T> bool Session::ok(const logbook::Result<T>& result) {
    if (!result)
        emit refused(QString::fromStdString(logbook::sentence(result.error())));
    return result.has_value();
}

QString Session::logbookPath() const {
    return m_logbook ? QString::fromStdString(m_logbook->path()) : QString();
}

bool Session::openLogbook(const QString& path) {
    auto book = logbook::Logbook::open(path.toStdString());
    if (!ok(book))
        return false;
    m_logbook.emplace(std::move(*book));
    if (auto units = m_logbook->units(); ok(units))
        m_units = *units;
    m_test.reset();
    m_reading.reset();
    ++*m_generation;
    listTests();
    emit unitsChanged();
    emit testChanged();
    return true;
}

void Session::listTests() {
    auto tests = m_logbook->tests();
    if (ok(tests))
        m_tests = std::move(*tests);
    emit logbookChanged();
}

bool Session::importShots(const QString& path, const files::HeadingMap& headings) {
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
    if (m_logbook) {
        auto id = m_logbook->save(test);
        if (!ok(id))
            return false;
        test.id = *id;
        listTests();
    }
    useTest(std::move(test));
    for (const auto& note : imported->notes)
        emit noted(QString::fromStdString(note));
    return true;
}

bool Session::openTest(const std::string& id) {
    auto test = m_logbook->load(id);
    if (!ok(test))
        return false;
    useTest(std::move(*test));
    return true;
}

bool Session::keepIn(const QString& path) {
    if (!m_test)
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

void Session::useTest(record::Test test) {
    m_test = std::move(test);
    m_reading.reset();
    emit testChanged();
    judgeAgain();
}

void Session::changeCard(const record::Card& card) {
    record::Test changed = *m_test;
    changed.card = card;
    if (isKept() && !ok(m_logbook->saveHead(changed)))
        return;
    m_test = std::move(changed);
    judgeAgain();
}

void Session::setComparison(record::Comparison comparison) {
    record::Card card = m_test->card;
    card.comparison = comparison;
    changeCard(card);
}

void Session::setBaseline(std::size_t build) {
    if (!m_test || build >= m_test->builds.size() || build == m_test->baselineIndex())
        return;
    record::Card card = m_test->card;
    card.baseline = m_test->builds[build].name;
    changeCard(card);
}

void Session::togglePrimary(const record::Outcome& outcome) {
    record::Card card = m_test->card;
    if (const auto at = std::ranges::find(card.primary, outcome); at != card.primary.end())
        card.primary.erase(at);
    else if (card.primary.size() < 3)
        card.primary.push_back(outcome);
    else {
        emit refused(tr("Three outcomes can be declared at most; take one back first."));
        return;
    }
    changeCard(card);
}

void Session::setMargin(record::Metric metric, double gap) {
    if (!(gap > 0)) {
        emit refused(tr("A worthwhile gap must be greater than 0; the old one stands."));
        return;
    }
    record::Card card = m_test->card;
    card.margins[metric] = gap;
    changeCard(card);
}

void Session::setWant(const record::Outcome& outcome, record::Want::Kind kind) {
    record::Card card = m_test->card;
    card.wants[outcome] = {.kind = kind, .value = 0};
    changeCard(card);
}

void Session::judgeAgain() {
    const int mine = ++*m_generation;
    auto snapshot = std::make_shared<const record::Test>(record::withSuccessors(*m_test));
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
