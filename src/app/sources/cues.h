#pragma once

#include <QByteArray>
#include <QString>
#include <QTemporaryDir>

#include <memory>
#include <vector>

namespace knot::app {

enum class Cue { shotKept, noReading, handOver, restOver, done };

/// One tone of a cue.
struct Tone {
    double hertz = 440, seconds = 0.1;
};

/// The tones of a cue, and tones as a WAV file (16 bit, mono, 22,050 Hz) with soft ends.
std::vector<Tone> tonesOf(Cue cue);
QByteArray waveOf(const std::vector<Tone>& tones);

/// Plays cues through the sound system's own player, when the user wants them.
class Cues {
public:
    Cues();
    bool isOn() const { return m_on; }
    void turn(bool on);
    /// Whether this computer has something that plays them.
    bool canPlay() const { return !m_player.isEmpty(); }
    void play(Cue cue);

private:
    QString m_player;
    bool m_on = false;
    std::unique_ptr<QTemporaryDir> m_folder; ///< the waves, once they were played
};

} // namespace knot::app
