#include "app/session/session.h"

#include "app/session/moment.h"

#include "app/form/typed.h"
#include "core/plan/course.h"
#include "core/record/control.h"
#include "files/base/file.h"
#include "files/csv_writer.h"
#include "files/test_json.h"

#include <QDir>
#include <QRandomGenerator>

#include <algorithm>

namespace knot::app {
namespace {

// Players as they were before something that left them as in `after`: who came with it goes where no test has them,
// what was learnt of others is forgotten. What was said of somebody since stays.
bool takePlayersBack(Book& book, const std::vector<logbook::PlayerEntry>& before,
                     const std::vector<logbook::PlayerEntry>& after) {
    auto in = [](const std::vector<logbook::PlayerEntry>& list, const std::string& id) -> const logbook::PlayerEntry* {
        const auto at = std::ranges::find_if(list, [&](const auto& entry) { return entry.player.id == id; });
        return at == list.end() ? nullptr : &*at;
    };
    bool done = true;
    for (const logbook::PlayerEntry& entry : std::vector(book.players())) {
        const auto* was = in(before, entry.player.id);
        const auto* became = in(after, entry.player.id);
        if (became == nullptr || became->player != entry.player)
            continue; // somebody else since
        if (was == nullptr && entry.tests == 0)
            done = book.removePlayer(entry.player.id) && done;
        else if (was != nullptr && was->player != entry.player)
            done = book.savePlayer(was->player) && done;
    }
    return done;
}

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
        takeKeptPlayers(m_hand.edit());
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
    if (m_bay.saveAgain())
        return true;
    emit refused(tr("Not on disk yet: %1. Free some space, or keep this test in another logbook (Ctrl+S).")
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

// Who is in a test is as the logbook has them.
void Session::takeKeptPlayers(record::Test& test) {
    auto players = m_book.playersOf(test.id);
    if (players.size() != test.players.size())
        return;
    for (record::Shot& shot : test.shots)
        if (const auto at = shot.player.empty() ? std::nullopt : test.playerIndex(shot.player))
            shot.player = players[*at].name;
    test.players = std::move(players);
}

// Into the logbook where one is open, and in hand.
bool Session::keepAndTake(record::Test test) {
    if (m_book.isOpen()) {
        test.nameShots();
        const auto id = m_book.save(test);
        if (!id)
            return false;
        test.id = *id;
        test.nameClubs(); // as the book did
        takeKeptPlayers(test);
    }
    take(std::move(test));
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

bool Session::importTest(const QString& path) {
    auto imported = files::readTestFile(path.toStdString());
    if (!imported) {
        emit refused(QString::fromStdString(files::sentence(imported.error())));
        return false;
    }
    return takeImported(std::move(*imported));
}

bool Session::takeImported(files::ImportedTest imported) {
    if (!readyToLeave())
        return false;
    if (imported.test.createdAt.empty())
        imported.test.createdAt = momentNow();
    if (!keepAndTake(std::move(imported.test)))
        return false;
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
    takeKeptPlayers(m_hand.edit());
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
    const auto playersBefore = m_book.players();
    auto merged = m_book.addAllOf(path);
    if (!merged)
        return std::nullopt;
    const auto playersAfter = m_book.players();
    std::vector<std::string> come = merged->added;
    for (const logbook::Merged::Conflict& conflict : merged->conflicts)
        come.push_back(conflict.there);
    QString text = tr("%1 came from %2")
                       .arg(QString::fromStdString(record::counted(come.size(), "test")), QFileInfo(path).fileName());
    if (merged->known > 0)
        text += tr("; %1 stood here already").arg(merged->known);
    QStringList names;
    for (const std::string& name : merged->players)
        names << QString::fromStdString(name);
    if (!names.isEmpty())
        text += tr("; of %1 it says something else, and what stood here stays").arg(names.join(QStringLiteral(", ")));
    if (!come.empty())
        m_listed.push_back({m_book.path(), [this, come, playersBefore, playersAfter] {
                                if (m_hand.has() && std::ranges::find(come, test().id) != come.end())
                                    dropTest();
                                return std::ranges::all_of(
                                           come, [this](const std::string& id) { return m_book.remove(id); }) &&
                                       takePlayersBack(m_book, playersBefore, playersAfter);
                            }});
    emit noted(text + (come.empty() ? tr(".") : tr(". Ctrl+Z takes them away again.")));
    return merged;
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
    m_book.list();
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
    if (!m_book.isOpen()) {
        if (!m_book.openOrMake(Book::ownPath()))
            return false;
        emit noted(tr("Kept in %1.").arg(QDir::toNativeSeparators(Book::ownPath())));
    }
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
