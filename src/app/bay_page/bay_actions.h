#pragma once

#include "app/bay_page/situation.h"
#include "app/session/bay_run.h"
#include "app/session/test_in_hand.h"
#include "core/bay/lay.h"

#include <QElapsedTimer>
#include <QObject>

namespace knot::app {

class AskBar;
class Book;
class HandActions;
class NumberActions;
class SaidActions;

/// What is done in the bay, and what the bay remembers between two shots: which came last and when,
/// and whether the player rests. Questions go to the bar in place of the keys.
class BayActions : public QObject {
    Q_OBJECT

public:
    BayActions(const TestInHand& hand, BayRun& bay, AskBar& ask, Book& book, QObject* parent = nullptr);

    HandActions& hands() { return *m_hands; }
    SaidActions& said() { return *m_said; }
    const record::Test& test() const { return m_hand.test(); }
    Book& book() { return m_book; }
    NumberActions& numbers() { return *m_numbers; }
    BayRun& run() { return m_bay; }
    /// To put a question where the keys are.
    AskBar& ask();
    void say(const QString& sentence) { emit complained(sentence); }
    static QStringList usualReasons();
    /// Whether somebody has seen the number of the last shot.
    static bool isSeen(const Situation& now);

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
    void callMishit();
    void setAsideSeen();
    void noReading();
    void strikeAt(double toe, double high);
    void rest();
    void setConditions(const record::Conditions& conditions);
    void stopForToday();
    void newSitting();
    /// Keeps the shots of a device's file as they lie on the plan.
    void keepLaid(const bay::Laying& laying);
    // Changes of the plan, each noted as an amendment.
    void endStint();
    void leaveClubOut();
    void endHere();
    void anotherLap();
    /// Where clubs are struck off: who stays after the laps struck.
    void askWhoStays();

signals:
    /// A fair test of these clubs, by name.
    void fairTestRequested(const std::vector<std::string>& clubs);
    void complained(const QString& sentence);
    /// What the day is like is to be said.
    void conditionsRequested();
    void readingRequested();
    /// A question stands where the keys were.
    void asking();
    /// What the page shows has changed though no shot did.
    void changed();

private:
    void hurts(const QString& words);
    int secondsToNumber() const;

    const TestInHand& m_hand;
    BayRun& m_bay;
    AskBar& m_ask;
    HandActions* m_hands;
    SaidActions* m_said;
    NumberActions* m_numbers;
    Book& m_book;
    record::ShotId m_last = record::ShotId::none; ///< the shot that came last
    std::size_t m_count = 0;                      ///< shots there were at the last look
    QElapsedTimer m_sinceLast;
    QElapsedTimer m_resting;
};

} // namespace knot::app
