#pragma once

#include "core/judge/judge.h"

#include <QObject>
#include <QString>
#include <QTimer>

#include <atomic>
#include <memory>
#include <optional>

namespace knot::app {

/// Judges the test in hand in the background, on a case of its own; an answer that has been overtaken
/// is dropped. While somebody looks, what has changed is judged again by itself; else when somebody
/// does.
class Judging : public QObject {
    Q_OBJECT

public:
    explicit Judging(QObject* parent = nullptr);
    ~Judging() override;

    /// Judges this from now on.
    void judge(const record::Test& test);
    /// Shots have changed: what was read is not true any more. `test` is asked for when it is time.
    void markStale(std::function<const record::Test*()> test);
    /// Whether a reading is looked at.
    void setWatched(bool watched);
    /// Nothing is in hand.
    void forget();

    /// Nothing until the judge has spoken.
    const judge::Reading* reading() const { return m_reading ? &*m_reading : nullptr; }
    /// Why there will be no reading; empty where there is one or may be one.
    const QString& trouble() const { return m_trouble; }
    /// What was judged; goes with `reading`.
    const judge::Case& subject() const { return *m_subject; }

signals:
    void changed();

private:
    void judgeStale();

    std::optional<judge::Reading> m_reading;
    std::optional<judge::Case> m_subject;
    QString m_trouble;
    std::shared_ptr<std::atomic<int>> m_generation;
    std::function<const record::Test*()> m_stale;
    bool m_watched = false;
    QTimer m_soon; ///< shots come in handfuls
};

} // namespace knot::app
