#include "app/lists/lately.h"

#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSettings>

namespace knot::app {
namespace {

constexpr const char* key = "lately";
constexpr std::size_t most = 6;

} // namespace

std::vector<Lately> lately() {
    std::vector<Lately> tests;
    const auto kept = QJsonDocument::fromJson(QSettings().value(QLatin1String(key)).toString().toUtf8()).array();
    for (const auto& value : kept) {
        const auto test = value.toObject();
        Lately one{test.value(QStringLiteral("path")).toString(), test.value(QStringLiteral("id")).toString(),
                   test.value(QStringLiteral("title")).toString(), test.value(QStringLiteral("said")).toString(),
                   test.value(QStringLiteral("verdict")).toInt(-1)};
        if (!one.id.isEmpty() && QFileInfo::exists(one.path) && tests.size() < most)
            tests.push_back(std::move(one));
    }
    return tests;
}

void rememberLately(const Lately& test) {
    QJsonArray all;
    auto add = [&](const Lately& one) {
        all.append(QJsonObject{{QStringLiteral("path"), one.path},
                               {QStringLiteral("id"), one.id},
                               {QStringLiteral("title"), one.title},
                               {QStringLiteral("said"), one.said},
                               {QStringLiteral("verdict"), one.verdict}});
    };
    add(test);
    for (const auto& other : lately())
        if (other.id != test.id && static_cast<std::size_t>(all.size()) < most)
            add(other);
    QSettings().setValue(QLatin1String(key), QString::fromUtf8(QJsonDocument(all).toJson(QJsonDocument::Compact)));
}

} // namespace knot::app
