#pragma once

#include "core/record/typed/amount.h"
#include "core/record/units.h"
#include "logbook/logbook.h"

#include <QObject>
#include <QString>

#include <optional>

namespace knot::app {

/// Where a logbook of one's own stands when none was chosen.
QString ownLogbookPath();

/// The open logbook: the file, which it holds, and the list of its tests. They are replaced together,
/// once the new file is open and held; what is refused leaves all as it was. A file that
/// was deleted while it was open is put back by the next write, and says so.
class Book : public QObject {
    Q_OBJECT

public:
    explicit Book(QObject* parent = nullptr);
    ~Book() override;

    bool isOpen() const { return m_logbook.has_value(); }
    /// Empty while none is open.
    QString path() const;
    /// Opens a logbook that exists.
    bool open(const QString& path);
    /// The same, making it where it does not exist.
    bool openOrMake(const QString& path);
    /// Keeps a test in the logbook at `path`, made if need be, and opens that one; gives its new id.
    std::optional<std::string> keepIn(const QString& path, record::Test test);

    /// Newest first. `listIfStale` asks the file anew where something was written.
    const std::vector<logbook::TestEntry>& tests() const { return m_tests; }
    void listIfStale();

    std::optional<record::Test> load(const std::string& id);
    /// The same without a word where it can't be loaded.
    std::optional<record::Test> peek(const std::string& id);
    /// How often tests were written or taken away; where it is the same, what was loaded is true still.
    std::size_t writes() const { return m_writes; }
    /// Gives the id.
    std::optional<std::string> save(const record::Test& test);
    bool saveHead(const record::Test& test);
    /// Shots from a place on, with the head where that changed; what fails is the caller's to try again.
    logbook::Result<void> saveStruck(const record::Test& test, std::size_t from, bool headChanged);
    bool remove(const std::string& id);
    /// Adds another logbook, which stays as it is (`logbook::merge`), and takes that back as one step.
    std::optional<logbook::Merged> addAllOf(const QString& path);
    bool takeBack(const logbook::Merged::Step& step);
    /// Keeps a test that came as a file: where it stands here already, the later one stays. Gives its id here.
    std::optional<logbook::Logbook::Come> add(const record::Test& test);
    /// A new logbook that holds this test alone, with the id it has.
    bool makeWith(const QString& path, const record::Test& test);
    /// Keeps what was said of a test, for the list; no word where the disk will not.
    void keepFinding(const std::string& id, const logbook::TestEntry::Finding& finding);

    const record::DisplayUnits& units() const { return m_units; }
    /// The user's choice, or the distances and speeds of a file that was taken in where the user chose none.
    enum class UnitsBy { user, file };
    void setUnits(const record::DisplayUnits& units, UnitsBy who = UnitsBy::user);
    /// How people type where this is: in these units, with the decimals of the locale.
    record::Typing typing() const;
    /// A text kept with the logbook; empty where none was kept.
    QString setting(const char* key);
    void setSetting(const char* key, const QString& value);
    /// Parts of the logbook's clubs, to build others from.
    const std::vector<record::Part>& knownParts();
    /// A shop's stock from a table: its parts can be typed from then on. Says how many, or why
    /// not; no path is nothing wanted.
    bool addStock(const QString& path);

    /// Who hits, by name; kept once for all tests.
    const std::vector<logbook::PlayerEntry>& players();
    /// The player of a name, or a new one, who is kept with the first test that they are in. Somebody who gave no name
    /// is called by one that nobody of the logbook or among the others of a test has: "Player 2".
    record::Player playerCalled(const std::string& name, const std::vector<record::Player>& others = {});
    std::vector<record::Player> playersOf(const std::string& testId);
    bool savePlayer(const record::Player& player);
    bool joinPlayers(const std::string& from, const std::string& into);
    bool removePlayer(const std::string& id);

signals:
    /// Players were changed, joined or taken away.
    void playersChanged();
    /// Another logbook is open, or its list has changed.
    void changed();
    /// What was said of a test of the list is another.
    void found(const std::string& id, const logbook::TestEntry::Finding& finding);
    /// Numbers are shown in other units, or another chart says what is wanted of them.
    void unitsChanged();
    void refused(const QString& sentence);
    void noted(const QString& sentence);
    /// How far a save is that takes long; empty once it is done. Nothing else may be done meanwhile.
    void saving(const QString& words);

private:
    enum class Missing { refuse, make };
    std::optional<logbook::Logbook> acquire(const QString& path, Missing missing);
    void adopt(logbook::Logbook opened);
    bool isOpenAt(const QString& path) const;
    template<typename Write> auto written(Write write) -> decltype(write());
    template<typename Write> bool changePlayers(Write write);
    void list();
    void forgetLists();
    void showIn(const record::DisplayUnits& units);
    logbook::Result<std::string> savedIn(logbook::Logbook& logbook, const record::Test& test);
    template<typename T> bool ok(const logbook::Result<T>& result);

    std::optional<logbook::Logbook> m_logbook;
    std::vector<logbook::TestEntry> m_tests;
    std::optional<std::vector<record::Part>> m_parts;
    std::optional<std::vector<logbook::PlayerEntry>> m_players;
    record::DisplayUnits m_units;
    bool m_unitsChosen = false; ///< by the user, since this logbook was opened
    bool m_stale = false;
    std::size_t m_writes = 0;
};

} // namespace knot::app
