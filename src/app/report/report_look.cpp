#include "app/report/report.h"

#include <QBuffer>
#include <QLocale>
#include <QSettings>

namespace knot::app {
namespace {

QString shopKey() {
    return QStringLiteral("shop");
}
QString markKey() {
    return QStringLiteral("shopMark");
}
QString appendixKey() {
    return QStringLiteral("appendix");
}
QString paperKey() {
    return QStringLiteral("paper");
}

} // namespace

ReportLook ReportLook::kept() {
    const QSettings settings;
    const bool isLetterHere = QLocale::system().measurementSystem() == QLocale::ImperialUSSystem;
    const QString paper = settings.value(paperKey()).toString();
    const bool isLetter = paper.isEmpty() ? isLetterHere : paper == QStringLiteral("Letter");
    return {.shop = settings.value(shopKey()).toString(),
            .mark = QImage::fromData(settings.value(markKey()).toByteArray()),
            .appendix = settings.value(appendixKey()).toBool(),
            .paper = isLetter ? QPageSize::Letter : QPageSize::A4};
}

// The mark itself is kept, not where it was: its file may go.
void ReportLook::keep() const {
    QByteArray png;
    QBuffer buffer(&png);
    buffer.open(QIODevice::WriteOnly);
    if (!mark.isNull())
        mark.save(&buffer, "PNG");
    QSettings settings;
    settings.setValue(shopKey(), shop);
    settings.setValue(markKey(), png);
    settings.setValue(appendixKey(), appendix);
    settings.setValue(paperKey(), paper == QPageSize::Letter ? QStringLiteral("Letter") : QStringLiteral("A4"));
}

} // namespace knot::app
