#pragma once

#include "app/form/typed.h"
#include "app/support.h"
#include "core/bay/strike.h"

#include <QComboBox>
#include <QPushButton>
#include <catch2/catch.hpp>

namespace knot::test {

/// A person at the keys: types, tabs and presses, and never touches the mouse.
class Hands {
public:
    explicit Hands(Bench& bench)
        : m_bench(bench) {}

    /// How many keys were pressed so far.
    int keys() const { return m_keys; }
    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        ++m_keys;
        QTest::keyClick(where(), key, modifiers);
    }
    void type(const QString& text) {
        letters(text);
        app::Typed::commitAll(); // as if the field were left
    }
    /// Letters and nothing else, each where the one before has led.
    void letters(const QString& text) {
        for (const QChar c : text) {
            ++m_keys;
            QTest::keyClicks(where(), QString(c));
        }
    }
    void tabTo(const char* name) {
        for (int i = 0; i < 120; ++i) {
            if (QWidget* at = m_bench.window->focusWidget();
                at != nullptr && (at->objectName() == QLatin1String(name) ||
                                  at->objectName() == QLatin1String(name) + QStringLiteral("Edit")))
                return;
            press(Qt::Key_Tab);
        }
        FAIL("no way by Tab to " << name);
    }
    void fill(const char* name, const QString& text) {
        tabTo(name);
        press(Qt::Key_A, Qt::ControlModifier);
        type(text);
    }
    /// Into a chip of the sentence, and Enter.
    void say(const char* name, const QString& text) {
        tabTo(name);
        press(Qt::Key_A, Qt::ControlModifier);
        letters(text);
        press(text.isEmpty() ? Qt::Key_Delete : Qt::Key_Return);
        if (text.isEmpty())
            press(Qt::Key_Return);
    }
    void choose(const char* name, int index) {
        tabTo(name);
        auto* box = qobject_cast<QComboBox*>(m_bench.window->focusWidget());
        REQUIRE(box != nullptr);
        for (int i = 0; i < 40 && box->currentIndex() != index; ++i)
            press(box->currentIndex() < index ? Qt::Key_Down : Qt::Key_Up);
        CHECK(box->currentIndex() == index);
    }

private:
    QWidget* where() const {
        QWidget* at = m_bench.window->focusWidget();
        return at != nullptr ? at : m_bench.window.get();
    }
    Bench& m_bench;
    int m_keys = 0;
};

/// A shot as if typed: of a carry alone.
inline void hit(Bench& bench, double carry) {
    bay::Arrival arrival;
    arrival.readings.measure(record::Metric::carry, carry);
    REQUIRE(bench.session.bay().arrive({arrival}));
    QApplication::processEvents();
}

/// On the Rack: adds clubs of these names.
inline void addClubs(Hands& hands, const QStringList& names) {
    for (const QString& name : names) {
        hands.tabTo("newClub");
        hands.type(name);
        hands.press(Qt::Key_Return);
    }
}

/// Says on the slip that the words stand on paper.
inline void keepSeal(Bench& bench) {
    QTest::keyClick(bench.find<QPushButton>("keepSeal"), Qt::Key_Space);
    REQUIRE(eventually([&] { return bench.session.isSealed(); }));
}

/// From nothing to the question before a seal, by keyboard: an average of carry, 6 laps of 4. `way`: 0 with a helper, 1
/// alone.
inline void declareToSeal(Bench& bench, Hands& hands, const QStringList& clubs, int way) {
    hands.press(Qt::Key_N, Qt::ControlModifier);
    REQUIRE(bench.session.hasTest());
    hands.fill("question", "Which one holds my line?");
    hands.say("tested", "sh");
    hands.say("outcome2", "");
    hands.say("gap1", "3.5");
    hands.say("player", "Runa Veld");
    hands.press(Qt::Key_3, Qt::AltModifier);
    addClubs(hands, clubs);
    hands.press(Qt::Key_4, Qt::AltModifier);
    hands.press(Qt::Key_Right);
    hands.press(Qt::Key_Up);
    hands.say("grade", "fitter");
    hands.say("way", way == 1 ? "alone" : "helper");
    hands.tabTo("sealButton");
    hands.press(Qt::Key_Space);
}

/// From nothing to a test of a player alone, whose clubs carry their tags.
inline void putInBag(Bench& bench, Hands& hands, const QStringList& clubs) {
    declareToSeal(bench, hands, clubs, 1);
    hands.tabTo("sealYes");
    hands.press(Qt::Key_Space);
    REQUIRE(bench.session.isSealed());
}

/// From nothing to a test that a helper sealed. Gives the ten words; the slip is answered unless it is kept for the
/// test to do so.
inline QString declareSealed(Bench& bench, Hands& hands, const QStringList& clubs, bool keepsSlip = false) {
    declareToSeal(bench, hands, clubs, 0);
    QString words;
    QObject::connect(&bench.session.declaring(), &app::Declaring::sealReady, bench.window.get(),
                     [&words](const QString& told) { words = told; });
    hands.tabTo("sealYes");
    hands.press(Qt::Key_Space);
    REQUIRE(eventually([&] { return bench.find<QWidget>("orderSlip") != nullptr && !words.isEmpty(); }));
    QObject::disconnect(&bench.session.declaring(), &app::Declaring::sealReady, bench.window.get(), nullptr);
    CHECK_FALSE(bench.session.isSealed()); // the words come first
    if (!keepsSlip)
        keepSeal(bench);
    bench.window->activateWindow(); // the slip has a window of its own
    (void)QTest::qWaitForWindowActive(bench.window.get());
    return words;
}

} // namespace knot::test
