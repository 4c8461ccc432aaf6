#pragma once

#include "app/support.h"

#include <QComboBox>
#include <catch2/catch.hpp>

namespace knot::test {

/// A person at the keys: types, tabs and presses, and never touches the mouse.
class Hands {
public:
    explicit Hands(Bench& bench)
        : m_bench(bench) {}

    void press(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QTest::keyClick(where(), key, modifiers);
    }
    void type(const QString& text) { QTest::keyClicks(where(), text); }
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
};

/// On the Rack: adds clubs of these names.
inline void addClubs(Hands& hands, const QStringList& names) {
    for (const QString& name : names) {
        hands.tabTo("clubs");
        hands.press(Qt::Key_A);
        hands.press(Qt::Key_A, Qt::ControlModifier);
        hands.type(name);
        hands.press(Qt::Key_Return);
    }
}

} // namespace knot::test
