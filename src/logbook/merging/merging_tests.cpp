#include "logbook/merging/merging_tests.h"

#include "logbook/listing.h"
#include "logbook/players.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>

namespace knot::logbook {
namespace {

using record::Test;
using SQLite::Database;
using SQLite::Statement;

bool isSame(const Test& a, const Test& b) {
    Test one = withoutRecords(a);
    one.id = b.id;
    return one == withoutRecords(b);
}

void removeTest(Database& database, const std::string& id) {
    forgetFinding(database, id);
    Statement s(database, "DELETE FROM test WHERE id = ?");
    s.bind(1, id);
    s.exec();
}

// Where nobody knows how a version came to be, what it holds is all that speaks for it.
bool knowsHowItCame(const Version& version) {
    return std::ranges::any_of(version.changes, [](const auto& one) { return !one.first.starts_with(byContent); });
}

template<typename T> bool beginsWith(const std::vector<T>& longer, const std::vector<T>& shorter) {
    return longer.size() >= shorter.size() && std::equal(shorter.begin(), shorter.end(), longer.begin());
}

// Whether one test is another with more struck or noted, and nothing else.
bool goesOn(const Test& longer, const Test& shorter, bool mayBeDeclaredAnew) {
    const Test a = withoutRecords(longer);
    const Test b = withoutRecords(shorter);
    return a.shots.size() + a.amendments.size() > b.shots.size() + b.amendments.size() &&
           beginsWith(a.shots, b.shots) && beginsWith(a.amendments, b.amendments) &&
           (mayBeDeclaredAnew || static_cast<const record::Declared&>(a) == b);
}

} // namespace

TestsIn::TestsIn(Database& database, Merged& merged)
    : m_database(database)
    , m_merged(merged) {
    for (auto& [id, version] : versionsOf(database, Thing::test))
        m_heads[version.of].push_back({id, std::move(version)});
}

void TestsIn::take(Incoming::OfTest incoming) {
    m_group = incoming.version.of;
    const auto known = std::ranges::find_if(heads(), [&](const Head& head) { return isKnown(incoming, head); });
    if (known == heads().end())
        return incoming.test ? takeVersion(std::move(incoming)) : takeDeleted(incoming);
    if (incoming.test && known->version.isDeleted())
        noteGone(known->version);
    else if (incoming.test)
        m_merged.known.push_back(known->id);
}

// It is in another version, or was deleted.
void TestsIn::noteGone(const Version& version) {
    const auto into = std::ranges::find_if(
        heads(), [&](const Head& head) { return !version.joined.empty() && !head.version.isDeleted(); });
    if (into != heads().end())
        m_merged.known.push_back(into->id);
    else
        ++m_merged.gone;
}

// What is deleted at a version is gone, whoever still has it.
bool TestsIn::isKnown(const Incoming::OfTest& incoming, const Head& head) {
    const Order order = orderOf(incoming.version, head.version);
    if (order != Order::same)
        return order == Order::earlier;
    return head.version.isDeleted() || (incoming.test && isSame(readTest(m_database, head.id), *incoming.test));
}

void TestsIn::keep(const std::string& id, Version version) {
    keepVersion(m_database, Thing::test, id, version);
    std::erase_if(heads(), [&](const Head& head) { return head.id == id; });
    heads().push_back({id, std::move(version)});
}

void TestsIn::drop(const std::string& id) {
    removeTest(m_database, id);
    Statement s(m_database, "DELETE FROM version WHERE thing = 'test' AND id = ?");
    s.bind(1, id);
    s.exec();
    std::erase_if(heads(), [&](const Head& head) { return head.id == id; });
}

// A version that is in another one, under an id of its own, so that it is known when it comes again.
void TestsIn::keepGone(Version version, const std::string& into) {
    if (version.deletedAt.empty())
        version.deletedAt = version.changedAt.empty() ? "gone" : version.changedAt;
    version.joined = into;
    keep(idOf(version), std::move(version));
}

// An id for a test: what was deleted under it is remembered under another.
void TestsIn::free(const std::string& id) {
    const auto taken = std::ranges::find(heads(), id, &Head::id);
    if (taken == heads().end())
        return;
    const Version gone = taken->version;
    drop(id);
    keep(idOf(gone), gone);
}

void TestsIn::takeDeleted(const Incoming::OfTest& incoming) {
    const std::vector<Head> before = heads();
    for (const Head& head : before)
        if (const Order order = orderOf(head.version, incoming.version);
            order == Order::earlier || order == Order::same) {
            if (!head.version.isDeleted() && incoming.version.joined.empty())
                m_merged.deleted.push_back(head.id);
            drop(head.id);
        }
    const bool isTaken = std::ranges::find(heads(), incoming.id, &Head::id) != heads().end();
    keep(isTaken ? idOf(incoming.version) : incoming.id, incoming.version);
}

void TestsIn::takeVersion(Incoming::OfTest incoming) {
    const std::vector<Head> before = heads();
    if (isWithin(before, incoming))
        return;
    std::optional<std::string> place;
    bool wasDeletedApart = false;
    bool wasDeleted = false;
    std::optional<std::string> beside;
    for (const Head& head : before) {
        const bool isEarlier = orderOf(head.version, incoming.version) == Order::earlier;
        if (head.version.isDeleted()) {
            (isEarlier ? wasDeleted : wasDeletedApart) |= head.version.joined.empty();
            if (isEarlier)
                drop(head.id);
        } else if (isEarlier || goesOnFrom(incoming, head)) {
            if (!place || head.id == m_group) {
                place = head.id;
                m_merged.fewer += incoming.test->shots.size() < readTest(m_database, head.id).shots.size() ? 1 : 0;
            }
            drop(head.id);
            if (!isEarlier)
                keepGone(head.version, head.id);
        } else {
            beside = beside.value_or(head.id);
        }
    }
    if (place)
        return put(m_merged.later.emplace_back(*place), std::move(incoming));
    const bool isTaken = beside && std::ranges::any_of(before, [&](const Head& head) {
                             return head.id == incoming.id && !head.version.isDeleted();
                         });
    const std::string id = isTaken ? idBeside(*incoming.test) : incoming.id;
    if (beside)
        m_merged.conflicts.push_back({*beside, id});
    else
        (wasDeletedApart && !wasDeleted ? m_merged.back : m_merged.added).push_back(id);
    put(id, std::move(incoming));
}

// Of versions that were changed apart some are the same in the end, or go on from what comes.
bool TestsIn::isWithin(const std::vector<Head>& before, const Incoming::OfTest& incoming) {
    for (const Head& head : before) {
        if (head.version.isDeleted() || orderOf(head.version, incoming.version) == Order::earlier)
            continue;
        const Test own = readTest(m_database, head.id);
        const bool isTheSame = isSame(own, *incoming.test);
        if (!isTheSame && !goesOn(own, *incoming.test, mayBeDeclaredAnew(incoming, head)))
            continue;
        m_merged.known.push_back(head.id);
        if (isTheSame && head.version.changes < incoming.version.changes) { // the same one stands everywhere
            Version stays = incoming.version;
            stays.of = m_group;
            keep(head.id, stays);
            keepGone(head.version, head.id);
        } else {
            keepGone(incoming.version, head.id);
        }
        return true;
    }
    return false;
}

// Where nobody knows how one of them came to be, what was struck is all that tells which is the later.
bool TestsIn::mayBeDeclaredAnew(const Incoming::OfTest& incoming, const Head& head) {
    return !knowsHowItCame(head.version) || !knowsHowItCame(incoming.version);
}

bool TestsIn::goesOnFrom(const Incoming::OfTest& incoming, const Head& head) {
    return goesOn(*incoming.test, readTest(m_database, head.id), mayBeDeclaredAnew(incoming, head));
}

void TestsIn::put(const std::string& id, Incoming::OfTest incoming) {
    free(id);
    incoming.test->id = id;
    takeKeptNames(m_database, *incoming.test);
    insertTest(m_database, *incoming.test);
    incoming.version.of = m_group;
    keep(id, std::move(incoming.version));
}

} // namespace knot::logbook
