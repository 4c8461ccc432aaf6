#pragma once

#include "app/bay_page/situation.h"
#include "app/session/bay_run.h"
#include "app/session/test_in_hand.h"
#include "core/bay/lay.h"

#include <QElapsedTimer>
#include <QObject>

namespace knot::app {

class AskBar;

/// What is done in the bay, and what the bay remembers between two shots: which came last and when,
/// and whether the player rests. Questions go to the bar in place of the keys.
class BayActions : public QObject {
    Q_OBJECT

public:
    BayActions(const TestInHand& hand, BayRun& bay, AskBar& ask, QObject* parent = nullptr);

    /// Where the test stands now.
    Situation situation() const;
    /// Another test is in hand, or the page is entered.
    void begin();
    enum class News { shot, fewer, none };
    /// Shots have changed from a place on: whether one more came.
    News shotsChanged(std::size_t from);
    bool isResting() const { return m_resting.isValid(); }
    double secondsRested() const { return static_cast<double>(m_resting.elapsed()) / 1000; }
    /// A number is held back, or was a moment ago.
    bool waitsForNumber() const;

    void next();
    void stillLast();
    void nameTag(std::size_t place);
    void takeClub();
    /// Two of the clubs that were hit go into a fair test; which is asked where there are more.
    void fairTest();
    void callMishit();
    void setAsideSeen();
    void noReading();
    void strikeAt(double toe, double high);
    void undo() { m_bay.undo(); }
    void redo() { m_bay.redo(); }
    void rest();
    void word();
    void guess();
    void scoreFeel(std::size_t scale, int score);
    void wordFeel(const QString& text);
    void setConditions(const record::Conditions& conditions);
    void markClub() { mark(record::Mark::club); }
    void markPlayer() { mark(record::Mark::player); }
    void stopForToday();
    void newSitting();
    /// Keeps the shots of a device's file as they lie on the plan.
    void keepLaid(const bay::Laying& laying);
    // Changes of the plan, each noted as an amendment.
    void endStint();
    void leaveClubOut();
    void endHere();
    void anotherLap();

signals:
    /// A fair test of these clubs, by name.
    void fairTestRequested(const std::vector<std::string>& clubs);
    void complained(const QString& sentence);
    void readingRequested();
    /// A question stands where the keys were.
    void asking();
    /// What the page shows has changed though no shot did.
    void changed();

private:
    int secondsToNumber() const;
    void askReason(record::ShotId shot);
    void askOpponent(const QStringList& clubs, int first);
    void guessAtEnd(record::BuildAt build);
    void mark(record::Mark what);
    QStringList clubNames() const;

    const TestInHand& m_hand;
    BayRun& m_bay;
    AskBar& m_ask;
    record::ShotId m_last = record::ShotId::none; ///< the shot that came last
    std::size_t m_count = 0;                      ///< shots there were at the last look
    QElapsedTimer m_sinceLast;
    QElapsedTimer m_resting;
};

} // namespace knot::app
