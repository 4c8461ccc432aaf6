#include "app/demo.h"

#include "app/session/moment.h"

#include "core/simulate/drafts.h"
#include "core/simulate/examples.h"
#include "core/simulate/scenarios.h"

#include <QDateTime>
#include <QDir>
#include <QStandardPaths>

#include <filesystem>

namespace knot::app {
namespace {

std::string minutesAgo(int minutes) {
    return momentText(QDateTime::currentDateTime().addSecs(-60LL * minutes)).toStdString();
}

} // namespace

QString demoPath() {
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
        .filePath(QStringLiteral("Demo.knotbook"));
}

logbook::Result<void> ensureDemo(const std::string& path) {
    std::error_code status;
    if (std::filesystem::exists(path, status) && std::filesystem::file_size(path, status) > 0)
        return {}; // opening it says what is wrong with it
    std::filesystem::create_directories(std::filesystem::path(path).parent_path(), status);
    auto book = std::filesystem::exists(path, status) ? logbook::Logbook::open(path) : logbook::Logbook::create(path);
    if (!book)
        return tl::unexpected(book.error());
    for (const auto& scenario : simulate::scenarios())
        if (auto saved = book->save(simulate::testFrom(scenario)); !saved)
            return tl::unexpected(saved.error());
    for (const auto& draft :
         {simulate::plannedShaftTest(), simulate::shaftTestUnderWay(minutesAgo), simulate::headScreening()})
        if (auto saved = book->save(draft); !saved)
            return tl::unexpected(saved.error());
    for (const auto& example : simulate::examples())
        if (auto saved = book->save(example); !saved)
            return tl::unexpected(saved.error());
    return {};
}

} // namespace knot::app
