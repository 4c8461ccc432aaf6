#include "app/sources/headings_memory.h"

#include "app/session/book.h"

#include <QCryptographicHash>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSettings>
#include <QVariantMap>

#include <algorithm>

namespace knot::app {
namespace {

// The set of headings as a key of its own.
QByteArray keyOf(std::vector<std::string> headings) {
    std::ranges::sort(headings);
    QCryptographicHash hash(QCryptographicHash::Sha256);
    for (const auto& heading : headings) {
        hash.addData(QByteArray::fromStdString(heading));
        hash.addData(QByteArray(1, '\n'));
    }
    return "headings:" + hash.result().toHex().left(16);
}

files::HeadingMap mapOf(const QVariantMap& kept) {
    files::HeadingMap map;
    for (auto it = kept.begin(); it != kept.end(); ++it)
        map[it.key().toStdString()] = it.value().toString().toStdString();
    return map;
}

} // namespace

files::HeadingMap rememberedHeadings() {
    return mapOf(QSettings().value(QStringLiteral("headings")).toMap());
}

files::HeadingMap rememberedFor(Book& book, const std::vector<std::string>& headings) {
    const QByteArray key = keyOf(headings);
    const QString kept = book.isOpen() ? book.setting(key.constData()) : QString();
    const QString text = kept.isEmpty() ? QSettings().value(QString::fromLatin1(key)).toString() : kept;
    return mapOf(QJsonDocument::fromJson(text.toUtf8()).object().toVariantMap());
}

void rememberFor(Book& book, const std::vector<std::string>& headings, const files::HeadingMap& answers) {
    QVariantMap map;
    for (const auto& [heading, name] : answers)
        map[QString::fromStdString(heading)] = QString::fromStdString(name);
    const QString text =
        QString::fromUtf8(QJsonDocument(QJsonObject::fromVariantMap(map)).toJson(QJsonDocument::Compact));
    const QByteArray key = keyOf(headings);
    if (book.isOpen())
        book.setSetting(key.constData(), text);
    QSettings().setValue(QString::fromLatin1(key), text);
    QVariantMap all = QSettings().value(QStringLiteral("headings")).toMap();
    for (auto it = map.begin(); it != map.end(); ++it)
        all[it.key()] = it.value();
    QSettings().setValue(QStringLiteral("headings"), all);
}

} // namespace knot::app
