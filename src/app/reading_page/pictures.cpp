#include "app/reading_page/pictures.h"

#include <QCoreApplication>

namespace knot::app {

QString nameOf(const Looked& looked, record::BuildAt build) {
    return QString::fromStdString(looked.reading.builds[build].name);
}

QString shotText(const Looked& looked, std::size_t shot, const QString& value) {
    const record::Test& test = looked.subject.seen();
    const record::Shot& struck = test.shots[shot];
    const std::string number =
        struck.number.empty() ? std::to_string(looked.subject.numberOfSeen(record::ShotAt(shot))) : struck.number;
    return QCoreApplication::translate("Pictures", "%1, shot %2: %3")
        .arg(nameOf(looked, struck.build), QString::fromStdString(number), value);
}

} // namespace knot::app
