#pragma once

#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/record/units.h"
#include "files/csv_headings.h"
#include "logbook/logbook.h"

#include <QDateTime>
#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <atomic>
#include <functional>
#include <memory>
#include <optional>

class QLockFile;

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
    /// True once everything struck is on disk; else says what to do.
    bool readyToLeave() { return mayLeave(); }

    /// A new test in the logbook, or in one of its own at `ownLogbookPath` when none is open.
    bool newTest(record::Stage stage);
    static QString ownLogbookPath();
    /// A new test with the declaration, the clubs and the plan of the one in hand, and no shots. Only
    /// the clubs named where `builds` is not empty.
    bool copyDeclaration(const std::vector<std::string>& builds = {});
    /// Adds the shots of a file to the test in hand; its clubs must be those of the test (tags while
    /// sealed), or are added to it while it is an open sitting or a screening.
    bool addShots(const QString& path, const files::HeadingMap& headings = {});
    bool addShot(std::size_t build, record::Metric metric, double value);

    /// Changes what is declared and keeps it. `what` names the thing in words ("the number of laps"):
    /// edits of one thing in a row are undone together, and after the first counted shot of a planned
    /// test each is kept as an amendment.
    void change(const QString& what, const std::function<void(record::Test&)>& edit);
    bool canUndo() const { return !m_undo.empty(); }
    bool canRedo() const { return !m_redo.empty(); }
    void undo();
    void redo();
    /// A test that was declared and has its first counted shot: changes are amendments.
    bool isFrozen() const { return m_test && !m_test->frozenHash.empty(); }
    bool isSealed() const { return m_test && m_test->seal.isClosed(); }
    /// Locks which tag is which; says why not when it can't be.
    bool seal(const QString& pin);
    /// Opens the seal for the slip alone: tag and build, nothing of the test changes.
    std::optional<std::vector<std::pair<std::string, std::string>>> peek(const QString& pin);
    bool reveal(const QString& pin);
    /// Where the PIN is lost: the clubs in the order of the tags, as the tags on them say.
    bool revealByHand(const QStringList& clubs);
    /// Parts of the logbook's clubs, to build others from.
    std::vector<record::Part> knownParts();
    QString setting(const char* key);
    void setSetting(const char* key, const QString& value);
    /// The tests of the player in hand, with their shots, for the planner.
    std::vector<record::Test> ownTests();

    // The bay (session_bay.cpp).
    /// Whether shots can be taken: a kept test with a plan, a screening or an open sitting.
    bool takesShots() const;
    /// The time that shots and events carry. Never goes back, also when the computer's clock does.
    QString bayNow();
    void setClock(std::function<QDateTime()> clock) { m_clock = std::move(clock); }
    /// Takes shots as they come in, all of one batch in one transaction. `shotsKept` follows when they
    /// are on disk, at once or when a disk that failed is mended.
    void arrive(std::vector<bay::Arrival> arrivals);
    /// Changes shots or what the bay adds, as one step to undo. `edit` says from which shot on things
    /// changed (the number of shots where none did); it leaves shots before `mayTouch` as they are.
    void inBay(const QString& what, std::size_t mayTouch, const std::function<bay::From(record::Test&)>& edit);
    /// The same where no shot is changed.
    void inBay(const QString& what, const std::function<void(record::Test&)>& edit);
    /// The same for something that is typed: letters in a row are one step to undo.
    void typeInBay(const QString& what, const std::function<void(record::Test&)>& edit);
    /// Notes a change of the plan or the card during the test.
    static void amend(record::Test& test, const QString& at, const QString& text);
    bool canUndoInBay() const { return !m_baySteps.empty(); }
    bool canRedoInBay() const { return !m_bayRedo.empty(); }
    void undoInBay();
    void redoInBay();
    /// Shots that are struck and not on disk, because it failed.
    std::size_t unsavedShots() const;
    bool hasUnsaved() const { return m_unsavedFrom.has_value() || m_unsavedHead; }
    /// Tries once more to keep what is not on disk.
    bool saveAgain();
    /// Judges what was struck since the last reading.
    void judgeIfStale();
    void listTestsIfStale();

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
    /// Shots or what the bay adds have changed, from this shot on.
    void bayChanged(std::size_t from);
    /// Everything struck is on disk.
    void shotsKept();
    /// The disk fails; what is struck stays in memory. Empty when it is mended.
    void storageTroubled(const QString& sentence);
    void logbookChanged();
    /// Another test is in hand.
    void testChanged();
    /// Something declared has changed in the test in hand.
    void declarationChanged();
    void readingChanged();
    void unitsChanged();
    /// A sentence for the user: something was refused or failed.
    void refused(const QString& sentence);
    /// A sentence for the user: something was done that does not show by itself.
    void noted(const QString& sentence);

private:
    template<typename T> bool ok(const logbook::Result<T>& result) {
        if (!result)
            emit refused(QString::fromStdString(logbook::sentence(result.error())));
        return result.has_value();
    }
    void useTest(record::Test test);
    bool keepAndUse(record::Test test);
    bool keepHead(record::Test changed);
    void step(std::vector<record::Test>& from, std::vector<record::Test>& to, const QString& noted);
    bool takeShots(const record::Test& from);
    bool showRevealed(record::Test test);
    struct BayStep {
        QString what;
        record::Test before, after; ///< heads, without shots
        std::size_t from = 0;
        std::vector<record::Shot> shotsBefore, shotsAfter; ///< from `from` on
    };
    bool lock(const QString& path);
    bool mayLeave();
    void keepBay(std::size_t from, bool headChanged);
    void troubled(const logbook::Error& error);
    QString unsavedWords() const;
    void stepInBay(std::vector<BayStep>& from, std::vector<BayStep>& to, bool forward);
    void goToStep(const BayStep& step, bool forward);
    void forgetBay();
    void freeze(record::Test& test) const;
    void changeCard(const QString& what, const std::function<void(record::Card&)>& edit);
    void judgeAgain();
    void listTests();

    std::optional<logbook::Logbook> m_logbook;
    std::vector<logbook::TestEntry> m_tests;
    std::optional<record::Test> m_test;
    std::optional<judge::Reading> m_reading;
    std::shared_ptr<const record::Test> m_judged;
    record::DisplayUnits m_units;
    bool m_headingsUnknown = false;
    std::vector<record::Test> m_undo, m_redo; ///< declarations, without shots
    QString m_lastChange;
    std::vector<BayStep> m_baySteps, m_bayRedo;
    std::optional<std::size_t> m_unsavedFrom; ///< the first shot that is not on disk
    bool m_unsavedHead = false;
    QString m_trouble;
    QTimer m_retry;
    bool m_stale = false, m_listStale = false;
    std::function<QDateTime()> m_clock = [] { return QDateTime::currentDateTime(); };
    QDateTime m_lastNow;
    QElapsedTimer m_sinceNow;
    bool m_clockWentBack = false;
    std::unique_ptr<QLockFile> m_lock;
    std::shared_ptr<std::atomic<int>> m_generation;
};

} // namespace knot::app
