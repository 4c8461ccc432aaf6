#pragma once

namespace knot::record {
struct Test;
}

namespace knot::app {

class Book;
class TestInHand;

/// Keeps the test in hand where it is not kept yet: in the logbook that is open, else in one of one's own, and says
/// where. False where that can't be; the book says why.
bool keepByItself(TestInHand& hand, Book& book);

/// Who is in a test becomes who the logbook has.
void takeKeptPlayers(record::Test& test, Book& book);

} // namespace knot::app
