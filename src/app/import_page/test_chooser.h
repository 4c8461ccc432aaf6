#pragma once

#include "logbook/logbook.h"

#include <QDialog>

#include <string>
#include <vector>

namespace knot::app {

/// Asks which test shots are to be added to: typing searches, Enter takes the one in hand.
class TestChooser : public QDialog {
    Q_OBJECT

public:
    /// Those first that have all the clubs; `inHand` before all others. `clubs` may be without names.
    TestChooser(std::vector<logbook::TestEntry> tests, const std::vector<std::string>& clubs, const std::string& inHand,
                QWidget* parent);

signals:
    void chosen(const std::string& testId);
};

} // namespace knot::app
