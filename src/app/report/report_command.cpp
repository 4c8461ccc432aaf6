#include "app/report/report_command.h"

#include "app/report/report.h"
#include "app/style/words.h"
#include "core/judge/days/earlier.h"
#include "core/judge/judge.h"
#include "core/judge/may_see.h"
#include "core/words/headline.h"
#include "logbook/logbook.h"

#include <algorithm>

namespace knot::app {
namespace {

// The one whose id or title is said, else the first whose title holds it.
const logbook::TestEntry* entryOf(const std::vector<logbook::TestEntry>& entries, const QString& said) {
    const std::string text = said.toStdString();
    auto at = std::ranges::find_if(entries, [&](const auto& one) { return one.id == text || one.title == text; });
    if (at == entries.end())
        at = std::ranges::find_if(entries, [&](const auto& one) {
            return QString::fromStdString(one.title).contains(said, Qt::CaseInsensitive);
        });
    return at == entries.end() ? nullptr : &*at;
}

} // namespace

QString writeReport(const QString& path, const QString& logbook, const QString& test, bool withAppendix) {
    auto book = logbook::Logbook::read(logbook.toStdString());
    if (!book)
        return QString::fromStdString(logbook::sentence(book.error()));
    const auto entries = book->tests();
    if (!entries)
        return QString::fromStdString(logbook::sentence(entries.error()));
    const logbook::TestEntry* entry = entryOf(*entries, test);
    if (entry == nullptr)
        return tr("%1 holds no test called “%2”.").arg(logbook, test);
    std::vector<record::Test> others;
    std::optional<record::Test> meant;
    for (const logbook::TestEntry& one : *entries) {
        auto loaded = book->load(one.id);
        if (!loaded && one.id == entry->id)
            return QString::fromStdString(logbook::sentence(loaded.error()));
        if (loaded)
            one.id == entry->id ? void(meant = std::move(*loaded)) : others.push_back(std::move(*loaded));
    }
    if (meant->shots.empty())
        return tr("“%1” has no shots to report on.").arg(QString::fromStdString(meant->title));
    if (const auto laps = judge::withheld(*meant))
        return QString::fromStdString(words::withheldSentences(*laps));
    const judge::Case subject = judge::Case::of(*meant);
    const auto reading = judge::judge({.subject = subject, .earlier = judge::learntFrom(std::move(others), *meant)});
    ReportLook look = ReportLook::kept();
    look.appendix = withAppendix;
    return saveReport(reportOf({.test = *meant,
                                .subject = subject,
                                .reading = *reading,
                                .units = book->units().value_or(record::DisplayUnits{}),
                                .look = look}),
                      look.paper, path);
}

} // namespace knot::app
