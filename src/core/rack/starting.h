#pragma once

#include <optional>
#include <string>
#include <vector>

namespace knot::rack {

/// A shaft weight and flex to start looking at; only ever a bracket.
struct Bracket {
    double fromGrams = 0, toGrams = 0;
    std::string flex;
    bool operator==(const Bracket&) const = default;
};

/// A row of the table that goes by speed alone. Speeds in m/s with a driver.
struct SpeedRow {
    double fromSpeed = 0, toSpeed = 0;
    Bracket bracket;
    bool operator==(const SpeedRow&) const = default;
};

/// What a transition adds to that: grams, and steps along the flexes of the table.
struct TempoRow {
    std::string transition;
    double grams = 0;
    int flexSteps = 0;
    bool operator==(const TempoRow&) const = default;
};

struct StartingTables {
    std::vector<SpeedRow> speed;
    std::vector<TempoRow> tempo;
    bool operator==(const StartingTables&) const = default;
};

/// The tables that ship (data/start_speed.csv, data/start_tempo.csv).
const StartingTables& usualStartingTables();

/// One row a line, cells by commas, as in those files but without headings; nothing and the reason
/// when a line can't be taken.
std::string speedTableText(const std::vector<SpeedRow>& rows);
std::optional<std::vector<SpeedRow>> speedTableFrom(const std::string& text, std::string& reason);
std::string tempoTableText(const std::vector<TempoRow>& rows);
std::optional<std::vector<TempoRow>> tempoTableFrom(const std::string& text, std::string& reason);

/// By speed alone; nothing when no row holds the speed.
std::optional<Bracket> bySpeed(const StartingTables& tables, double speed);

/// By speed and the word for tempo or transition that comes first in `words`; by speed alone when the
/// table knows none of them.
std::optional<Bracket> bySpeedAndTempo(const StartingTables& tables, double speed, const std::string& words);

} // namespace knot::rack
