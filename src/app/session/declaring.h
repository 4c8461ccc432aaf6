#pragma once

#include "app/session/book.h"
#include "app/session/test_in_hand.h"

#include <QObject>

#include <optional>

#include <functional>

namespace knot::app {

/// A tag and the club that it hides.
struct TagOfClub {
    std::string tag, club;
};

/// What is declared in the test in hand: edits with undo, amendments once it is frozen, the seal. Every
/// change is on disk when the call returns; one that could not be read back is refused.
class Declaring : public QObject {
    Q_OBJECT

public:
    Declaring(TestInHand& hand, Book& book, QObject* parent = nullptr);

    /// Changes what is declared and keeps it; the course follows. `what` names the thing in words ("the number of
    /// laps"): edits of one thing in a row are undone together, and after the first counted shot of a planned
    /// test each is kept as an amendment. False where it was refused or changed nothing.
    bool change(const QString& what, const std::function<void(record::Declared&)>& edit);
    /// Takes a club out; refused where shots, feels or guesses are of it.
    bool removeClub(record::BuildAt build);
    /// Strikes a club off, with the reason, or puts it back in; what was struck with it stays.
    bool strikeOff(record::BuildAt build, const QString& reason);
    /// Says which is preferred, taken for one's own, chosen by the numbers: once, and not taken back.
    void say(record::Said record::Choices::*what, record::BuildAt build);
    /// Somebody looks at comparisons before the plan is done; what was seen can't be taken back.
    void look();

    bool canUndo() const { return !m_undo.empty(); }
    bool canRedo() const { return !m_redo.empty(); }
    void undo();
    void redo();
    /// Another test is in hand: there is no way back into this one.
    void forget();

    void setComparison(record::Comparison comparison);
    void setBaseline(record::BuildAt build);
    /// Declares an outcome, or takes it back; says why not when there are three already.
    void togglePrimary(const record::Outcome& outcome);
    void setMargin(record::Metric metric, double gap);
    void setWant(const record::Outcome& outcome, record::Want::Kind kind);

    /// Locks which tag is which, in the background, with a new key that is told once (`sealReady`) and kept nowhere;
    /// says why not when it can't be. Nothing is sealed before its words were seen (`keepSeal`).
    void seal();
    /// The test as it will be sealed, while its words wait to be seen.
    const record::Test* sealInHand() const { return m_ready ? &m_ready->sealed : nullptr; }
    /// The words stand on paper: the seal is kept. False where the test is another one by now.
    bool keepSeal();
    /// The clubs stay open; the words are forgotten.
    void leaveOpen() { m_ready.reset(); }
    /// The tags go on without a key; the clubs keep the secret.
    bool putInBag();
    /// Opens the seal for the slip alone, and hands over what it hides; nothing of the test changes.
    void peek(const QString& key, const std::function<void(const std::vector<TagOfClub>&)>& then);
    void reveal(const QString& key);
    /// After a reveal by hand: compares what was named with what was sealed.
    void compareSeal(const QString& key);
    /// Where the slip is lost: the clubs in the order of the tags, as the tags on them say.
    bool revealByHand(const std::vector<std::string>& clubs);
    /// The test was changed and is in no logbook: that is tried at each change.
    bool hasUnkept() const;
    /// A key is being made from its words.
    bool isSealing() const { return m_sealing; }

    /// A sentence about a refusal, from a page.
    void refuse(const QString& sentence) { emit refused(sentence); }

signals:
    void changed();
    /// A seal is ready: the ten words of its key, which are told here alone, and what they hide.
    void sealReady(const QString& words, const std::vector<knot::app::TagOfClub>& tags);
    /// The seal is on disk.
    void sealed();
    /// The clubs are known now.
    void revealed();
    void refused(const QString& sentence);

private:
    /// A test as it was before a change and as it was after, without shots.
    struct Step {
        record::Test before, after;
        bool beforeTheFirstShot = false; ///< the course was made anew by it
    };
    bool put(record::Test test);
    void changedNow();
    bool keepInBook(const record::Test& test, bool clubsMoved);
    bool changeTest(const QString& what, const std::function<std::string(record::Test&)>& edit);
    std::string carry(record::Test& test, const Step& step, bool back) const;
    void go(std::vector<Step>& from, std::vector<Step>& to, bool back);
    bool mayBeSealed();
    bool close(record::Test test);
    bool show(record::Test test);
    template<typename Then> void openSeal(const QString& key, Then then);

    TestInHand& m_hand;
    Book& m_book;
    std::vector<Step> m_undo, m_redo;
    QString m_lastChange;
    struct Ready {
        record::Test open, sealed;
    };
    std::optional<Ready> m_ready;
    bool m_sealing = false;
    bool m_isUnkept = false;
};

/// Marks a declared test that has its first counted shot as frozen, with the hash of what was declared.
void freezeIfStruck(record::Test& test);

} // namespace knot::app
