#include "app/session/bay_run.h"

#include "app/session/declaring.h"
#include "app/session/moment.h"
#include "core/record/text/number_text.h"

#include <algorithm>

namespace knot::app {
namespace {

constexpr std::size_t mostSteps = 200;
constexpr qint64 clockSlack = 2000; // ms

// What is left of a test without its shots; cheap while the shots are away.
record::Test headOf(record::Test& test) {
    std::vector<record::Shot> shots;
    shots.swap(test.shots);
    record::Test head = test;
    shots.swap(test.shots);
    return head;
}

std::vector<record::Shot> shotsFrom(const record::Test& test, std::size_t from) {
    return {test.shots.begin() + static_cast<std::ptrdiff_t>(std::min(from, test.shots.size())), test.shots.end()};
}

// Only what the bay changes goes back and forth; what was declared meanwhile stands. Clubs that the bay
// took in stay where a shot is of them.
void restoreBay(record::Test& test, const record::Test& head) {
    test.plan.turns = head.plan.turns;
    test.feels = head.feels;
    test.guesses = head.guesses;
    test.events = head.events;
    test.sittings = head.sittings;
    test.progress = head.progress;
    test.frozenAt = head.frozenAt;
    test.frozenHash = head.frozenHash;
}

// Clubs that a step put on the rack go with it and come again, and so does what it said of others; what the rack
// said of clubs since is not the bay's.
void restoreClubs(record::Test& test, const record::Test& now, const record::Test& wanted) {
    if (test.builds.size() != now.builds.size())
        return;
    const std::size_t fewer = std::min(now.builds.size(), wanted.builds.size());
    for (std::size_t i = 0; i < fewer; ++i)
        if (test.builds[i] == now.builds[i])
            test.builds[i] = wanted.builds[i];
    test.builds.resize(fewer);
    test.builds.insert(test.builds.end(), wanted.builds.begin() + static_cast<std::ptrdiff_t>(fewer),
                       wanted.builds.end());
}

// The same for players.
void restorePlayers(record::Test& test, const record::Test& now, const record::Test& wanted) {
    if (now.players.size() != wanted.players.size() && test.players.size() == now.players.size())
        test.players = wanted.players;
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
        return !test.builds.empty() && !test.plan.turns.empty();
    return std::ranges::any_of(test.builds, [](const record::Build& build) { return build.struckOff.empty(); });
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
    for (bay::Arrival& arrival : arrivals) {
        if (arrival.at.empty() || m_clockWentBack) {
            arrival.at = present;
            arrival.timed = false;
        }
        Step step{.what = tr("a shot"), .before = headOf(test), .after = {}, .shotsBefore = {}, .shotsAfter = {}};
        const std::size_t floor = test.shots.size() - std::min(test.shots.size(), bay::reach);
        const auto tail = shotsFrom(test, floor);
        step.from = bay::addShot(test, arrival, tallyInHand());
        freezeIfStruck(test);
        step.shotsBefore.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
        step.shotsAfter = shotsFrom(test, step.from);
        step.after = headOf(test);
        headChanged = headChanged || step.after != step.before;
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
    Step step{.what = what, .before = headOf(test), .after = {}, .shotsBefore = {}, .shotsAfter = {}};
    const std::size_t floor = std::min(mayTouch, test.shots.size());
    const auto tail = shotsFrom(test, floor);
    step.from = std::min(std::max(edit(test), floor), floor + tail.size());
    freezeIfStruck(test);
    step.after = headOf(test);
    step.shotsBefore.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
    step.shotsAfter = shotsFrom(test, step.from);
    const bool headChanged = step.after != step.before;
    if (!headChanged && step.shotsAfter == step.shotsBefore)
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

void BayRun::callShot(record::ShotId shot, record::Call call, bay::Moment moment) {
    const auto at = m_hand.has() ? m_hand.test().shotIndex(shot) : std::nullopt;
    std::optional<bay::WhyNot> whyNot;
    if (at)
        step(tr("a call"), *at, [&](record::Test& test) {
            const auto called = bay::callShot(test, shot, call, moment);
            if (!called)
                whyNot = called.error();
            return called.value_or(test.shots.size());
        });
    say(whyNot);
}

void BayRun::callNothing() {
    m_comingCalled = false;
    m_comingCall = record::Call::none;
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

void BayRun::goThrough(std::vector<Step>& from, std::vector<Step>& to, Way way) {
    if (!m_hand.has() || from.empty())
        return;
    to.push_back(std::move(from.back()));
    from.pop_back();
    const Step& step = to.back();
    record::Test& test = m_hand.edit();
    restoreBay(test, way == Way::forth ? step.after : step.before);
    way == Way::forth ? restoreClubs(test, step.before, step.after) : restoreClubs(test, step.after, step.before);
    way == Way::forth ? restorePlayers(test, step.before, step.after) : restorePlayers(test, step.after, step.before);
    const auto& shots = way == Way::forth ? step.shotsAfter : step.shotsBefore;
    test.shots.resize(std::min(step.from, test.shots.size()));
    test.shots.insert(test.shots.end(), shots.begin(), shots.end());
    if (step.before.plan.turns != step.after.plan.turns || step.before.amendments != step.after.amendments)
        amend(test, now(), (way == Way::forth ? tr("%1 was done again") : tr("%1 was taken back")).arg(step.what));
    keep(step.from, true);
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
        QDateTime::fromString(QString::fromStdString(m_hand.test().shots.back().takenAt), Qt::ISODateWithMs);
    if (last.isValid() && last.secsTo(m_clock()) > -86400)
        m_lastNow = last;
}

} // namespace knot::app
