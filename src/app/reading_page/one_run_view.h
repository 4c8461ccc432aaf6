#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"
#include "core/words/averages.h"

#include <QScrollArea>

class QLabel;
class QPushButton;

namespace knot::app {

class BetRows;

/// One run with each club: that nothing in it is a finding, what to expect of each club all the same, whether the
/// swing looked alike, and the test that would make it a finding.
class OneRunView : public QScrollArea {
    Q_OBJECT

public:
    explicit OneRunView(QWidget* parent = nullptr);
    void setRun(const std::optional<words::OneRun>& run, const judge::Reading* reading,
                const record::DisplayUnits& units);

signals:
    void fairTestRequested(const std::vector<std::string>& clubs);

private:
    QLabel* m_opening = nullptr;
    QLabel* m_heading = nullptr;
    BetRows* m_bets = nullptr;
    QLabel* m_allowed = nullptr;
    QLabel* m_swing = nullptr;
    QLabel* m_test = nullptr;
    QPushButton* m_fairTest = nullptr;
    std::vector<std::string> m_pair;
};

} // namespace knot::app
