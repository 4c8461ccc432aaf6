#pragma once

#include "core/words/while_hitting.h"

#include <QLabel>
#include <QTimer>

namespace knot::app {

class Book;
class TestInHand;

/// Running averages by club, and the numbers of the club in hand, where the sheet lets them be seen: reckoned off the
/// window's thread, when shots have come and not while they do.
class AveragesLine : public QLabel {
    Q_OBJECT

public:
    AveragesLine(const TestInHand& hand, const Book& book);
    void soon() { m_soon.start(); }
    /// The numbers of the club in hand, as far as they were reckoned and may be seen.
    const std::vector<words::NumberSoFar>& soFar() const { return m_soFar; }
    void forget();

signals:
    void reckoned();

private:
    void refresh();

    const TestInHand& m_hand;
    const Book& m_book;
    QTimer m_soon;
    std::vector<words::NumberSoFar> m_soFar;
};

} // namespace knot::app
