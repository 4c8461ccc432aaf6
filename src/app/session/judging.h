#pragma once

#include "core/judge/judge.h"
#include "core/judge/may_see.h"

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

    /// What earlier tests tell of the one in hand; for what is judged from now on.
    void setEarlier(judge::Earlier earlier) { m_earlier = std::move(earlier); }
    /// Judges this from now on.
    void judge(const record::Test& test);
    /// Shots have changed: what was read is not true any more. `test` is asked for when it is time.
    void markStale(std::function<const record::Test*()> test);
    /// Whether a reading is looked at.
    void setWatched(bool watched);
    /// Nothing is in hand.
    void forget();

    /// Nothing until the judge has spoken, and nothing while nobody may see it.
    const judge::Reading* reading() const { return m_reading ? &*m_reading : nullptr; }
    /// How far the plan is while nobody may see the reading; nothing where it may be seen or is not asked for yet.
    const std::optional<judge::Withheld>& withheld() const { return m_withheld; }
    /// Why there will be no reading; empty where there is one or may be one.
    const QString& trouble() const { return m_trouble; }
    /// Judges what is left without one shot of the case that is seen, beside the reading; nothing puts it back.
    void judgeWithout(std::optional<std::size_t> shot);
    /// The reading without that shot; nothing while none is left out or the judge has not spoken.
    const judge::Reading* without() const { return m_without ? &*m_without : nullptr; }
    /// What was judged; goes with `reading`.
    const judge::Case& subject() const { return *m_subject; }

signals:
    void changed();
    /// There is a reading without a shot, or none any more.
    void withoutChanged();

private:
    void judgeStale();

    std::optional<judge::Reading> m_reading, m_without;
    std::optional<judge::Case> m_subject;
    std::optional<judge::Withheld> m_withheld;
    QString m_trouble;
    judge::Earlier m_earlier;
    std::shared_ptr<std::atomic<int>> m_generation, m_lifting; ///< counts what is judged, and what is left out
    std::function<const record::Test*()> m_stale;
    bool m_watched = false;
    QTimer m_soon; ///< shots come in handfuls
};

} // namespace knot::app
