#pragma once

#include "app/bay_page/situation.h"
#include "app/form/key_row.h"

#include <span>

namespace knot::app {

class BayPage;

/// Whether a command means something where a test stands: not at all, it works though no key shows
/// it, it is shown, or it is what is to be done next.
enum class Due { no, works, shown, next };

/// One thing that can be done in the bay. The keys, the key row, the menu, the list of keys on the
/// page and the one in README.md are all made from these.
struct BayCommand {
    int key = 0; ///< Qt::Key; 0: from the menu alone
    bool isShifted = false;
    const char* cap = "";
    const char* help = ""; ///< what it does, in the list of keys: "sets aside with its number seen"
    QString (*title)(const Situation& now) = nullptr;
    QString (*hint)(const Situation& now) = nullptr;
    Due (*due)(const Situation& now) = nullptr;
    void (*run)(BayPage& page) = nullptr;
    /// In the Bay menu: its text, the action's name, and the group it stands in (0: not there).
    const char* menuText = nullptr;
    const char* menuName = nullptr;
    int menuGroup = 0;
    bool ofPlan = false;                         ///< for a planned test alone
    bool (*isOn)(const BayPage& page) = nullptr; ///< a thing that is on or off
};

std::span<const BayCommand> bayCommands();

/// The command of a key that works now, or nullptr.
const BayCommand* commandFor(int key, bool isShifted, const Situation& now);

/// The keys that mean something now, in the table's order, eight at most.
QList<KeyRow::Entry> keysFor(const Situation& now);

/// "Enter confirms what is due, Space calls a mishit, …": every key once, for the help and README.md.
QString keyParagraph();

/// The keys on clubs that wait for their tags, alone: as many as a test may have clubs.
inline constexpr std::size_t mostTagKeys = 12;

} // namespace knot::app
