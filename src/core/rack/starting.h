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

/// A row of a table that goes by speed alone. Speeds in m/s with a driver; of irons and wedges with a seven-iron.
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

/// A row of the table that goes by the body: `what` is height, wrist (to the floor) or hand, in mm. Of height and wrist
/// what to add to a club's length, mm; of the hand a size of grip in words.
struct BodyRow {
    std::string what;
    double from = 0, to = 0, low = 0, high = 0;
    std::string word;
    bool operator==(const BodyRow&) const = default;
};

struct StartingTables {
    std::vector<SpeedRow> speed; ///< woods
    std::vector<TempoRow> tempo;
    std::vector<SpeedRow> iron, wedge;
    std::vector<BodyRow> body;
    bool operator==(const StartingTables&) const = default;
};

/// The tables that ship (data/start_speed.csv, start_tempo.csv, start_iron.csv, start_wedge.csv, start_body.csv).
const StartingTables& usualStartingTables();

/// One row a line, cells by commas, as in those files but without headings; nothing and the reason
/// when a line can't be taken.
std::string speedTableText(const std::vector<SpeedRow>& rows);
std::optional<std::vector<SpeedRow>> speedTableFrom(const std::string& text, std::string& reason);
std::string tempoTableText(const std::vector<TempoRow>& rows);
std::optional<std::vector<TempoRow>> tempoTableFrom(const std::string& text, std::string& reason);

std::string bodyTableText(const std::vector<BodyRow>& rows);
std::optional<std::vector<BodyRow>> bodyTableFrom(const std::string& text, std::string& reason);

/// By speed alone; nothing when no row holds the speed.
std::optional<Bracket> bySpeed(const std::vector<SpeedRow>& rows, double speed);

/// By speed and the word for tempo or transition that comes first in `words`; by speed alone when the
/// table knows none of them.
std::optional<Bracket> bySpeedAndTempo(const std::vector<SpeedRow>& rows, const std::vector<TempoRow>& tempo,
                                       double speed, const std::string& words);

/// What to add to usual lengths, mm, from the lowest to the highest that height and wrist to floor say; nothing where
/// neither is known.
struct Range {
    double low = 0, high = 0;
};
std::optional<Range> lengthFor(const std::vector<BodyRow>& rows, std::optional<double> height,
                               std::optional<double> wristToFloor);

/// A size of grip in words; empty where no row holds the hand.
std::string gripFor(const std::vector<BodyRow>& rows, double hand);

} // namespace knot::rack
