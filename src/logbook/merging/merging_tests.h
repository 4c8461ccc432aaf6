#pragma once

#include "logbook/merging/merge.h"

#include <map>

namespace knot::logbook {

/// The tests of another logbook come in. Of each test a logbook holds the versions that no other one knows of, deleted
/// ones among them: a version that is known is left, one that knows others takes their place, and so the order in which
/// they meet does not matter. Of those changed apart one whose shots and amendments begin with the other's, with
/// nothing else declared, is in that other one. The caller holds the transaction; throws as the rows do.
class TestsIn {
public:
    TestsIn(SQLite::Database& database, Merged& merged);
    void take(Incoming::OfTest incoming);

private:
    /// A version of a test that stands here, or was deleted here.
    struct Head {
        std::string id;
        Version version;
    };
    std::vector<Head>& heads() { return m_heads[m_group]; }
    bool isKnown(const Incoming::OfTest& incoming, const Head& head);
    bool isWithin(const std::vector<Head>& before, const Incoming::OfTest& incoming);
    bool goesOnFrom(const Incoming::OfTest& incoming, const Head& head);
    static bool mayBeDeclaredAnew(const Incoming::OfTest& incoming, const Head& head);
    void noteGone(const Version& version);
    void takeDeleted(const Incoming::OfTest& incoming);
    void takeVersion(Incoming::OfTest incoming);
    void put(const std::string& id, Incoming::OfTest incoming);
    void keep(const std::string& id, Version version);
    void keepGone(Version version, const std::string& into);
    void free(const std::string& id);
    void drop(const std::string& id);

    SQLite::Database& m_database;
    Merged& m_merged;
    std::string m_group;                              ///< of the one that comes
    std::map<std::string, std::vector<Head>> m_heads; ///< by the test that they are versions of
};

} // namespace knot::logbook
