#pragma once

#include "core/judge/judge.h"
#include "core/record/units.h"
#include "files/csv_headings.h"
#include "logbook/logbook.h"

#include <QObject>
#include <QString>

#include <atomic>
#include <memory>
#include <optional>

namespace knot::app {

/// What is open: the logbook, the test in hand and its reading. Pages watch it and change things
/// through it; every change to a kept test is on disk when the call returns. The judge works on a
/// copy in the background, and an answer that has been overtaken is dropped.
class Session : public QObject {
    Q_OBJECT

public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    bool openLogbook(const QString& path);
    /// Imports a shot file or an exported test: into the logbook when one is open, else it stays
    /// in hand unkept.
    bool importShots(const QString& path, const files::HeadingMap& headings = {});
    /// The last import was refused for what its headings mean, so that matching them may mend it.
    bool headingsUnknown() const { return m_headingsUnknown; }
    bool openTest(const std::string& id);
    /// Keeps the test in hand in the logbook at `path`, which is made if need be, and opens that.
    bool keepIn(const QString& path);
    bool exportShots(const QString& path);
    bool removeTest(const std::string& id);

    bool hasLogbook() const { return m_logbook.has_value(); }
    QString logbookPath() const;
    const std::vector<logbook::TestEntry>& tests() const { return m_tests; }
    bool hasTest() const { return m_test.has_value(); }
    const record::Test& test() const { return *m_test; }
    bool isKept() const { return m_test && !m_test->id.empty(); }
    /// Nothing while the judge is at work.
    const judge::Reading* reading() const { return m_reading ? &*m_reading : nullptr; }
    /// The test as it was judged: with successors of changed clubs. Goes with `reading`.
    const record::Test& judgedTest() const { return *m_judged; }
    const record::DisplayUnits& units() const { return m_units; }

    void setUnits(const record::DisplayUnits& units);
    void setComparison(record::Comparison comparison);
    void setBaseline(std::size_t build);
    /// Declares an outcome, or takes it back; says why not when there are three already.
    void togglePrimary(const record::Outcome& outcome);
    /// A gap that is not greater than 0 is refused and said.
    void setMargin(record::Metric metric, double gap);
    void setWant(const record::Outcome& outcome, record::Want::Kind kind);

signals:
    void logbookChanged();
    void testChanged();
    void readingChanged();
    void unitsChanged();
    /// A sentence for the user: something was refused or failed.
    void refused(const QString& sentence);
    /// A sentence for the user: something was done that does not show by itself.
    void noted(const QString& sentence);

private:
    template<typename T> bool ok(const logbook::Result<T>& result);
    void useTest(record::Test test);
    void changeCard(const record::Card& card);
    void judgeAgain();
    void listTests();

    std::optional<logbook::Logbook> m_logbook;
    std::vector<logbook::TestEntry> m_tests;
    std::optional<record::Test> m_test;
    std::optional<judge::Reading> m_reading;
    std::shared_ptr<const record::Test> m_judged;
    record::DisplayUnits m_units;
    bool m_headingsUnknown = false;
    std::shared_ptr<std::atomic<int>> m_generation;
};

} // namespace knot::app
