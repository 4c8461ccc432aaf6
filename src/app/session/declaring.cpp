#include "app/session/declaring.h"

#include "app/session/moment.h"

#include "app/session/background.h"
#include "core/plan/key_words.h"
#include "core/plan/schedule.h"
#include "core/plan/seal.h"
#include "core/record/check.h"
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
    test.frozenHash = plan::sha256(files::declarationText(test));
}

Declaring::Declaring(TestInHand& hand, Book& book, QObject* parent)
    : QObject(parent)
    , m_hand(hand)
    , m_book(book) {}

// Keeps a head, and puts it in hand with the shots that are there.
bool Declaring::keep(record::Test head) {
    if (const auto faults = record::headFaultsOf(head); !faults.empty()) {
        emit refused(QString::fromStdString(faults.front()));
        return false;
    }
    if (m_hand.isKept() && !m_book.saveHead(head))
        return false;
    head.shots.swap(m_hand.edit().shots);
    m_hand.put(std::move(head));
    emit changed();
    return true;
}

bool Declaring::change(const QString& what, const std::function<void(record::Test&)>& edit) {
    if (!m_hand.has())
        return false;
    // Shots are many and no part of a declaration: they stay where they are.
    record::Test& test = m_hand.edit();
    std::vector<record::Shot> shots;
    shots.swap(test.shots);
    record::Test before = test;
    shots.swap(test.shots);
    record::Test changed = before;
    edit(changed);
    if (!m_hand.isSealed() && test.shots.empty())
        plan::planTurns(changed);
    if (changed == before)
        return false;
    const bool sameThing = what == m_lastChange && !m_undo.empty() && m_redo.empty();
    if (m_hand.isFrozen() && files::declarationText(changed) != files::declarationText(before)) {
        const std::string text = tr("%1 was changed").arg(what).toStdString();
        if (!sameThing || changed.amendments.empty() || changed.amendments.back().text != text)
            changed.amendments.push_back({momentNow(), text});
    }
    // The ways back are laid before anybody hears of the change.
    std::vector<record::Test> undone;
    undone.swap(m_redo);
    if (!sameThing)
        m_undo.push_back(std::move(before));
    if (!keep(std::move(changed))) {
        undone.swap(m_redo);
        if (!sameThing)
            m_undo.pop_back();
        return false;
    }
    if (m_undo.size() > mostUndone)
        m_undo.erase(m_undo.begin());
    m_lastChange = what;
    return true;
}

bool Declaring::removeClub(record::BuildAt build) {
    if (!m_hand.has() || m_hand.isSealed() || build >= m_hand.test().builds.size())
        return false;
    record::Test changed = m_hand.test();
    if (!changed.removeBuild(build)) {
        emit refused(tr("Shots were struck with %1, so it stays; strike it off instead.")
                         .arg(QString::fromStdString(changed.builds[build].name)));
        return false;
    }
    if (changed.shots.empty())
        return change(tr("the clubs"), [&](record::Test& test) { test = changed; });
    // Shots of other clubs take their new places with them, so there is no way back but by adding it.
    if (m_hand.isKept() && !m_book.save(changed))
        return false;
    m_hand.put(std::move(changed));
    forget();
    emit this->changed();
    return true;
}

void Declaring::forget() {
    m_undo.clear();
    m_redo.clear();
    m_lastChange.clear();
}

void Declaring::undo() {
    step(m_undo, m_redo, tr("a change was taken back"));
}

void Declaring::redo() {
    step(m_redo, m_undo, tr("a change was made again"));
}

// Goes to the declaration on top of one stack and leaves the present one on the other. Amendments stay:
// what was noted is never taken back. So does what the bay adds.
void Declaring::step(std::vector<record::Test>& from, std::vector<record::Test>& to, const QString& noted) {
    if (from.empty() || !m_hand.has())
        return;
    record::Test& test = m_hand.edit();
    std::vector<record::Shot> shots;
    shots.swap(test.shots);
    record::Test present = test;
    shots.swap(test.shots);
    record::Test next = from.back();
    next.amendments = present.amendments;
    next.feels = present.feels;
    next.choices = present.choices; // said once
    next.guesses = present.guesses;
    next.sittings = present.sittings;
    next.events = present.events;
    next.progress = present.progress;
    next.frozenAt = present.frozenAt;
    next.frozenHash = present.frozenHash;
    if (!test.shots.empty())
        next.plan.turns = present.plan.turns;
    if (m_hand.isFrozen())
        next.amendments.push_back({momentNow(), noted.toStdString()});
    // Where it stands in both directions is known before anybody hears of the change.
    record::Test taken = std::move(from.back());
    from.pop_back();
    to.push_back(std::move(present));
    if (!keep(std::move(next))) {
        from.push_back(std::move(taken));
        return to.pop_back();
    }
    m_lastChange.clear();
}

void Declaring::setComparison(record::Comparison comparison) {
    change(tr("the kind of comparison"), [=](record::Test& test) { test.card.comparison = comparison; });
}

void Declaring::setBaseline(record::BuildAt build) {
    if (!m_hand.has() || m_hand.isSealed() || build >= m_hand.test().builds.size() ||
        build == m_hand.test().baselineIndex())
        return;
    change(tr("the baseline"), [=](record::Test& test) { test.card.baseline = test.builds[build].name; });
}

void Declaring::togglePrimary(const record::Outcome& outcome) {
    const auto& primary = m_hand.test().card.primary;
    if (std::ranges::find(primary, outcome) == primary.end() && primary.size() >= 3) {
        emit refused(tr("Three outcomes can be declared at most; take one back first."));
        return;
    }
    change(tr("the declared outcomes"), [&](record::Test& test) {
        auto& declared = test.card.primary;
        if (const auto at = std::ranges::find(declared, outcome); at != declared.end())
            declared.erase(at);
        else
            declared.push_back(outcome);
    });
}

void Declaring::setMargin(record::Metric metric, double gap) {
    change(tr("the worthwhile gap in %1").arg(QString::fromStdString(record::info(metric).label)),
           [=](record::Test& test) { test.card.margins[metric] = gap; });
}

void Declaring::setWant(const record::Outcome& outcome, record::Want::Kind kind) {
    change(tr("the wanted direction"),
           [&](record::Test& test) { test.card.wants[outcome] = {.kind = kind, .value = 0}; });
}

namespace {

std::vector<TagOfClub> tagsOf(const plan::Opened& opened) {
    std::vector<TagOfClub> tags;
    for (const auto& [tag, club] : opened.tags)
        tags.push_back({tag, club});
    return tags;
}

} // namespace

void Declaring::seal() {
    if (!m_hand.has() || m_hand.isSealed() || m_sealing)
        return;
    if (const std::string why = plan::whyNotSealed(m_hand.test()); !why.empty())
        return emit refused(QString::fromStdString(why));
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
        [this, before = m_hand.test()](Made made) {
            m_sealing = false;
            if (!m_hand.has() || m_hand.test() != before)
                return emit refused(tr("The test changed while its clubs were sealed; seal it again."));
            if (!made.test)
                return emit refused(
                    tr("The seal needs 64 MB of free memory for a moment; close something and try again."));
            // What came before would tell the clubs' places, so there is no way back but the reveal.
            if (!keep(std::move(*made.test)))
                return;
            forget();
            emit sealedWith(QString::fromStdString(made.words), made.tags);
        });
}

template<typename Then> void Declaring::openSeal(const QString& key, Then then) {
    if (!m_hand.has() || m_sealing || !(m_hand.isSealed() || m_hand.test().seal.isByHand()))
        return;
    m_sealing = true;
    inBackground(
        this, [seal = m_hand.test().seal, secret = key.toStdString()] { return plan::openSeal(seal, secret); },
        [this, id = m_hand.test().id, then](std::variant<plan::Opened, plan::SealFault> result) {
            m_sealing = false;
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
        if (test.sealedBuilds.empty() && !files::restoreHiddenParts(test, opened.attachment))
            return emit refused(tr("The seal opened, but the clubs it hides can't be read."));
        auto known = plan::revealed(std::move(test), opened, momentNow());
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
    test.shots.clear();
    if (!keep(std::move(test)))
        return false;
    forget();
    emit revealed();
    return true;
}

} // namespace knot::app
