#pragma once

#include "app/form/panel.h"
#include "core/record/player.h"
#include "core/record/units.h"

#include <string>

namespace knot::app {

class Book;
class TestInHand;

/// What is known of who hits, as far as this test needs it, and the way to all of it.
class PlayerCard : public Panel {
    Q_OBJECT

public:
    PlayerCard(const TestInHand& hand, const Book& book);
    void refresh();

signals:
    /// The page about a player, by id.
    void aboutRequested(const std::string& id);

private:
    const TestInHand& m_hand;
    const Book& m_book;
    QLabel* m_name;
    QLabel* m_about;
    QLabel* m_note;
};

/// What is known of a player, in a line: "left-handed, driver 41.5 m/s, low fade, misses high and left".
QString aboutPlayer(const record::Player& player, const record::DisplayUnits& units);

} // namespace knot::app
