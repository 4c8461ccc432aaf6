#include "app/session/session.h"

#include "app/session/keeping.h"
#include "app/session/moment.h"

#include "app/form/typed.h"
#include "core/plan/course.h"
#include "core/plan/worth.h"
#include "core/record/control.h"
#include "files/base/file.h"
#include "files/csv_writer.h"
#include "files/test_json.h"

#include <QDir>
#include <QRandomGenerator>

#include <algorithm>

namespace knot::app {
namespace {

void declareAsUsual(record::Test& test) {
    test.card.blinding = record::Blinding::open;
    test.card.held = record::heldAsUsual(test.card.kind);
    test.card.plannedRounds = test.plan.rounds;
    test.plan.seed = QRandomGenerator::system()->generate64();
}

// Two clubs that were told apart by nothing declared are tested by what people look at first.
void declareFirstSeen(const record::Test& from, record::Card& card) {
    const auto read = from.metricsRead();
    for (const record::Metric metric : {record::Metric::carry, record::Metric::ballSpeed})
        if (std::ranges::find(read, metric) != read.end()) {
            card.primary.push_back({.kind = record::OutcomeKind::average, .metric = metric, .shape = {}});
            return;
        }
}

// What the reading of a sitting as it came speaks of: one's own club against another, in the minutes that are left.
void askInMinutesLeft(const record::Test& from, record::Test& copy) {
    if (copy.card.primary.empty())
        return;
    const record::Metric metric = copy.card.primary.front().metric;
    const auto fair = plan::twoClubsIn(plan::minutesLeft, metric, plan::usualSpreads(metric, plan::Level::club),
                                       record::info(metric).worthwhileGap, {});
    copy.plan.rounds = copy.card.plannedRounds = fair.laps;
    copy.plan.turnLength = fair.shots;
    if (const std::string& own = from.builds[from.baselineIndex()].who(); copy.buildIndex(own))
        copy.card.baseline = own;
}

} // namespace

Session::Session(QObject* parent)
    : QObject(parent)
    , m_declaring(m_hand, m_book)
    , m_bay(m_hand, m_book)
    , m_earlier(m_hand, m_book)
    , m_findings(m_book) {
    connect(&m_book, &Book::refused, this, &Session::refused);
    connect(&m_book, &Book::noted, this, &Session::noted);
    connect(&m_declaring, &Declaring::refused, this, &Session::refused);
    connect(&m_bay, &BayRun::refused, this, &Session::refused);
    connect(&m_bay, &BayRun::noted, this, &Session::noted);
    connect(&m_declaring, &Declaring::changed, this, [this] {
        m_bay.planChanged();
        m_earlier.refresh();
        if (!test().shots.empty())
            m_judging.judge(test());
    });
    connect(&m_earlier, &EarlierTests::changed, this, [this] {
        m_judging.setEarlier(m_earlier.learnt());
        if (!test().shots.empty())
            m_judging.judge(test());
    });
    // What was struck or said in the open and taken back never comes back under tags.
    connect(&m_declaring, &Declaring::sealed, &m_bay, &BayRun::forget);
    connect(&m_declaring, &Declaring::revealed, this, [this] {
        m_bay.planChanged();
        emit m_hand.replaced();
    });
    connect(&m_book, &Book::playersChanged, this, [this] {
        if (!m_hand.isKept())
            return;
        const std::string names = test().playerNames();
        takeKeptPlayers(m_hand.edit(), m_book);
        if (test().playerNames() != names && !m_bay.hasUnsaved()) { // there is no way back to the former name
            m_declaring.forget();
            m_bay.forget();
        }
        m_bay.planChanged();
        emit m_declaring.changed();
    });
    connect(&m_bay, &BayRun::changed, this,
            [this] { m_judging.markStale([this] { return m_hand.has() ? &m_hand.test() : nullptr; }); });
}

bool Session::readyToLeave() {
    Typed::commitAll();
    if (m_declaring.hasUnkept() && !keepByItself(m_hand, m_book))
        return false;
    if (m_bay.saveAgain())
        return true;
    emit refused(tr("Not on disk yet: %1. Free some space, or save this test to another logbook (Ctrl+S).")
                     .arg(m_bay.unsavedWords()));
    return false;
}

// Nothing of one test may reach another.
void Session::forgetAll() {
    m_declaring.forget();
    m_bay.forget();
    m_judging.forget();
    m_earlier.forget();
}

void Session::take(record::Test test) {
    test.nameShots();
    test.nameClubs();
    m_hand.put(std::move(test));
    forgetAll();
    emit m_hand.replaced();
    m_judging.judge(m_hand.test());
    m_earlier.refresh();
}

void Session::dropTest() {
    m_hand.drop();
    forgetAll();
    emit m_hand.replaced();
}

// Into a logbook, and in hand. What could not be kept is not taken; shots of it are where they were.
bool Session::keepAndTake(record::Test test) {
    TestInHand made;
    made.put(std::move(test));
    if (made.isKept() ? !m_book.save(made.test()) : !keepByItself(made, m_book))
        return false;
    record::Test kept = made.test();
    takeKeptPlayers(kept, m_book);
    take(std::move(kept));
    return true;
}

bool Session::openLogbook(const QString& path) {
    if (!readyToLeave() || !m_book.open(path))
        return false;
    dropTest();
    return true;
}

bool Session::openTest(const std::string& id) {
    if (!readyToLeave())
        return false;
    auto test = m_book.load(id);
    if (!test)
        return false;
    take(std::move(*test));
    return true;
}

// What stands here already is opened, the later version of the two.
bool Session::importTest(const QString& path) {
    auto imported = files::readTestFile(path.toStdString());
    if (!imported) {
        emit refused(QString::fromStdString(files::sentence(imported.error())));
        return false;
    }
    if (!imported->test.id.empty() && (m_book.isOpen() || m_book.openOrMake(ownLogbookPath()))) {
        if (!readyToLeave())
            return false;
        const auto come = m_book.add(imported->test);
        if (come && !come->isNew)
            emit noted(tr("“%1” stands here already.").arg(QString::fromStdString(imported->test.title)));
        return come && openTest(come->id);
    }
    return takeImported(std::move(*imported));
}

bool Session::takeImported(files::ImportedTest imported) {
    if (!readyToLeave())
        return false;
    if (imported.test.createdAt.empty())
        imported.test.createdAt = momentNow();
    // A file of shots that is looked at without a logbook is kept once something is made of it.
    if (!m_book.isOpen() && imported.test.id.empty())
        take(std::move(imported.test));
    else if (!keepAndTake(std::move(imported.test)))
        return false;
    if (imported.units)
        m_book.setUnits(*imported.units, Book::UnitsBy::file);
    for (const auto& note : imported.notes)
        emit noted(QString::fromStdString(note));
    return true;
}

bool Session::keepIn(const QString& path) {
    Typed::commitAll();
    if (!m_hand.has())
        return false;
    const auto id = m_book.keepIn(path, m_hand.test());
    if (!id)
        return false;
    m_hand.edit().id = *id;
    takeKeptPlayers(m_hand.edit(), m_book);
    m_bay.keptElsewhere();
    emit m_hand.replaced();
    return true;
}

bool Session::exportShots(const QString& path) {
    Typed::commitAll();
    if (!m_hand.has())
        return false;
    if (path.endsWith(QStringLiteral(".knotbook"), Qt::CaseInsensitive))
        return m_book.makeWith(path, test());
    const bool json = path.endsWith(QStringLiteral(".json"), Qt::CaseInsensitive);
    auto written = files::writeFile(path.toStdString(), json ? files::testJson(test()) : files::shotCsv(test()));
    if (!written)
        emit refused(QString::fromStdString(files::sentence(written.error())));
    return written.has_value();
}

bool Session::removeTest(const std::string& id) {
    auto removed = m_book.load(id);
    if (!removed || !m_book.remove(id))
        return false;
    if (m_hand.has() && test().id == id)
        dropTest();
    const QString title = QString::fromStdString(removed->title);
    m_listed.push_back({m_book.path(), [this, removed = std::move(*removed), title] {
                            if (!m_book.save(removed))
                                return false;
                            emit noted(tr("“%1” is back.").arg(title));
                            return true;
                        }});
    emit noted(tr("“%1” was deleted. Ctrl+Z brings it back.").arg(title));
    return true;
}

std::optional<logbook::Merged> Session::addLogbook(const QString& path) {
    if (!readyToLeave())
        return std::nullopt;
    auto merged = m_book.addAllOf(path);
    if (!merged)
        return std::nullopt;
    const QString text = QString::fromStdString(logbook::mergedText(*merged, QFileInfo(path).fileName().toStdString()));
    if (!merged->step.empty())
        m_listed.push_back(
            {m_book.path(), [this, step = merged->step] { return m_book.takeBack(step) && handAnew(); }});
    emit noted(merged->step.empty() ? text : tr("%1 Ctrl+Z takes all of it back.").arg(text));
    handAnew();
    return merged;
}

// The test in hand as the logbook has it now, which may be another version, or none.
bool Session::handAnew() {
    if (!m_hand.isKept())
        return true;
    if (auto now = m_book.peek(test().id); !now)
        dropTest();
    else if (*now != test())
        take(std::move(*now));
    return true;
}

bool Session::setTitle(const std::string& id, const std::string& title) {
    if (m_hand.has() && test().id == id) {
        if (!m_declaring.change(tr("the title"), [&](record::Declared& changed) { changed.title = title; }))
            return false;
    } else {
        auto other = m_book.load(id);
        if (!other)
            return false;
        other->title = title;
        if (!m_book.saveHead(*other))
            return false;
    }
    m_book.listIfStale();
    return true;
}

bool Session::renameTest(const std::string& id, const QString& title) {
    const auto& tests = m_book.tests();
    const auto at = std::ranges::find(tests, id, &logbook::TestEntry::id);
    if (at == tests.end())
        return false;
    const std::string before = at->title;
    if (!setTitle(id, title.toStdString()))
        return false;
    m_listed.push_back({m_book.path(), [this, id, before] { return setTitle(id, before); }});
    return true;
}

bool Session::undoListed() {
    if (!canUndoListed() || !m_listed.back().undo())
        return false;
    m_listed.pop_back();
    return true;
}

bool Session::newTest(record::Stage stage) {
    if (!readyToLeave())
        return false;
    record::Test test;
    test.stage = stage;
    test.title = (stage == record::Stage::test        ? tr("New test")
                  : stage == record::Stage::screening ? tr("Screening")
                                                      : tr("Open sitting"))
                     .toStdString();
    test.createdAt = momentNow();
    if (stage == record::Stage::test)
        declareAsUsual(test);
    return keepAndTake(std::move(test));
}

bool Session::copyToAdjust(const std::string& build) {
    if (!copyDeclaration({build}, Follows::further))
        return false;
    return m_declaring.change(tr("the club to adjust"), [&](record::Declared& test) {
        record::Build adjusted = test.builds.front();
        adjusted.name = tr("%1, adjusted").arg(QString::fromStdString(build)).toStdString();
        adjusted.id.clear();
        test.card.baseline = test.builds.front().who();
        test.builds.push_back(std::move(adjusted));
    });
}

bool Session::copyDeclaration(const std::vector<std::string>& builds, Follows follows) {
    if (!m_hand.has() || isSealed() || !readyToLeave())
        return false;
    const record::Test& from = test();
    record::Test copy;
    const QString title = follows == Follows::sameOnAnotherDay ? tr("%1, another day")
                          : follows == Follows::further        ? tr("%1, further")
                          : builds.empty()                     ? tr("%1, again")
                                                               : tr("%1, confirmed");
    copy.title = title.arg(QString::fromStdString(from.title)).toStdString();
    if (follows != Follows::nothing)
        copy.repeats = record::firstOf(from);
    copy.question = from.question;
    copy.players = from.players;
    copy.createdAt = momentNow();
    copy.card = from.card;
    copy.plan = from.plan;
    for (const record::Build& build : from.builds) {
        if (!builds.empty() && std::ranges::find(builds, build.name) == builds.end())
            continue;
        copy.builds.push_back(build);
        copy.builds.back().tag.clear();
    }
    if (!builds.empty())
        copy.plan.changeTimes.clear(); // they name places among all clubs
    // What was said of a club that stays behind stays with it.
    auto isHere = [&](const std::string& who) { return copy.buildIndex(who).has_value(); };
    if (!isHere(copy.card.baseline))
        copy.card.baseline.clear();
    std::erase_if(copy.card.expectedOrder, [&](const std::string& who) { return !isHere(who); });
    std::erase_if(copy.card.targets,
                  [&](const record::Target& target) { return !target.build.empty() && !isHere(target.build); });
    copy.plan.seed = QRandomGenerator::system()->generate64();
    if (from.stage != record::Stage::test) // nothing was declared there
        declareAsUsual(copy);
    if (!builds.empty() && copy.card.primary.empty())
        declareFirstSeen(from, copy.card);
    const bool warm = !from.sittings.empty() && !from.shots.empty() &&
                      from.shots.back().sitting == from.sittings.back().label &&
                      !bay::isAnotherVisit(from, m_bay.now().toStdString());
    if (warm)
        copy.plan.warmUp = 0;
    if (builds.size() == 2 && follows == Follows::nothing && from.turns.empty())
        askInMinutesLeft(from, copy);
    plan::makeCourse(copy);
    return keepAndTake(std::move(copy));
}

// Shots of a file go to the clubs of the same name; a sitting or a screening takes new clubs in.
bool Session::addShots(const record::Test& from) {
    if (!m_hand.has() || !readyToLeave())
        return false;
    record::Test test = this->test();
    std::vector<record::BuildAt> place;
    for (const record::Build& build : from.builds) {
        auto at = test.buildIndex(build.name);
        if (!at && test.stage != record::Stage::test) {
            test.builds.push_back(build);
            test.builds.back().id.clear();
            at = record::BuildAt(test.builds.size() - 1);
        }
        if (!at) {
            emit refused(tr("The file has shots with “%1”, which is not a club of this test. Name its clubs as here.")
                             .arg(QString::fromStdString(build.name)));
            return false;
        }
        place.push_back(*at);
    }
    for (const auto& column : from.extraColumns)
        if (std::ranges::find(test.extraColumns, column) == test.extraColumns.end()) {
            test.extraColumns.push_back(column);
            for (auto& shot : test.shots)
                shot.extra.emplace_back();
        }
    for (record::Shot shot : from.shots) {
        shot.id = test.nextShotId();
        shot.build = place[shot.build];
        std::vector<std::string> extra(test.extraColumns.size());
        for (std::size_t i = 0; i < shot.extra.size(); ++i)
            extra[static_cast<std::size_t>(std::ranges::find(test.extraColumns, from.extraColumns[i]) -
                                           test.extraColumns.begin())] = shot.extra[i];
        shot.extra = std::move(extra);
        test.shots.push_back(std::move(shot));
    }
    freezeIfStruck(test);
    return keepAndTake(std::move(test));
}

bool Session::addShot(record::BuildAt build, record::Metric metric, double value) {
    record::Test one;
    one.builds = {test().builds.at(build)};
    record::Shot shot;
    shot.takenAt = momentNow();
    shot.readings.measure(metric, value);
    one.shots = {shot};
    return addShots(one);
}

} // namespace knot::app
