#include "app/sources/cues.h"

#include <QDataStream>
#include <QFile>
#include <QProcess>
#include <QSettings>
#include <QStandardPaths>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace knot::app {
namespace {

constexpr int rate = 22050;
constexpr double loudness = 0.25, softEnd = 0.012; // s

QString playerOf() {
    for (const char* name : {"pw-play", "paplay", "aplay"})
        if (const QString path = QStandardPaths::findExecutable(QLatin1String(name)); !path.isEmpty())
            return path;
    return {};
}

} // namespace

std::vector<Tone> tonesOf(Cue cue) {
    switch (cue) {
    case Cue::shotKept:
        return {{660, 0.07}};
    case Cue::noReading:
        return {{294, 0.16}, {0, 0.06}, {294, 0.16}};
    case Cue::handOver:
        return {{523, 0.1}, {784, 0.14}};
    case Cue::restOver:
        return {{784, 0.1}, {0, 0.08}, {784, 0.1}, {0, 0.08}, {784, 0.1}};
    case Cue::done:
        return {{523, 0.12}, {659, 0.12}, {784, 0.24}};
    }
    return {};
}

QByteArray waveOf(const std::vector<Tone>& tones) {
    QByteArray samples;
    QDataStream out(&samples, QIODevice::WriteOnly);
    out.setByteOrder(QDataStream::LittleEndian);
    for (const Tone& tone : tones) {
        const int count = static_cast<int>(tone.seconds * rate);
        for (int i = 0; i < count; ++i) {
            const double fromEnd = std::min(i, count - 1 - i) / (softEnd * rate);
            const double value =
                loudness * std::min(1.0, fromEnd) * std::sin(2 * std::numbers::pi * tone.hertz * i / rate);
            out << static_cast<qint16>(std::lround(value * 32767));
        }
    }
    QByteArray wave;
    QDataStream head(&wave, QIODevice::WriteOnly);
    head.setByteOrder(QDataStream::LittleEndian);
    head.writeRawData("RIFF", 4);
    head << static_cast<quint32>(36 + samples.size());
    head.writeRawData("WAVEfmt ", 8);
    head << quint32{16} << quint16{1} << quint16{1} << quint32{rate} << quint32{2 * rate} << quint16{2} << quint16{16};
    head.writeRawData("data", 4);
    head << static_cast<quint32>(samples.size());
    return wave + samples;
}

Cues::Cues()
    : m_player(playerOf())
    , m_on(QSettings().value(QStringLiteral("bay/sounds"), false).toBool()) {}

void Cues::turn(bool on) {
    m_on = on;
    QSettings().setValue(QStringLiteral("bay/sounds"), on);
}

void Cues::play(Cue cue) {
    if (!m_on || m_player.isEmpty())
        return;
    if (!m_folder)
        m_folder = std::make_unique<QTemporaryDir>();
    const QString path = m_folder->filePath(QString::number(static_cast<int>(cue)) + QStringLiteral(".wav"));
    if (!QFile::exists(path)) {
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly) || file.write(waveOf(tonesOf(cue))) < 0)
            return;
    }
    QProcess::startDetached(m_player, {path});
}

} // namespace knot::app
