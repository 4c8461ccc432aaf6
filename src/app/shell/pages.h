#pragma once

#include <QCoreApplication>
#include <QKeySequence>

#include <array>

namespace knot::app {

/// The stages of a test, and the pages before there is one.
enum class PageId { logbook, sheet, rack, plan, bay, reading, decision, start, import, players, report };

/// A page as it is named on the spine, in the Go menu, by `--page` and by Alt and its number.
struct PageEntry {
    PageId id = PageId::logbook;
    const char* word = "";   ///< as `--page` takes it
    const char* menu = "";   ///< with its key in the menu
    const char* action = ""; ///< the action's name
};

/// The stages, in the order in which a test goes through them.
inline constexpr std::array<PageEntry, 7> pageEntries = {
    {{PageId::logbook, "logbook", QT_TRANSLATE_NOOP("Pages", "&Logbook"), "actionLogbook"},
     {PageId::sheet, "sheet", QT_TRANSLATE_NOOP("Pages", "&Test sheet"), "actionSheet"},
     {PageId::rack, "rack", QT_TRANSLATE_NOOP("Pages", "&Clubs"), "actionRack"},
     {PageId::plan, "plan", QT_TRANSLATE_NOOP("Pages", "&Plan"), "actionPlan"},
     {PageId::bay, "bay", QT_TRANSLATE_NOOP("Pages", "&Bay"), "actionBay"},
     {PageId::reading, "reading", QT_TRANSLATE_NOOP("Pages", "&Result"), "actionReading"},
     {PageId::decision, "decision", QT_TRANSLATE_NOOP("Pages", "&Decision"), "actionDecision"}}};

/// Pages that there is nothing on before a shot is struck.
constexpr bool isOfShots(PageId id) {
    return id == PageId::reading || id == PageId::decision || id == PageId::report;
}

/// The page's name without its menu key.
inline QString nameOf(const PageEntry& page) {
    return QCoreApplication::translate("Pages", page.menu).remove(QLatin1Char('&'));
}

} // namespace knot::app
