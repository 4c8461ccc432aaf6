#include "app/session/declaring.h"

#include "app/session/keeping.h"
#include "app/session/moment.h"

#include "app/session/background.h"
#include "core/judge/may_see.h"
#include "core/plan/course.h"
#include "core/plan/key_words.h"
#include "core/plan/seal.h"
#include "core/record/carry.h"
#include "core/record/check.h"
#include "core/record/roster.h"
#include "files/test_json.h"

#include <QDateTime>

#include <algorithm>

namespace knot::app {
namespace {

constexpr std::size_t mostUndone = 200;

} // namespace

void freezeIfStruck(record::Test& test) {
    if (test.stage != record::Stage::test || !test.frozenHash.empty() ||
        std::ranges::none_of(test.shots,
                             [](const record::Shot& shot) { return shot.status == record::ShotStatus::counted; }))
        return;
    test.frozenAt = momentNow();
    test.frozenHash = record::sha256(files::declarationText(test));
}

Declaring::Declaring(TestInHand& hand, Book& book, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_book(book) {}

bool Declaring::keepInBook(const record::Test& test, bool clubsMoved) {
    if (const auto faults = record::headFaultsOf(test); !faults.empty()) {
        emit refused(QString::fromStdString(faults.front()));
        return false;
    }
    if (!m_hand.isKept())
        return true;
    return clubsMoved && !test.shots.empty() ? m_book.save(test).has_value() : m_book.saveHead(test);
}

// Keeps a test and puts it in hand.
bool Declaring::put(record::Test test) {
    if (!keepInBook(test, record::anyMoved(m_hand.test().builds, test.builds)))
        return false;
    m_hand.put(std::move(test));
    changedNow();
    return true;
}

// What was looked at and is changed is one's own from then on.
void Declaring::changedNow() {
    if (!m_hand.isKept())
        m_isUnkept = !keepByItself(m_hand, m_book);
    emit changed();
}

bool Declaring::hasUnkept() const {
    return m_isUnkept && m_hand.has() && !m_hand.isKept();
}

bool Declaring::change(const QString& what, const std::function<void(record::Declared&)>& edit) {
    return changeTest(what, [&](record::Test& test) {
        record::Declared next = test;
        edit(next);
        return plan::declare(test, std::move(next));
    });
}

// `edit` says why it can't be, or nothing.
bool Declaring::changeTest(const QString& what, const std::function<std::string(record::Test&)>& edit) {
    if (!m_hand.has())
        return false;
    record::Test& test = m_hand.edit();
    record::Test before = record::stateOf(test);
    if (const std::string why = edit(test); !why.empty()) {
        emit refused(QString::fromStdString(why));
        return false;
    }
    record::Test after = record::stateOf(test);
    if (after == before)
        return false;
    const bool sameThing = what == m_lastChange && !m_undo.empty() && m_redo.empty();
    const std::size_t amendments = test.amendments.size();
    if (m_hand.isFrozen() && files::declarationText(after) != files::declarationText(before)) {
        const std::string text = tr("%1 was changed").arg(what).toStdString();
        if (!sameThing || test.amendments.empty() || test.amendments.back().text != text)
            test.amendments.push_back({momentNow(), text});
    }
    if (!keepInBook(test, record::anyMoved(before.builds, after.builds))) {
        test.amendments.resize(amendments);
        record::carry(test, std::move(after), std::move(before));
        return false;
    }
    // The ways back are laid before anybody hears of the change.
    m_redo.clear();
    if (sameThing)
        m_undo.back().after = std::move(after);
    else
        m_undo.push_back({std::move(before), std::move(after), test.shots.empty()});
    if (m_undo.size() > mostUndone)
        m_undo.erase(m_undo.begin());
    m_lastChange = what;
    changedNow();
    return true;
}

bool Declaring::removeClub(record::BuildAt build) {
    if (!m_hand.has() || m_hand.isSealed() || build >= m_hand.test().builds.size())
        return false;
    return change(tr("the clubs"), [&](record::Declared& declared) {
        declared.builds.erase(declared.builds.begin() + static_cast<std::ptrdiff_t>(build));
        auto isOf = [&](const record::ChangeTime& time) { return time.a == build || time.b == build; };
        std::erase_if(declared.plan.changeTimes, isOf);
        for (record::ChangeTime& time : declared.plan.changeTimes)
            for (record::BuildAt* at : {&time.a, &time.b})
                if (*at > build)
                    *at = record::BuildAt(*at - 1);
    });
}

bool Declaring::strikeOff(record::BuildAt build, const QString& reason) {
    if (!m_hand.has() || m_hand.isSealed() || build >= m_hand.test().builds.size())
        return false;
    return changeTest(tr("what was struck off"), [&](record::Test& test) {
        using What = record::Standing::What;
        const bool isIn = record::Roster(test).isIn(build);
        int lap = 1;
        for (const record::PlannedTurn& turn : test.turns)
            lap = std::max(lap, turn.round + 1);
        setStanding(test, build, isIn ? What::struckOff : What::putBack, lap,
                    !isIn              ? std::string()
                    : reason.isEmpty() ? tr("no reason given").toStdString()
                                       : reason.toStdString());
        return std::string();
    });
}

void Declaring::say(record::Said record::Choices::*what, record::BuildAt build) {
    if (!m_hand.has() || build >= m_hand.test().builds.size() || !(m_hand.test().choices.*what).at.empty())
        return;
    record::Test& test = m_hand.edit();
    test.choices.*what = {.tag = test.builds[build].who(), .at = momentNow()};
    if (!keepInBook(test, false))
        test.choices.*what = {};
    changedNow();
}

void Declaring::look() {
    if (!m_hand.has() || !judge::withheld(m_hand.test()))
        return;
    record::Test looked = m_hand.test();
    judge::look(looked, momentNow());
    m_lastChange.clear();
    put(std::move(looked));
}

void Declaring::forget() {
    m_undo.clear();
    m_redo.clear();
    m_lastChange.clear();
    m_isUnkept = false;
}

void Declaring::undo() {
    go(m_undo, m_redo, true);
}

void Declaring::redo() {
    go(m_redo, m_undo, false);
}

// Why a step can't be taken back, or made again; empty where it was.
std::string Declaring::carry(record::Test& test, const Step& step, bool back) const {
    const record::Test& from = back ? step.after : step.before;
    const record::Test& to = back ? step.before : step.after;
    if (step.beforeTheFirstShot && !test.shots.empty()) { // a course that has begun keeps the rule it was made by
        record::Declared goal = to;
        goal.plan = from.plan;
        goal.card.plannedRounds = from.card.plannedRounds;
        return plan::declare(test, record::carried(test, from, goal));
    }
    record::carry(test, from, to);
    return record::pointsNowhere(test)
               ? tr("A club that this would take away was struck since, so it stays; strike it off instead.")
                     .toStdString()
               : std::string();
}

// Takes a change back, or makes it again: what it changed and nothing else. Amendments stay, since what was noted is
// never taken back, and so does what the bay added.
void Declaring::go(std::vector<Step>& from, std::vector<Step>& to, bool back) {
    if (from.empty() || !m_hand.has())
        return;
    Step step = std::move(from.back());
    from.pop_back();
    record::Test next = m_hand.test();
    if (const std::string why = carry(next, step, back); !why.empty()) {
        from.push_back(std::move(step));
        return emit refused(QString::fromStdString(why));
    }
    if (m_hand.isFrozen())
        next.amendments.push_back(
            {momentNow(), (back ? tr("a change was taken back") : tr("a change was made again")).toStdString()});
    // Where it stands in both directions is known before anybody hears of the change.
    to.push_back(std::move(step));
    if (!put(std::move(next))) {
        from.push_back(std::move(to.back()));
        return to.pop_back();
    }
    m_lastChange.clear();
}

void Declaring::setComparison(record::Comparison comparison) {
    change(tr("the kind of comparison"), [=](record::Declared& test) { test.card.comparison = comparison; });
}

void Declaring::setBaseline(record::BuildAt build) {
    if (!m_hand.has() || m_hand.isSealed() || build >= m_hand.test().builds.size() ||
        build == m_hand.test().baselineIndex())
        return;
    change(tr("the baseline"), [=](record::Declared& test) { test.card.baseline = test.builds[build].who(); });
}

void Declaring::togglePrimary(const record::Outcome& outcome) {
    const auto& primary = m_hand.test().card.primary;
    if (std::ranges::find(primary, outcome) == primary.end() && primary.size() >= record::mostOutcomes) {
        emit refused(tr("Three outcomes can be declared at most; take one back first."));
        return;
    }
    change(tr("the declared outcomes"), [&](record::Declared& test) {
        auto& declared = test.card.primary;
        if (const auto at = std::ranges::find(declared, outcome); at != declared.end())
            declared.erase(at);
        else
            declared.push_back(outcome);
    });
}

void Declaring::setMargin(record::Metric metric, double gap) {
    change(tr("the worthwhile gap in %1").arg(QString::fromStdString(record::info(metric).label)),
           [=](record::Declared& test) { test.card.margins[metric] = gap; });
}

void Declaring::setWant(const record::Outcome& outcome, record::Want::Kind kind) {
    change(tr("the wanted direction"),
           [&](record::Declared& test) { test.card.wants[outcome] = {.kind = kind, .value = 0}; });
}

namespace {

std::vector<TagOfClub> tagsOf(const plan::Opened& opened) {
    std::vector<TagOfClub> tags;
    for (const auto& [tag, club] : opened.tags)
        tags.push_back({tag, club});
    return tags;
}

} // namespace

// Nothing that is in no logbook is sealed.
bool Declaring::mayBeSealed() {
    if (!m_hand.has() || m_hand.isSealed() || m_sealing)
        return false;
    const std::string why = plan::whyNotSealed(m_hand.test());
    if (!why.empty())
        emit refused(QString::fromStdString(why));
    return why.empty() && keepByItself(m_hand, m_book);
}

void Declaring::seal() {
    if (!mayBeSealed())
        return;
    struct Made {
        std::optional<record::Test> test;
        std::string words;
        std::vector<TagOfClub> tags;
    };
    m_sealing = true;
    inBackground(
        this,
        [test = m_hand.test()] {
            Made made{.words = plan::newKeyWords()};
            made.test = plan::sealed(test, made.words, momentNow(), files::hiddenPartsJson(test));
            if (made.test)
                made.tags = tagsOf(std::get<plan::Opened>(plan::openSeal(made.test->seal, made.words)));
            return made;
        },
        [this, before = m_hand.test()](std::optional<Made> given) {
            m_sealing = false;
            Made made = std::move(given).value_or(Made{});
            if (!m_hand.has() || m_hand.test() != before)
                return emit refused(tr("The test changed while its clubs were sealed; seal it again."));
            if (!made.test)
                return emit refused(
                    tr("The seal needs 64 MB of free memory for a moment; close something and try again."));
            m_ready = Ready{before, std::move(*made.test)};
            emit sealReady(QString::fromStdString(made.words), made.tags);
        });
}

bool Declaring::putInBag() {
    if (!mayBeSealed())
        return false;
    return close(plan::inBag(m_hand.test(), momentNow()));
}

// What came before would tell the clubs' places, so there is no way back but the reveal.
bool Declaring::close(record::Test test) {
    if (!put(std::move(test)))
        return false;
    forget();
    emit sealed();
    return true;
}

bool Declaring::keepSeal() {
    const auto ready = std::exchange(m_ready, std::nullopt);
    if (!ready || !m_hand.has() || m_hand.test() != ready->open) {
        emit refused(tr("The test changed while its clubs were sealed; seal it again."));
        return false;
    }
    return close(ready->sealed);
}

template<typename Then> void Declaring::openSeal(const QString& key, Then then) {
    if (!m_hand.has() || m_sealing || !(m_hand.isSealed() || m_hand.test().seal.isByHand()))
        return;
    m_sealing = true;
    inBackground(
        this, [seal = m_hand.test().seal, secret = key.toStdString()] { return plan::openSeal(seal, secret); },
        [this, id = m_hand.test().id, then](std::optional<std::variant<plan::Opened, plan::SealFault>> given) {
            m_sealing = false;
            const auto result = std::move(given).value_or(plan::SealFault::noMemory);
            if (!m_hand.has() || m_hand.test().id != id)
                return;
            if (const auto* opened = std::get_if<plan::Opened>(&result))
                return then(*opened);
            const auto fault = std::get<plan::SealFault>(result);
            emit refused(fault == plan::SealFault::wrongKey
                             ? tr("These words do not open the seal. Nothing is lost: look at the slip again, word "
                                  "for word.")
                         : fault == plan::SealFault::noMemory
                             ? tr("The seal needs 64 MB of free memory for a moment; close something and try again.")
                             : tr("The seal is damaged or was changed: what it hides does not have the hash "
                                  "that was published."));
        });
}

void Declaring::peek(const QString& key, const std::function<void(const std::vector<TagOfClub>&)>& then) {
    openSeal(key, [then](const plan::Opened& opened) { then(tagsOf(opened)); });
}

void Declaring::compareSeal(const QString& key) {
    openSeal(key, [this](const plan::Opened& opened) {
        if (!m_hand.test().seal.isByHand())
            return;
        record::Test test = m_hand.test();
        if (test.sealedBuilds.empty() && !files::restoreHiddenParts(test, opened.attachment))
            return emit refused(tr("The seal opened, but the clubs it hides can't be read."));
        auto compared = plan::comparedWithSeal(std::move(test), opened, momentNow());
        if (!compared)
            return emit refused(tr("The seal opened, but names clubs that are not in this test."));
        show(std::move(*compared));
    });
}

void Declaring::reveal(const QString& key) {
    openSeal(key, [this](const plan::Opened& opened) {
        if (!m_hand.isSealed())
            return;
        record::Test test = m_hand.test();
        record::Test inBox = test;
        if (!files::restoreHiddenParts(inBox, opened.attachment))
            return emit refused(tr("The seal opened, but the clubs it hides can't be read."));
        if (test.sealedBuilds.empty())
            test = inBox;
        auto known = plan::revealed(std::move(test), opened, momentNow(), inBox.sealedBuilds);
        if (!known)
            return emit refused(tr("The seal opened, but names clubs that are not in this test."));
        show(std::move(*known));
    });
}

bool Declaring::revealByHand(const std::vector<std::string>& clubs) {
    auto known = m_hand.isSealed() ? plan::revealedByHand(m_hand.test(), clubs, momentNow()) : std::nullopt;
    if (!known) {
        emit refused(tr("Name every club of the rack once, in the order of the tags."));
        return false;
    }
    return show(std::move(*known));
}

bool Declaring::show(record::Test test) {
    test.nameClubs();
    if (!put(std::move(test)))
        return false;
    forget();
    emit revealed();
    return true;
}

} // namespace knot::app
