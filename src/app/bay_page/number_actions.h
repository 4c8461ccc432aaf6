#pragma once

#include "core/record/test.h"

#include <QObject>

#include <optional>
#include <vector>

namespace knot::app {

class BayActions;

/// The numbers that stand in the bay, and what they say between two shots: only what was seen.
class NumberActions : public QObject {
    Q_OBJECT

public:
    explicit NumberActions(BayActions& actions);

    /// Of a planned test those that it is judged by; else those chosen for the kind of club, or usual for it.
    const std::vector<record::Metric>& shown() const;
    /// Asks which, up to four; they stand for this kind of club from then on.
    void choose();
    /// The shot that came last, beside the others with its club.
    void explain();
    /// Before another club is taken: whether what was expected of this one was seen.
    void sayWhatWasExpected(const record::Test& before);

private:
    QString setting() const;

    BayActions& m_at;
    struct Shown { ///< what they were reckoned from, and what came of it
        std::size_t shots = 0;
        std::string test;
        record::Card card;
        std::vector<record::Metric> metrics;
    };
    mutable std::optional<Shown> m_shown;
};

} // namespace knot::app
