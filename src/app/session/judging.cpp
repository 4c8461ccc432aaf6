#include "app/session/judging.h"

#include "app/session/background.h"

namespace knot::app {

Judging::Judging(QObject* parent)
    : QObject(parent)
    , m_generation(std::make_shared<std::atomic<int>>(0))
    , m_lifting(std::make_shared<std::atomic<int>>(0)) {
    m_soon.setSingleShot(true);
    m_soon.setInterval(300);
    connect(&m_soon, &QTimer::timeout, this, &Judging::judgeStale);
}

Judging::~Judging() {
    ++*m_generation;
    ++*m_lifting;
}

void Judging::judge(const record::Test& test) {
    m_stale = nullptr;
    m_soon.stop();
    const int mine = ++*m_generation;
    auto latest = m_generation;
    auto snapshot = std::make_shared<const record::Test>(test);
    struct Answer {
        std::optional<judge::Case> subject;
        std::optional<judge::Reading> reading;
        std::optional<judge::Withheld> withheld;
        std::string fault;
    };
    inBackground(
        this,
        [snapshot, latest, mine, earlier = m_earlier] {
            try {
                const auto subject = judge::Case::of(*snapshot);
                if (const auto withheld = judge::withheld(*snapshot))
                    return Answer{subject, {}, withheld, {}};
                return Answer{subject,
                              judge::judge({.subject = subject,
                                            .seed = 1,
                                            .earlier = earlier,
                                            .cancelled = [latest, mine] { return *latest != mine; }}),
                              {},
                              {}};
            } catch (const std::exception& fault) {
                return Answer{{}, {}, {}, fault.what()};
            }
        },
        [this, latest, mine](std::optional<Answer> given) {
            if (mine != *latest || !given)
                return;
            Answer& answer = *given;
            m_reading = std::move(answer.reading);
            m_withheld = answer.withheld;
            m_trouble = answer.fault.empty() ? QString()
                                             : tr("These shots can't be judged (%1). They are kept; export them as CSV "
                                                  "to look at the numbers.")
                                                   .arg(QString::fromStdString(answer.fault));
            m_subject = std::move(answer.subject);
            emit changed();
        });
}

void Judging::judgeWithout(std::optional<std::size_t> shot) {
    const int mine = ++*m_lifting;
    auto latest = m_lifting;
    m_without.reset();
    emit withoutChanged();
    if (!shot || !m_subject || *shot >= m_subject->seen().shots.size())
        return;
    record::Test test = m_subject->seen();
    test.shots[*shot].status = record::ShotStatus::warmUp; // it was struck, and nothing is judged by it
    for (record::Shot& struck : test.shots) // clubs that were changed are clubs of their own there already
        struck.mark = struck.mark == record::Mark::club ? record::Mark::none : struck.mark;
    inBackground(
        this,
        [test = std::move(test), latest, mine, earlier = m_earlier] {
            return judge::judge(
                {.subject = judge::Case::of(test), .seed = 1, .earlier = earlier, .cancelled = [latest, mine] {
                     return *latest != mine;
                 }});
        },
        [this, latest, mine](std::optional<std::optional<judge::Reading>> reading) {
            if (mine != *latest)
                return;
            m_without = std::move(reading).value_or(std::nullopt);
            emit withoutChanged();
        });
}

void Judging::markStale(std::function<const record::Test*()> test) {
    ++*m_generation; // a judge at work judges an older test
    m_reading.reset();
    m_withheld.reset();
    judgeWithout(std::nullopt);
    m_trouble.clear();
    m_stale = std::move(test);
    if (m_watched)
        m_soon.start();
}

void Judging::setWatched(bool watched) {
    m_watched = watched;
    if (watched)
        judgeStale();
}

void Judging::judgeStale() {
    if (m_stale)
        if (const record::Test* test = m_stale())
            judge(*test);
}

void Judging::forget() {
    ++*m_generation;
    m_reading.reset();
    m_withheld.reset();
    judgeWithout(std::nullopt);
    m_trouble.clear();
    m_subject.reset();
    m_earlier = {};
    m_stale = nullptr;
    m_soon.stop();
}

} // namespace knot::app
