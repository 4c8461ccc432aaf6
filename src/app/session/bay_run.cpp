#include "app/session/bay_run.h"

#include "app/session/declaring.h"
#include "app/session/moment.h"
#include "core/record/carry.h"
#include "core/record/roster.h"
#include "core/record/text/number_text.h"

#include <algorithm>

namespace knot::app {
namespace {

constexpr std::size_t mostSteps = 200;
constexpr qint64 clockSlack = 2000; // ms

std::vector<record::Shot> shotsFrom(const record::Test& test, std::size_t from) {
    return {test.shots.begin() + static_cast<std::ptrdiff_t>(std::min(from, test.shots.size())), test.shots.end()};
}

QString whyNotWords(bay::WhyNot why) {
    switch (why) {
    case bay::WhyNot::noSuchShot:
        return BayRun::tr("That shot is gone.");
    case bay::WhyNot::warmUp:
        return BayRun::tr("A warm-up swing never counts, so there is nothing to set aside.");
    case bay::WhyNot::sheetKeeps:
        return BayRun::tr("The sheet keeps every shot, so this one too. W puts a word to it.");
    case bay::WhyNot::seen:
        return BayRun::tr("Its number was seen, so nobody can call it any more; W puts a word to it.");
    case bay::WhyNot::alreadyThat:
    case bay::WhyNot::notByHand:
        break;
    }
    return {};
}

} // namespace

BayRun::BayRun(TestInHand& hand, Book& book, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_book(book) {
    m_retry.setInterval(2000);
    connect(&m_retry, &QTimer::timeout, this, &BayRun::saveAgain);
}

bool BayRun::takesShots() const {
    if (!m_hand.isKept())
        return false;
    const record::Test& test = m_hand.test();
    if (test.stage == record::Stage::test)
        return !test.builds.empty() && !test.turns.empty();
    return !record::Roster(test).left().empty();
}

bay::Tally& BayRun::tallyInHand() const {
    if (!m_tally)
        m_tally.emplace(m_hand.test());
    return *m_tally;
}

const bay::Tally& BayRun::tally() const {
    return tallyInHand();
}

const bay::Stand& BayRun::stand() const {
    if (!m_stand)
        m_stand = bay::standOf(m_hand.test(), tally());
    return *m_stand;
}

void BayRun::planChanged() {
    m_tally.reset();
    m_stand.reset();
}

QString BayRun::now() {
    QDateTime now = m_clock();
    if (m_lastNow.isValid()) {
        const QDateTime going = m_lastNow.addMSecs(m_sinceNow.isValid() ? m_sinceNow.elapsed() : 0);
        const bool back = now.msecsTo(going) > clockSlack;
        if (back && !m_clockWentBack)
            emit noted(tr("The computer's clock went back by %1 s. Shots keep their order; their times go on from "
                          "before.")
                           .arg(now.msecsTo(going) / 1000));
        m_clockWentBack = back;
        now = std::max(now, going);
    }
    m_lastNow = now;
    m_sinceNow.start();
    return momentText(now);
}

void BayRun::remember(Step step) {
    m_steps.push_back(std::move(step));
    if (m_steps.size() > mostSteps)
        m_steps.erase(m_steps.begin());
    m_undone.clear();
}

bool BayRun::arrive(std::vector<bay::Arrival> arrivals) {
    if (!takesShots())
        return false;
    if (arrivals.empty())
        return true;
    record::Test& test = m_hand.edit();
    const std::string present = now().toStdString();
    std::size_t from = test.shots.size();
    tallyInHand(); // of the shots that are there
    bool headChanged = false;
    if (bay::isAnotherVisit(test, present)) {
        bay::beginSitting(test, present);
        headChanged = true;
        emit noted(tr("The last shot is hours ago, so a new sitting begins."));
    }
    arrivals.front().called = arrivals.front().called || std::exchange(m_comingCalled, false);
    if (const auto call = std::exchange(m_comingCall, record::Call::none); arrivals.front().call == record::Call::none)
        arrivals.front().call = call;
    arrivals.front().callWords = std::exchange(m_comingWords, {});
    for (bay::Arrival& arrival : arrivals) {
        if (arrival.at.empty() || m_clockWentBack) {
            arrival.at = present;
            arrival.timed = false;
        }
        Step step{.what = tr("a shot"), .before = record::stateOf(test), .after = {}};
        const std::size_t floor = test.shots.size() - std::min(test.shots.size(), bay::reach);
        const auto tail = shotsFrom(test, floor);
        step.from = bay::addShot(test, arrival, tallyInHand());
        freezeIfStruck(test);
        step.after = record::stateOf(test);
        headChanged = headChanged || step.after != step.before;
        step.before.shots.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
        step.after.shots = shotsFrom(test, step.from);
        from = std::min(from, step.from);
        if (!arrival.readId.empty())
            m_waiting.push_back(arrival.readId);
        remember(std::move(step));
    }
    keep(from, headChanged);
    return true;
}

void BayRun::step(const QString& what, std::size_t mayTouch, const std::function<bay::From(record::Test&)>& edit) {
    if (!m_hand.isKept())
        return;
    record::Test& test = m_hand.edit();
    Step step{.what = what, .before = record::stateOf(test), .after = {}};
    const std::size_t amendments = test.amendments.size();
    const std::size_t floor = std::min(mayTouch, test.shots.size());
    const auto tail = shotsFrom(test, floor);
    step.from = std::min(std::max(edit(test), floor), floor + tail.size());
    record::nameByIds(test); // what was said of a club by its name
    freezeIfStruck(test);
    step.after = record::stateOf(test);
    step.amended = test.amendments.size() != amendments;
    const bool headChanged = step.amended || step.after != step.before;
    step.before.shots.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
    step.after.shots = shotsFrom(test, step.from);
    if (!headChanged && step.after.shots == step.before.shots)
        return;
    const std::size_t from = step.from;
    remember(std::move(step));
    keep(from, headChanged);
}

void BayRun::step(const QString& what, const std::function<void(record::Test&)>& edit) {
    step(what, m_hand.has() ? m_hand.test().shots.size() : 0, [&](record::Test& test) {
        edit(test);
        return test.shots.size();
    });
}

void BayRun::typed(const QString& what, const std::function<void(record::Test&)>& edit) {
    const std::size_t steps = m_steps.size();
    step(what, edit);
    if (m_steps.size() == steps + 1 && steps > 0 && m_steps[steps - 1].what == what) {
        m_steps[steps - 1].after = std::move(m_steps[steps].after);
        m_steps.pop_back();
    }
}

void BayRun::stepOn(const QString& what, record::ShotId shot, const std::function<void(record::Shot&)>& edit) {
    const auto at = m_hand.has() ? m_hand.test().shotIndex(shot) : std::nullopt;
    if (at)
        step(what, *at, [&](record::Test& test) {
            edit(test.shots[*at]);
            return std::size_t{*at};
        });
}

void BayRun::correct(const QString& what, const QString& history, const std::function<bay::From(record::Test&)>& edit) {
    const QString at = now();
    step(what, 0, [&](record::Test& test) {
        const auto before = test.shots;
        const bay::From from = edit(test);
        std::vector<record::Shot> was;
        for (std::size_t i = from; i < before.size() && test.shots.size() == before.size(); ++i)
            if (test.shots[i] != before[i])
                was.push_back(before[i]);
        if (!was.empty())
            amend(test, at, history, std::move(was));
        return from;
    });
}

void BayRun::changeStatus(const QString& what, record::ShotId shot, record::ShotStatus to, bay::Moment moment,
                          const QString& reason) {
    const auto at = m_hand.has() ? m_hand.test().shotIndex(shot) : std::nullopt;
    std::optional<bay::WhyNot> whyNot;
    if (!at)
        whyNot = bay::WhyNot::noSuchShot;
    else {
        const auto edit = [&](record::Test& test) {
            const auto changed = bay::changeStatus(test, shot, to, moment, reason.toStdString());
            if (!changed)
                whyNot = changed.error();
            return changed.value_or(test.shots.size());
        };
        // A late set-aside says so itself; what counts again late would not.
        if (to == record::ShotStatus::counted && moment != bay::Moment::beforeNumber)
            correct(what, tr("shot %1: counted after all").arg(*at + 1), edit);
        else
            step(what, *at, edit);
    }
    say(whyNot);
}

void BayRun::callShot(record::ShotId shot, record::Call call, bay::Moment moment, const std::string& words) {
    const auto at = m_hand.has() ? m_hand.test().shotIndex(shot) : std::nullopt;
    std::optional<bay::WhyNot> whyNot;
    if (at)
        step(tr("a call"), *at, [&](record::Test& test) {
            const auto called = bay::callShot(test, shot, call, moment, words);
            if (!called)
                whyNot = called.error();
            return called.value_or(test.shots.size());
        });
    say(whyNot);
}

void BayRun::callNothing() {
    m_comingCalled = false;
    m_comingCall = record::Call::none;
    m_comingWords.clear();
}

void BayRun::say(std::optional<bay::WhyNot> whyNot) {
    if (whyNot)
        if (const QString words = whyNotWords(*whyNot); !words.isEmpty())
            emit refused(words);
}

void BayRun::amend(record::Test& test, const QString& at, const QString& text, std::vector<record::Shot> was) {
    test.amendments.push_back({at.toStdString(), text.toStdString(), std::move(was)});
}

void BayRun::undo() {
    goThrough(m_steps, m_undone, Way::back);
}

void BayRun::redo() {
    goThrough(m_undone, m_steps, Way::forth);
}

// Only what a step did goes back and forth; what was declared meanwhile stands.
void BayRun::goThrough(std::vector<Step>& from, std::vector<Step>& to, Way way) {
    if (!m_hand.has() || from.empty())
        return;
    const Step& step = from.back();
    const record::Test& wanted = way == Way::forth ? step.after : step.before;
    record::Test next = m_hand.test();
    next.shots.resize(std::min(step.from, next.shots.size()));
    record::carry(next, way == Way::forth ? step.before : step.after, wanted);
    record::Test tail = wanted; // whose clubs may stand elsewhere by now
    record::reseat(tail, next.builds, next.players);
    next.shots.insert(next.shots.end(), tail.shots.begin(), tail.shots.end());
    if (record::pointsNowhere(next)) {
        emit refused(
            tr("A club of these shots is not among the clubs any more; Ctrl+Z on the Clubs page brings it back."));
        return;
    }
    if (step.before.turns != step.after.turns || step.amended)
        amend(next, now(), (way == Way::forth ? tr("%1 was done again") : tr("%1 was taken back")).arg(step.what));
    const std::size_t first = record::anyMoved(m_hand.test().builds, next.builds) ? 0 : step.from;
    to.push_back(std::move(from.back()));
    from.pop_back();
    m_hand.put(std::move(next));
    keep(first, true);
}

// Everything from the first shot that is not on disk goes there; what fails is tried again.
void BayRun::keep(std::size_t from, bool headChanged) {
    if (headChanged)
        m_tally.reset();
    else if (m_tally)
        m_tally->update(m_hand.test(), from);
    m_stand.reset();
    m_unsavedFrom = std::min(m_unsavedFrom.value_or(from), from);
    m_unsavedHead = m_unsavedHead || headChanged;
    saveAgain();
    emit changed(from);
}

bool BayRun::saveAgain() {
    if (!hasUnsaved())
        return true;
    const record::Test& test = m_hand.test();
    const std::size_t from = m_unsavedFrom.value_or(test.shots.size());
    if (const auto done = m_book.saveStruck(test, from, m_unsavedHead); !done) {
        troubled(done.error());
        return false;
    }
    const bool mended = !m_trouble.isEmpty();
    saved();
    if (mended)
        emit noted(tr("The disk works again; everything struck is kept."));
    return true;
}

void BayRun::saved() {
    m_unsavedFrom.reset();
    m_unsavedHead = false;
    m_retry.stop();
    if (!m_trouble.isEmpty()) {
        m_trouble.clear();
        emit storageTroubled({});
    }
    const auto readIds = std::exchange(m_waiting, {});
    emit kept(readIds);
}

void BayRun::keptElsewhere() {
    saved();
}

QString BayRun::unsavedWords() const {
    return unsavedShots() > 0 ? QString::fromStdString(record::counted(unsavedShots(), "shot"))
                              : tr("what was entered last");
}

void BayRun::troubled(const logbook::Error& error) {
    m_trouble = QString::fromStdString(logbook::sentence(error)) + QLatin1Char(' ') +
                tr("Not on disk: %1, kept in memory and tried again every two seconds.").arg(unsavedWords());
    emit storageTroubled(m_trouble);
    m_retry.start();
}

std::optional<bay::InHand> BayRun::inHand() const {
    return m_hand.has() ? bay::inHand(m_hand.test()) : std::nullopt;
}

bool BayRun::isOnDisk(record::ShotId shot) const {
    const auto at = m_hand.has() ? m_hand.test().shotIndex(shot) : std::nullopt;
    return at && (!m_unsavedFrom || *at < *m_unsavedFrom);
}

std::size_t BayRun::unsavedShots() const {
    if (!m_unsavedFrom || !m_hand.has())
        return 0;
    return m_hand.test().shots.size() - std::min(*m_unsavedFrom, m_hand.test().shots.size());
}

void BayRun::forget() {
    planChanged();
    m_steps.clear();
    m_undone.clear();
    m_unsavedFrom.reset();
    m_unsavedHead = false;
    m_waiting.clear();
    m_trouble.clear();
    m_retry.stop();
    m_lastNow = {};
    m_sinceNow.invalidate();
    m_clockWentBack = false;
    callNothing();
    if (!m_hand.has() || m_hand.test().shots.empty())
        return;
    // A clock that went back between two runs.
    const auto last =
        QDateTime::fromString(QString::fromStdString(m_hand.test().shots.back().takenAt.text()), Qt::ISODateWithMs);
    if (last.isValid() && last.secsTo(m_clock()) > -86400)
        m_lastNow = last;
}

} // namespace knot::app
