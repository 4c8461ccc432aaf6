#include "app/sources/headings_memory.h"

#include <QSettings>
#include <QVariantMap>

namespace knot::app {

files::HeadingMap rememberedHeadings() {
    files::HeadingMap map;
    const QVariantMap kept = QSettings().value(QStringLiteral("headings")).toMap();
    for (auto it = kept.begin(); it != kept.end(); ++it)
        map[it.key().toStdString()] = it.value().toString().toStdString();
    return map;
}

void rememberHeadings(const files::HeadingMap& map) {
    QVariantMap kept = QSettings().value(QStringLiteral("headings")).toMap();
    for (const auto& [heading, column] : map)
        kept[QString::fromStdString(heading)] = QString::fromStdString(column);
    QSettings().setValue(QStringLiteral("headings"), kept);
}

} // namespace knot::app
