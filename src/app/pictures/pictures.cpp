#include "app/pictures/pictures.h"

#include <QCoreApplication>

#include <algorithm>
#include <array>

namespace knot::app {

std::unique_ptr<Picture> pictureOf(PictureKind kind, const Looked& looked) {
    switch (kind) {
    case PictureKind::table:
        return tablePicture(looked);
    case PictureKind::cords:
        return cordsPicture(looked);
    case PictureKind::landing:
        return landingPicture(looked);
    case PictureKind::flight:
        return flightPicture(looked);
    case PictureKind::face:
        return facePicture(looked);
    case PictureKind::order:
        return orderPicture(looked);
    case PictureKind::luck:
        return luckPicture(looked);
    case PictureKind::parts:
        return partsPicture(looked);
    case PictureKind::along:
        return alongPicture(looked);
    case PictureKind::factors:
        return factorsPicture(looked);
    case PictureKind::window:
        return windowPicture(looked);
    case PictureKind::delivery:
        return deliveryPicture(looked);
    case PictureKind::bag:
        return bagPicture(looked);
    }
    return nullptr;
}

bool isThere(PictureKind kind, const record::Test& seen, const judge::Reading& reading) {
    using record::Metric;
    const auto read = [&](std::initializer_list<Metric> metrics) {
        return std::ranges::all_of(metrics, [&](Metric metric) {
            return std::ranges::find(reading.metrics, metric) != reading.metrics.end();
        });
    };
    const auto anyShot = [&](std::initializer_list<Metric> metrics) {
        return std::ranges::any_of(seen.shots, [&](const record::Shot& shot) {
            return std::ranges::all_of(metrics, [&](Metric metric) { return shot.readings.at(metric).has_value(); });
        });
    };
    switch (kind) {
    case PictureKind::landing:
        return anyShot({Metric::side, Metric::carry});
    case PictureKind::flight:
        return read({Metric::ballSpeed, Metric::launch, Metric::spin});
    case PictureKind::face:
        return anyShot({Metric::strikeToe, Metric::strikeHigh});
    case PictureKind::luck:
        return std::ranges::any_of(reading.average, [](const auto& row) { return row.shuffle.has_value(); });
    case PictureKind::parts:
        return !reading.parts.empty() || !reading.whoseDoing.empty();
    case PictureKind::along:
        return !reading.trend.empty();
    case PictureKind::factors:
        return !reading.card.factorColumn.empty();
    case PictureKind::window:
        return read({Metric::launch, Metric::spin}) || read({Metric::descent, Metric::carry});
    case PictureKind::delivery:
        return read({Metric::dynamicLoft}) || read({Metric::attack});
    case PictureKind::bag:
        return !reading.kind.areOne && read({Metric::carry});
    case PictureKind::table:
    case PictureKind::cords:
    case PictureKind::order:
        break;
    }
    return true;
}

bool isOfOneNumber(PictureKind kind) {
    return kind != PictureKind::landing && kind != PictureKind::flight && kind != PictureKind::window &&
           kind != PictureKind::delivery && kind != PictureKind::bag;
}

bool isOfShots(PictureKind kind) {
    constexpr std::array ofAll = {PictureKind::order, PictureKind::luck, PictureKind::parts, PictureKind::along,
                                  PictureKind::factors};
    return std::ranges::find(ofAll, kind) == ofAll.end();
}

QString nameOf(const Looked& looked, record::BuildAt build) {
    return QString::fromStdString(looked.reading.builds[build].name);
}

QString shotText(const judge::Case& subject, const record::Structure& structure, std::size_t shot,
                 const QString& value) {
    const record::Test& test = subject.seen();
    const record::Shot& struck = test.shots[shot];
    const std::string number =
        struck.number.empty() ? std::to_string(subject.numberOfSeen(record::ShotAt(shot))) : struck.number;
    QString text = QCoreApplication::translate("Pictures", "%1, shot %2")
                       .arg(QString::fromStdString(test.builds[struck.build].name), QString::fromStdString(number));
    if (const auto& round = structure.turns[structure.turnOfShot[shot]].round)
        text +=
            QCoreApplication::translate("Pictures", ", lap %1").arg(QString::fromStdString(structure.rounds[*round]));
    return text + QStringLiteral(": ") + value;
}

QString shotText(const Looked& looked, std::size_t shot, const QString& value) {
    return shotText(looked.subject, looked.structure, shot, value);
}

} // namespace knot::app
