// The part of the session that declares: new tests, edits with undo, amendments, the seal.
#include "app/session.h"

#include "core/plan/schedule.h"
#include "core/plan/seal.h"
#include "core/record/control.h"
#include "files/csv_reader.h"
#include "files/test_json.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QRandomGenerator>
#include <QStandardPaths>

#include <algorithm>

namespace knot::app {
namespace {

std::string now() {
    return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
}

// A declaration to go back to; shots, guesses and amendments stay as they are.
record::Test declarationOf(const record::Test& test) {
    record::Test head = test;
    head.shots.clear();
    return head;
}

constexpr std::size_t mostUndone = 200;

} // namespace

QString Session::ownLogbookPath() {
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
        .filePath(QStringLiteral("My shots.knotbook"));
}

bool Session::newTest(record::Stage stage) {
    if (!mayLeave())
        return false;
    if (!m_logbook) {
        const QString path = ownLogbookPath();
        QDir().mkpath(QFileInfo(path).path());
        if (!lock(path))
            return false;
        auto book = QFileInfo::exists(path) ? logbook::Logbook::open(path.toStdString())
                                            : logbook::Logbook::create(path.toStdString());
        if (!ok(book))
            return false;
        m_logbook.emplace(std::move(*book));
        if (auto units = m_logbook->units(); ok(units))
            m_units = *units;
        emit unitsChanged();
        emit noted(tr("Kept in %1.").arg(QDir::toNativeSeparators(path)));
    }
    record::Test test;
    test.stage = stage;
    test.title = (stage == record::Stage::test        ? tr("New test")
                  : stage == record::Stage::screening ? tr("Screening")
                                                      : tr("Open sitting"))
                     .toStdString();
    test.createdAt = now();
    if (stage == record::Stage::test) {
        test.card.blinding = record::Blinding::open;
        test.card.held = record::heldAsUsual(test.card.kind);
        test.card.plannedRounds = test.plan.rounds;
        test.plan.seed = QRandomGenerator::system()->generate64();
    }
    return keepAndUse(std::move(test));
}

bool Session::copyDeclaration(const std::vector<std::string>& builds) {
    if (!m_test || isSealed())
        return false;
    record::Test copy = declarationOf(*m_test);
    copy.id.clear();
    copy.createdAt = now();
    copy.stage = record::Stage::test;
    copy.seal = {};
    copy.sealedBuilds.clear();
    copy.guesses.clear();
    copy.amendments.clear();
    copy.frozenAt.clear();
    copy.frozenHash.clear();
    copy.plan.turns.clear();
    copy.extraColumns.clear();
    std::erase_if(copy.builds, [&](const record::Build& build) {
        return !builds.empty() && std::ranges::find(builds, build.name) == builds.end();
    });
    for (auto& build : copy.builds) {
        build.tag.clear();
        build.struckOff.clear();
    }
    if (!copy.buildIndex(copy.card.baseline))
        copy.card.baseline.clear();
    copy.plan.seed = QRandomGenerator::system()->generate64();
    plan::planTurns(copy);
    copy.title =
        (builds.empty() ? tr("%1, again") : tr("%1, confirmed")).arg(QString::fromStdString(copy.title)).toStdString();
    return keepAndUse(std::move(copy));
}

bool Session::keepHead(record::Test changed) {
    if (isKept() && !ok(m_logbook->saveHead(changed)))
        return false;
    m_test = std::move(changed);
    emit declarationChanged();
    if (!m_test->shots.empty())
        judgeAgain();
    return true;
}

void Session::change(const QString& what, const std::function<void(record::Test&)>& edit) {
    if (!m_test)
        return;
    record::Test changed = *m_test;
    edit(changed);
    if (!isSealed())
        plan::planTurns(changed);
    if (changed == *m_test)
        return;
    const bool sameThing = what == m_lastChange && !m_undo.empty() && m_redo.empty();
    if (isFrozen() && files::declarationText(changed) != files::declarationText(*m_test)) {
        const std::string text = tr("%1 was changed").arg(what).toStdString();
        if (!sameThing || changed.amendments.empty() || changed.amendments.back().text != text)
            changed.amendments.push_back({now(), text});
    }
    record::Test before = declarationOf(*m_test);
    if (!keepHead(std::move(changed)))
        return;
    if (!sameThing)
        m_undo.push_back(std::move(before));
    if (m_undo.size() > mostUndone)
        m_undo.erase(m_undo.begin());
    m_redo.clear();
    m_lastChange = what;
    listTests();
}

void Session::undo() {
    step(m_undo, m_redo, tr("a change was taken back"));
}

void Session::redo() {
    step(m_redo, m_undo, tr("a change was made again"));
}

// Goes to the declaration on top of one stack and leaves the present one on the other. Shots stay, and
// so do amendments: what was noted is never taken back.
void Session::step(std::vector<record::Test>& from, std::vector<record::Test>& to, const QString& noted) {
    if (from.empty())
        return;
    record::Test next = from.back();
    next.shots = m_test->shots;
    next.amendments = m_test->amendments;
    if (isFrozen())
        next.amendments.push_back({now(), noted.toStdString()});
    record::Test present = declarationOf(*m_test);
    if (!keepHead(std::move(next)))
        return;
    from.pop_back();
    to.push_back(std::move(present));
    m_lastChange.clear();
    listTests();
}

void Session::freeze(record::Test& test) const {
    const bool counts = std::ranges::any_of(
        test.shots, [](const record::Shot& shot) { return shot.status == record::ShotStatus::counted; });
    if (test.stage != record::Stage::test || !test.frozenHash.empty() || !counts)
        return;
    test.frozenAt = now();
    test.frozenHash = plan::sha256(files::declarationText(test));
}

// Shots of a file go to the clubs of the same name; a sitting or a screening takes new clubs in.
bool Session::takeShots(const record::Test& from) {
    record::Test test = *m_test;
    std::vector<std::size_t> place;
    for (const record::Build& build : from.builds) {
        auto at = test.buildIndex(build.name);
        if (!at && test.stage != record::Stage::test) {
            test.builds.push_back(build);
            at = test.builds.size() - 1;
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
        shot.build = place[shot.build];
        std::vector<std::string> extra(test.extraColumns.size());
        for (std::size_t i = 0; i < shot.extra.size(); ++i)
            extra[static_cast<std::size_t>(std::ranges::find(test.extraColumns, from.extraColumns[i]) -
                                           test.extraColumns.begin())] = shot.extra[i];
        shot.extra = std::move(extra);
        test.shots.push_back(std::move(shot));
    }
    freeze(test);
    return keepAndUse(std::move(test));
}

bool Session::addShots(const QString& path, const files::HeadingMap& headings) {
    if (!m_test)
        return false;
    auto imported = files::readShotFile(path.toStdString(), {.headings = headings});
    m_headingsUnknown = !imported && files::isAboutHeadings(imported.error().kind);
    if (!imported) {
        emit refused(QString::fromStdString(files::sentence(imported.error())));
        return false;
    }
    return takeShots(imported->test);
}

bool Session::addShot(std::size_t build, record::Metric metric, double value) {
    record::Test one;
    one.builds = {m_test->builds.at(build)};
    record::Shot shot;
    shot.takenAt = now();
    shot.readings.measure(metric, value);
    one.shots = {shot};
    return takeShots(one);
}

bool Session::seal(const QString& pin) {
    if (!m_test || isSealed())
        return false;
    if (const std::string why = plan::whyNotSealed(*m_test); !why.empty()) {
        emit refused(QString::fromStdString(why));
        return false;
    }
    if (static_cast<std::size_t>(pin.size()) < plan::shortestPin) {
        emit refused(
            tr("A PIN needs at least %1 characters; a longer one is harder to try out.").arg(plan::shortestPin));
        return false;
    }
    auto sealed = plan::sealed(*m_test, pin.toStdString(), now(), files::hiddenPartsJson(*m_test));
    if (!sealed) {
        emit refused(tr("The seal needs 64 MB of free memory for a moment; close something and try again."));
        return false;
    }
    // What came before would tell the clubs' places, so there is no way back but the reveal.
    if (!keepHead(std::move(*sealed)))
        return false;
    m_undo.clear();
    m_redo.clear();
    listTests();
    return true;
}

namespace {

std::optional<plan::Opened> openedBy(const record::Seal& seal, const QString& pin, Session& session) {
    const auto result = plan::openSeal(seal, pin.toStdString());
    if (const auto* opened = std::get_if<plan::Opened>(&result))
        return *opened;
    emit session.refused(std::get<plan::SealFault>(result) == plan::SealFault::wrongPin
                             ? Session::tr("This PIN does not open the seal; the clubs stay hidden. Nothing is lost: "
                                           "try again, or look at the clubs themselves.")
                             : Session::tr("The seal is damaged or was changed: what it hides does not have the hash "
                                           "that was published."));
    return std::nullopt;
}

} // namespace

std::optional<std::vector<std::pair<std::string, std::string>>> Session::peek(const QString& pin) {
    const auto opened = isSealed() ? openedBy(m_test->seal, pin, *this) : std::nullopt;
    return opened ? std::optional(opened->tags) : std::nullopt;
}

bool Session::reveal(const QString& pin) {
    const auto opened = isSealed() ? openedBy(m_test->seal, pin, *this) : std::nullopt;
    if (!opened)
        return false;
    record::Test test = *m_test;
    if (test.sealedBuilds.empty() && !files::restoreHiddenParts(test, opened->attachment)) {
        emit refused(tr("The seal opened, but the clubs it hides can't be read."));
        return false;
    }
    auto revealed = plan::revealed(std::move(test), *opened, now());
    if (!revealed) {
        emit refused(tr("The seal opened, but names clubs that are not in this test."));
        return false;
    }
    return showRevealed(std::move(*revealed));
}

bool Session::revealByHand(const QStringList& clubs) {
    std::vector<std::string> names;
    for (const QString& club : clubs)
        names.push_back(club.trimmed().toStdString());
    auto revealed = isSealed() ? plan::revealedByHand(*m_test, names, now()) : std::nullopt;
    if (!revealed) {
        emit refused(tr("Name every club of the rack once, in the order of the tags, with commas between."));
        return false;
    }
    return showRevealed(std::move(*revealed));
}

bool Session::showRevealed(record::Test test) {
    if (!keepHead(std::move(test)))
        return false;
    m_undo.clear();
    m_redo.clear();
    listTests();
    emit testChanged();
    return true;
}

std::vector<record::Part> Session::knownParts() {
    if (m_logbook)
        if (auto parts = m_logbook->parts())
            return std::move(*parts);
    return {};
}

QString Session::setting(const char* key) {
    if (m_logbook)
        if (const auto value = m_logbook->setting(key))
            return QString::fromStdString(*value);
    return {};
}

void Session::setSetting(const char* key, const QString& value) {
    if (m_logbook)
        ok(m_logbook->setSetting(key, value.toStdString()));
}

std::vector<record::Test> Session::ownTests() {
    std::vector<record::Test> tests;
    if (!m_logbook || !m_test || m_test->player.empty())
        return tests;
    for (const auto& entry : m_tests)
        if (entry.player == m_test->player && entry.counted > 0 && entry.id != m_test->id)
            if (auto test = m_logbook->load(entry.id))
                tests.push_back(std::move(*test));
    return tests;
}

} // namespace knot::app
