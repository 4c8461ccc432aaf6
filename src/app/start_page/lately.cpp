#include "app/start_page/lately.h"

#include "core/bay/stand.h"
#include "core/record/number_text.h"
#include "core/words/headline.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSettings>

namespace knot::app {
namespace {

constexpr const char* key = "lately";
constexpr std::size_t most = 6;

// "lap 3 of 5: go on", "24 shots", "not struck yet"
QString whereItStands(const record::Test& test) {
    auto tr = [](const char* text) { return QCoreApplication::translate("Lately", text); };
    if (test.shots.empty())
        return tr("not struck yet");
    const auto stand = bay::standOf(test);
    if (const auto* stint = stand.stint())
        return tr("lap %1 of %2: go on").arg(stint->round).arg(stand.rounds);
    return QString::fromStdString(record::counted(test.shots.size(), "shot"));
}

} // namespace

Lately latelyOf(const QString& path, const record::Test& test, const judge::Reading* reading,
                const record::DisplayUnits& units) {
    Lately one{.path = path, .id = QString::fromStdString(test.id), .title = QString::fromStdString(test.title)};
    one.said = whereItStands(test);
    const bool underWay = bay::standOf(test).stint() != nullptr;
    if (reading != nullptr && test.stage == record::Stage::test && !underWay && !test.shots.empty()) {
        const auto headline = words::headlineOf(*reading, units);
        one.said = QString::fromStdString(headline.text);
        one.verdict = static_cast<int>(headline.verdict);
    }
    return one;
}

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
