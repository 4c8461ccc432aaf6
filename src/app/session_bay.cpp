// The part of the session that runs a test in the bay: shots as they come, steps to undo, a clock that
// never goes back, and a disk that may fail.
#include "app/session.h"

#include "core/record/number_text.h"

#include <algorithm>

namespace knot::app {
namespace {

constexpr std::size_t mostBaySteps = 200;
constexpr qint64 clockSlack = 2000; // ms

// What is left of a test without its shots; cheap while the shots are away.
record::Test headOf(record::Test& test) {
    std::vector<record::Shot> shots;
    shots.swap(test.shots);
    record::Test head = test;
    shots.swap(test.shots);
    return head;
}

template<typename Step> void remember(std::vector<Step>& steps, Step step) {
    steps.push_back(std::move(step));
    if (steps.size() > mostBaySteps)
        steps.erase(steps.begin());
}

// Only what the bay changes goes back and forth; what was declared meanwhile stands.
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

} // namespace

bool Session::takesShots() const {
    return isKept() && !m_test->builds.empty() && (m_test->stage != record::Stage::test || !m_test->plan.turns.empty());
}

QString Session::bayNow() {
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
    return now.toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss.zzz"));
}

void Session::arrive(std::vector<bay::Arrival> arrivals) {
    if (!takesShots() || arrivals.empty())
        return;
    const std::string now = bayNow().toStdString();
    std::size_t from = m_test->shots.size();
    bool headChanged = false;
    if (bay::isAnotherVisit(*m_test, now)) {
        bay::beginSitting(*m_test, now);
        headChanged = true;
        emit noted(tr("The last shot is hours ago, so a new sitting begins."));
    }
    for (bay::Arrival& arrival : arrivals) {
        if (arrival.at.empty() || m_clockWentBack)
            arrival.at = now;
        BayStep step{.what = tr("a shot"), .before = headOf(*m_test), .after = {}, .shotsBefore = {}, .shotsAfter = {}};
        const std::size_t size = m_test->shots.size();
        const std::size_t floor = size - std::min(size, bay::reach);
        const std::vector<record::Shot> tail(m_test->shots.begin() + static_cast<std::ptrdiff_t>(floor),
                                             m_test->shots.end());
        step.from = bay::addShot(*m_test, arrival);
        freeze(*m_test);
        step.shotsBefore.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
        step.shotsAfter.assign(m_test->shots.begin() + static_cast<std::ptrdiff_t>(step.from), m_test->shots.end());
        step.after = headOf(*m_test);
        headChanged = headChanged || step.after != step.before;
        from = std::min(from, step.from);
        remember(m_baySteps, std::move(step));
    }
    m_bayRedo.clear();
    keepBay(from, headChanged);
}

void Session::inBay(const QString& what, std::size_t mayTouch, const std::function<bay::From(record::Test&)>& edit) {
    if (!isKept())
        return;
    BayStep step{.what = what, .before = headOf(*m_test), .after = {}, .shotsBefore = {}, .shotsAfter = {}};
    const std::size_t floor = std::min(mayTouch, m_test->shots.size());
    const std::vector<record::Shot> tail(m_test->shots.begin() + static_cast<std::ptrdiff_t>(floor),
                                         m_test->shots.end());
    step.from = std::max(edit(*m_test), floor);
    freeze(*m_test);
    step.after = headOf(*m_test);
    step.from = std::min(step.from, floor + tail.size());
    step.shotsBefore.assign(tail.begin() + static_cast<std::ptrdiff_t>(step.from - floor), tail.end());
    step.shotsAfter.assign(m_test->shots.begin() +
                               static_cast<std::ptrdiff_t>(std::min(step.from, m_test->shots.size())),
                           m_test->shots.end());
    const bool headChanged = step.after != step.before;
    if (!headChanged && step.shotsAfter == step.shotsBefore)
        return;
    const std::size_t from = step.from;
    remember(m_baySteps, std::move(step));
    m_bayRedo.clear();
    keepBay(from, headChanged);
}

void Session::inBay(const QString& what, const std::function<void(record::Test&)>& edit) {
    inBay(what, m_test ? m_test->shots.size() : 0, [&](record::Test& test) {
        edit(test);
        return test.shots.size();
    });
}

void Session::typeInBay(const QString& what, const std::function<void(record::Test&)>& edit) {
    const std::size_t steps = m_baySteps.size();
    inBay(what, edit);
    if (m_baySteps.size() == steps + 1 && steps > 0 && m_baySteps[steps - 1].what == what) {
        m_baySteps[steps - 1].after = std::move(m_baySteps[steps].after);
        m_baySteps.pop_back();
    }
}

void Session::amend(record::Test& test, const QString& at, const QString& text) {
    test.amendments.push_back({at.toStdString(), text.toStdString()});
}

void Session::goToStep(const BayStep& step, bool forward) {
    restoreBay(*m_test, forward ? step.after : step.before);
    const auto& shots = forward ? step.shotsAfter : step.shotsBefore;
    m_test->shots.resize(std::min(step.from, m_test->shots.size()));
    m_test->shots.insert(m_test->shots.end(), shots.begin(), shots.end());
    if (step.before.plan.turns != step.after.plan.turns || step.before.amendments != step.after.amendments)
        amend(*m_test, bayNow(), (forward ? tr("%1 was done again") : tr("%1 was taken back")).arg(step.what));
    keepBay(step.from, true);
}

void Session::undoInBay() {
    stepInBay(m_baySteps, m_bayRedo, false);
}

void Session::redoInBay() {
    stepInBay(m_bayRedo, m_baySteps, true);
}

void Session::stepInBay(std::vector<BayStep>& from, std::vector<BayStep>& to, bool forward) {
    if (!m_test || from.empty())
        return;
    to.push_back(std::move(from.back()));
    from.pop_back();
    goToStep(to.back(), forward);
}

// Everything from the first shot that is not on disk goes there; what fails is tried again.
void Session::keepBay(std::size_t from, bool headChanged) {
    m_unsavedFrom = std::min(m_unsavedFrom.value_or(from), from);
    m_unsavedHead = m_unsavedHead || headChanged;
    m_stale = m_listStale = true;
    m_reading.reset();
    ++*m_generation; // a judge at work judges an older test
    saveAgain();
    emit bayChanged(from);
}

bool Session::saveAgain() {
    if (!hasUnsaved())
        return true;
    const std::size_t from = m_unsavedFrom.value_or(m_test->shots.size());
    auto kept = m_unsavedHead ? m_logbook->saveShotsAndHead(*m_test, from) : m_logbook->saveShots(*m_test, from);
    if (!kept && kept.error().kind == logbook::ErrorKind::gone && m_logbook->writeAnew()) {
        kept = m_logbook->saveShotsAndHead(*m_test, from);
        if (kept)
            emit noted(tr("%1 was deleted while it was open. It is written anew, with everything that was in it.")
                           .arg(logbookPath()));
    }
    if (!kept) {
        troubled(kept.error());
        return false;
    }
    m_unsavedFrom.reset();
    m_unsavedHead = false;
    m_retry.stop();
    if (!m_trouble.isEmpty()) {
        m_trouble.clear();
        emit storageTroubled({});
        emit noted(tr("The disk works again; everything struck is kept."));
    }
    emit shotsKept();
    return true;
}

QString Session::unsavedWords() const {
    return unsavedShots() > 0 ? QString::fromStdString(record::counted(unsavedShots(), "shot"))
                              : tr("what was entered last");
}

void Session::troubled(const logbook::Error& error) {
    m_trouble = QString::fromStdString(logbook::sentence(error)) + QLatin1Char(' ') +
                tr("Not on disk: %1, kept in memory and tried again every two seconds.").arg(unsavedWords());
    emit storageTroubled(m_trouble);
    m_retry.start();
}

std::size_t Session::unsavedShots() const {
    return m_unsavedFrom && m_test ? m_test->shots.size() - std::min(*m_unsavedFrom, m_test->shots.size()) : 0;
}

bool Session::mayLeave() {
    if (saveAgain())
        return true;
    emit refused(
        tr("Not on disk yet: %1. Free some space, or keep this test in another logbook (Ctrl+S).").arg(unsavedWords()));
    return false;
}

void Session::forgetBay() {
    m_baySteps.clear();
    m_bayRedo.clear();
    m_unsavedFrom.reset();
    m_unsavedHead = false;
    m_stale = false;
    m_lastNow = {};
    m_sinceNow.invalidate();
    if (m_test && !m_test->shots.empty()) // a clock that went back between two runs
        if (const auto last =
                QDateTime::fromString(QString::fromStdString(m_test->shots.back().takenAt), Qt::ISODateWithMs);
            last.isValid() && last.secsTo(m_clock()) > -86400)
            m_lastNow = last;
}

} // namespace knot::app
