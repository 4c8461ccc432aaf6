#pragma once

#include "app/session/bay_run.h"
#include "app/session/book.h"
#include "app/session/declaring.h"
#include "app/session/earlier_tests.h"
#include "app/session/findings.h"
#include "app/session/judging.h"
#include "app/session/test_in_hand.h"
#include "files/import/shot_file.h"

#include <QObject>
#include <QString>

#include <functional>
#include <vector>

namespace knot::app {

/// What is open: the logbook, the test in hand, what is declared of it, its run in the bay and its
/// reading. The parts are owned here, and here is the one place that changes the test in hand and
/// empties all of them.
class Session : public QObject {
    Q_OBJECT

public:
    explicit Session(QObject* parent = nullptr);

    const TestInHand& hand() const { return m_hand; }
    Book& book() { return m_book; }
    Declaring& declaring() { return m_declaring; }
    BayRun& bay() { return m_bay; }
    Judging& judging() { return m_judging; }
    const EarlierTests& earlier() const { return m_earlier; }
    Findings& findings() { return m_findings; }

    bool hasTest() const { return m_hand.has(); }
    const record::Test& test() const { return m_hand.test(); }
    bool isKept() const { return m_hand.isKept(); }
    bool isSealed() const { return m_hand.isSealed(); }
    bool isFrozen() const { return m_hand.isFrozen(); }

    bool openLogbook(const QString& path);
    bool openTest(const std::string& id);
    /// Imports an exported test into the logbook, or into one's own where none is open; one that stands there already
    /// is opened, the later version of the two.
    bool importTest(const QString& path);
    /// Takes what was read of a shot file in hand: into the logbook where one is open, else unkept until something is
    /// made of it.
    bool takeImported(files::ImportedTest imported);
    /// Keeps the test in hand in the logbook at `path`, which is made if need be, and opens that.
    bool keepIn(const QString& path);
    bool exportShots(const QString& path);
    /// Takes a test out of the logbook, or gives it another title; `undoListed` goes back, a deleted test comes
    /// back whole.
    bool removeTest(const std::string& id);
    bool renameTest(const std::string& id, const QString& title);
    /// Adds another logbook to the open one (`logbook::merge`), which `undoListed` takes back whole; nothing where that
    /// was refused.
    std::optional<logbook::Merged> addLogbook(const QString& path);
    bool canUndoListed() const { return !m_listed.empty() && m_listed.back().book == m_book.path(); }
    bool undoListed();

    /// A new test in the logbook, or in one of its own (ownLogbookPath) when none is open.
    bool newTest(record::Stage stage);
    /// A new test with the declaration, the clubs and the plan of the one in hand, and nothing of what
    /// was struck. Only the clubs named where `builds` is not empty; who comes from a screening just
    /// now is warm.
    /// A copy that follows is read together with this one.
    enum class Follows { nothing, sameOnAnotherDay, further };
    bool copyDeclaration(const std::vector<std::string>& builds = {}, Follows follows = Follows::nothing);
    /// The same, further, with one of its clubs and another one like it, to be adjusted on the Rack.
    bool copyToAdjust(const std::string& build);
    /// Adds shots to the test in hand; its clubs must be those of the test (tags while
    /// sealed), or are added to it while it is an open sitting or a screening.
    bool addShots(const record::Test& from);
    bool addShot(record::BuildAt build, record::Metric metric, double value);

    /// True once everything typed and struck is on disk; else says what to do.
    bool readyToLeave();

signals:
    /// A sentence for the user: something was refused or failed.
    void refused(const QString& sentence);
    /// A sentence for the user: something was done that does not show by itself.
    void noted(const QString& sentence);

private:
    void take(record::Test test);
    bool keepAndTake(record::Test test);
    bool handAnew();
    bool setTitle(const std::string& id, const std::string& title);
    void dropTest();
    void forgetAll();

    TestInHand m_hand;
    Book m_book;
    Declaring m_declaring;
    BayRun m_bay;
    Judging m_judging;
    EarlierTests m_earlier;
    Findings m_findings;
    struct ListStep {
        QString book; ///< the logbook that it was done in
        std::function<bool()> undo;
    };
    std::vector<ListStep> m_listed;
};

} // namespace knot::app
