#include "app/reading_page/pictures.h"

#include <QCoreApplication>

namespace knot::app {

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
