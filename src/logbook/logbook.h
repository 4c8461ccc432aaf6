#pragma once

#include "core/record/test.h"
#include "core/record/units.h"
#include "logbook/error.h"
#include "logbook/merging/merge.h"
#include "logbook/players.h"
#include "logbook/progress.h"

#include <memory>
#include <string>
#include <vector>

namespace knot::logbook {

/// What a list of tests shows without loading the shots.
struct TestEntry {
    std::string id, title, question, createdAt;
    std::string players; ///< their names, one after another
    std::vector<std::string> playerIds;
    std::size_t counted = 0, setAside = 0, turns = 0;
    /// Builds with the counted shots of each of their turns, in the order struck.
    struct BuildTurns {
        std::string name;
        std::vector<std::size_t> counted;
    };
    std::vector<BuildTurns> builds;
    /// What was said of it since it was last changed.
    struct Finding {
        int verdict = -1; ///< judge::Verdict; -1 where it only says where the test stands
        std::string text;
        bool operator==(const Finding&) const = default;
    } finding;
};

/// The user's one file: a SQLite database (docs/formats.md). Every change is one transaction that
/// is on disk when the call returns; what could not be read back (record::faultsOf) is refused as
/// invalid, and so is a write to a file that is gone or was replaced. The file is held by the kernel
/// (HeldFile) as long as it is open to write. Not for use from several threads
/// at once.
class Logbook {
public:
    /// Makes a new file, whole or not at all; refuses to replace one.
    static Result<Logbook> create(const std::string& path);
    /// Opens a logbook and holds it: `inUse` where another program does, by whatever name. A foreign,
    /// damaged or newer file is refused and left as it is; an older one is kept beside as it was
    /// ("NAME.format1.knotbook") and brought up to date; an empty one, or one whose making was broken
    /// off, is made anew.
    static Result<Logbook> open(const std::string& path);

    /// Opens one to read, held by another or not: nothing is written, and an older one, or one that a
    /// killed program left, is put right in a copy.
    static Result<Logbook> read(const std::string& path);

    Logbook(Logbook&&) noexcept;
    Logbook& operator=(Logbook&&) noexcept;
    ~Logbook();

    const std::string& path() const { return m_path; }

    /// Newest first.
    Result<std::vector<TestEntry>> tests();
    Result<record::Test> load(const std::string& testId);
    /// Keeps a test whole: a new one gets an id, a known one is replaced. Returns the id. `tell` hears how far it is.
    Result<std::string> save(record::Test test, const Progress& tell = {});
    /// Replaces all of a known test but its shots. A build that was struck may not be taken away.
    Result<void> saveHead(const record::Test& test);
    /// The shots of a known test from place `from` on become those of `test`; those before it stand
    /// there already. One transaction, of as many shots as came together: once it returns, they are on
    /// disk. `from` equal to the number of shots takes away what stands beyond.
    Result<void> saveShots(const record::Test& test, std::size_t from);
    Result<void> saveShotsAndHead(const record::Test& test, std::size_t from);
    /// Whether the file that was opened still stands at its path.
    Result<void> stillThere() const;
    /// Whether a path leads to the file that was opened to write.
    bool isAt(const std::string& path) const;
    /// Puts a file that was deleted while it was open back to its path, with all that was kept in it.
    Result<void> writeAnew();
    Result<void> remove(const std::string& testId);
    /// Adds what another logbook holds, or those tests of it (`merge`). One transaction, and one step.
    Result<Merged> addAll(Logbook& other, const std::vector<std::string>& only = {});
    /// The same with a test that came as a file, under the id that it has there; gives the id that it has here.
    struct Come {
        std::string id;
        bool isNew = false;
    };
    Result<Come> add(record::Test test);
    /// Takes back all that was added by one step, whole; `invalid` where some of it was changed since.
    Result<void> takeBack(const Merged::Step& step);
    /// How a thing came to be as it is.
    Result<Version> version(Thing thing, const std::string& id);

    /// Keeps what was said of a test, for the list. Any change of the test takes it away.
    Result<void> keepFinding(const std::string& testId, const TestEntry::Finding& finding);

    /// By name.
    Result<std::vector<PlayerEntry>> players();
    Result<std::vector<record::Player>> playersOf(const std::string& testId);
    /// Keeps what is known of a player, new or not; another name is theirs in every test. `invalid`
    /// where somebody else of a test is called so.
    Result<void> savePlayer(const record::Player& player);
    /// One player was kept twice: the tests of the first are the second's, who learns what they lacked.
    /// `invalid` where both hit in one test.
    Result<void> joinPlayers(const std::string& from, const std::string& into);
    /// Of a player who is in no test.
    Result<void> removePlayer(const std::string& id);

    Result<record::DisplayUnits> units();
    Result<void> setUnits(const record::DisplayUnits& units);

    /// Every part that a build of some test was made of, by kind and name, each as last used.
    Result<std::vector<record::Part>> parts();

    /// A text kept with the logbook; empty where none was kept.
    Result<std::string> setting(const std::string& key);
    Result<void> setSetting(const std::string& key, const std::string& value);

    /// SQLite's own check of the whole file and of its references, and what keeps a test from being
    /// loaded; an empty list means sound.
    Result<std::vector<std::string>> integrityFaults();

private:
    struct Connection;
    Logbook(std::string path, std::unique_ptr<Connection> connection);
    template<typename Work> auto writing(Work work) -> Result<decltype(work())>;
    template<typename Work> auto changing(const std::string& testId, Work work) -> Result<decltype(work())>;
    static Result<Logbook> make(const std::string& path, bool overBlank);
    void reconnect();
    void replaceShots(const record::Test& test, std::size_t from);
    void expectShots(const record::Test& test, std::size_t from);
    Result<void> struck(const record::Test& test, Result<void> kept);
    Result<Merged> addIncoming(Incoming incoming);
    Result<void> sound(const std::vector<std::string>& faults) const;
    std::string m_path;
    std::unique_ptr<Connection> m_connection;
};

} // namespace knot::logbook
