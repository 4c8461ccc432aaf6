#include "app/sources/stand_in.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace knot::app {
namespace {

QString program() {
    const QString folder = QCoreApplication::applicationDirPath();
    for (const char* place : {"/knotcount-monitor", "/../knotcount-monitor", "/../src/knotcount-monitor"})
        if (QFileInfo::exists(folder + QLatin1String(place)))
            return folder + QLatin1String(place);
    return {};
}

} // namespace

StandIn::StandIn(QObject* parent)
    : QObject(parent) {
    connect(&m_process, &QProcess::stateChanged, this, &StandIn::changed);
}

StandIn::~StandIn() {
    m_process.disconnect(this);
    m_process.kill();
    m_process.waitForFinished(500);
}

bool StandIn::start(quint16 port, const QString& code) {
    if (program().isEmpty())
        return false;
    m_process.setProgram(program());
    m_process.setArguments({QStringLiteral("--port"), QString::number(port), QStringLiteral("--code"), code,
                            QStringLiteral("--hand-over"), QStringLiteral("4")});
    m_process.setStandardOutputFile(QProcess::nullDevice());
    m_process.start();
    return true;
}

} // namespace knot::app
