#pragma once

#include "app/session/book.h"
#include "app/session/test_in_hand.h"
#include "core/bay/strike.h"

#include <QDateTime>
#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

#include <functional>
#include <string>
#include <vector>

namespace knot::app {

/// The test in hand as it is struck: shots as they come, steps to undo, a clock that never goes back,
/// and a disk that may fail. What can't be written stays in memory and is tried again.
class BayRun : public QObject {
    Q_OBJECT

public:
    BayRun(TestInHand& hand, Book& book, QObject* parent = nullptr);

    /// Whether shots can be taken: a kept test with a plan, or a screening or an open sitting with a
    /// club that is in.
    bool takesShots() const;
    /// Where the test in hand stands.
    const bay::Stand& stand() const;
    /// What its shots add up to.
    const bay::Tally& tally() const;
    /// The plan or the sheet changed.
    void planChanged();
    /// The time that shots and events carry. Never goes back, also when the computer's clock does.
    QString now();
    void setClock(std::function<QDateTime()> clock) { m_clock = std::move(clock); }

    /// Takes shots as they come in, all of one batch in one transaction. False where no test takes
    /// shots: then none of them was taken. `kept` follows when they are on disk, at once or when a
    /// disk that failed is mended.
    bool arrive(std::vector<bay::Arrival> arrivals);
    /// The player calls the shot that is in the air a mishit, or takes that back; it travels with the
    /// next shot that arrives.
    void callComing(bool called) { m_comingCalled = called; }
    bool isComingCalled() const { return m_comingCalled; }
    /// The same for a call that counts: good, so-so or bad, and in words where they say more.
    void callComing(record::Call call, std::string words = {}) {
        m_comingCall = call;
        m_comingWords = std::move(words);
    }
    record::Call comingCall() const { return m_comingCall; }
    /// Nothing is in the air any more.
    void callNothing();
    /// Calls a shot that came, before its number shows; says why not.
    void callShot(record::ShotId shot, record::Call call, bay::Moment moment, const std::string& words = {});
    /// Changes shots or what the bay adds, as one step to undo. `edit` says from which shot on things
    /// changed (the number of shots where none did); it leaves shots before `mayTouch` as they are.
    void step(const QString& what, std::size_t mayTouch, const std::function<bay::From(record::Test&)>& edit);
    /// The same where no shot is changed.
    void step(const QString& what, const std::function<void(record::Test&)>& edit);
    /// The same for something that is typed: letters in a row are one step to undo.
    void typed(const QString& what, const std::function<void(record::Test&)>& edit);
    /// The same for one shot, wherever it has gone meanwhile; nothing where it is gone.
    void stepOn(const QString& what, record::ShotId shot, const std::function<void(record::Shot&)>& edit);
    /// What a shot would be struck with now.
    std::optional<bay::InHand> inHand() const;
    /// Sets a shot aside or counts it again; says why not.
    void changeStatus(const QString& what, record::ShotId shot, record::ShotStatus to, bay::Moment moment,
                      const QString& reason = {});
    /// The same for shots whose numbers were seen: noted in the record's history, with the shots as they were.
    void correct(const QString& what, const QString& history, const std::function<bay::From(record::Test&)>& edit);
    /// Notes a change of the plan, the card or of shots during the test.
    static void amend(record::Test& test, const QString& at, const QString& text, std::vector<record::Shot> was = {});

    bool canUndo() const { return !m_steps.empty(); }
    bool canRedo() const { return !m_undone.empty(); }
    void undo();
    void redo();

    bool isOnDisk(record::ShotId shot) const;
    /// Shots that are struck and not on disk, because it failed.
    std::size_t unsavedShots() const;
    bool hasUnsaved() const { return m_unsavedFrom.has_value() || m_unsavedHead; }
    /// Tries once more to keep what is not on disk; true once everything is.
    bool saveAgain();
    /// What is not on disk, in words.
    QString unsavedWords() const;
    /// Everything in hand was kept elsewhere.
    void keptElsewhere();
    /// Another test is in hand.
    void forget();
    /// A sentence for the user, from the page.
    void note(const QString& sentence) { emit noted(sentence); }

signals:
    /// Shots or what the bay adds have changed, from this shot on.
    void changed(std::size_t from);
    /// These shots are on disk, by the names that their sources gave them.
    void kept(const std::vector<std::string>& readIds);
    /// The disk fails; what is struck stays in memory. Empty when it is mended.
    void storageTroubled(const QString& sentence);
    void refused(const QString& sentence);
    void noted(const QString& sentence);

private:
    struct Step {
        QString what;
        record::Test before, after; ///< states, with the shots from `from` on
        std::size_t from = 0;
        bool amended = false; ///< the record says it
    };
    enum class Way { back, forth };
    void remember(Step step);
    void keep(std::size_t from, bool headChanged);
    void troubled(const logbook::Error& error);
    void goThrough(std::vector<Step>& from, std::vector<Step>& to, Way way);
    void saved();
    void say(std::optional<bay::WhyNot> whyNot);
    bay::Tally& tallyInHand() const;

    TestInHand& m_hand;
    Book& m_book;
    mutable std::optional<bay::Tally> m_tally;
    mutable std::optional<bay::Stand> m_stand;
    std::vector<Step> m_steps, m_undone;
    std::optional<std::size_t> m_unsavedFrom; ///< the first shot that is not on disk
    bool m_unsavedHead = false;
    std::vector<std::string> m_waiting; ///< names of shots that are not on disk
    QString m_trouble;
    QTimer m_retry;
    std::function<QDateTime()> m_clock = [] { return QDateTime::currentDateTime(); };
    QDateTime m_lastNow;
    QElapsedTimer m_sinceNow;
    bool m_clockWentBack = false;
    bool m_comingCalled = false;
    record::Call m_comingCall = record::Call::none;
    std::string m_comingWords; ///< that say more than the call
};

} // namespace knot::app
