#pragma once

#include <QLabel>
#include <QTimer>

namespace knot::app {

class Book;
class TestInHand;

/// Running averages by club, where the sheet lets them be seen: reckoned off the window's thread, when shots
/// have come and not while they do.
class AveragesLine : public QLabel {
    Q_OBJECT

public:
    AveragesLine(const TestInHand& hand, const Book& book);
    void soon() { m_soon.start(); }

private:
    void refresh();

    const TestInHand& m_hand;
    const Book& m_book;
    QTimer m_soon;
};

} // namespace knot::app
