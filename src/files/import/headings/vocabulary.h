#pragma once

#include "core/record/player.h"
#include "core/record/shot_fields.h"
#include "core/record/units.h"

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace knot::files {

/// What a column of a shot file holds. A date and a time of day are parts of when a shot was struck.
enum class ColumnRole { metric, build, field, date, time, extra };

/// What becomes of readings that cannot be, or are none ("***", 0 rpm, 6.476 for 6,476): not decided, kept as they
/// stand, not measured, or thousands that a point parts; and
/// sides that lie the other way.
enum class Doubtful { undecided, asItStands, leftOut, thousands, turned };

struct ColumnMeaning {
    ColumnRole role = ColumnRole::extra;
    record::Metric metric = record::Metric::carry; ///< for `metric`
    record::Unit unit = record::Unit::one;         ///< for `metric`
    const record::ShotField* field = nullptr;      ///< for `field`
    Doubtful doubtful = Doubtful::undecided;       ///< for `metric`
    bool isTurned = false; ///< for `metric`: its heading says that + lies to the left, the heel, below or closed
    std::string heading;   ///< as it stands in the file

    /// The same measurement, field or role, in whatever unit.
    bool holdsSameAs(const ColumnMeaning& other) const;
};

/// The name that a column of our own files would have: "carry_yd", "build", "player"; empty for text. What was decided
/// of readings that cannot be stands behind it: "spin_rpm; left out".
std::string canonicalName(const ColumnMeaning& meaning);
/// The key of a metric without its unit: "carry_m" → "carry".
const std::string& stemOf(record::Metric metric);

/// A heading in words: lower case, abbreviations written out, its unit apart.
struct HeadingWords {
    std::vector<std::string> words;
    std::optional<record::Unit> unit;
    std::string unitText;                      ///< as it is written
    std::string unknownUnit;                   ///< what stands in brackets, or behind a key, and is no unit
    std::optional<record::Side> positive = {}; ///< where it says which side is +: "(R+/L-)", "left = +"
    Doubtful doubtful = Doubtful::undecided;   ///< behind a canonical name
};

/// What a heading may mean, and how surely: 1 is its own name; what is misspelt or has a word too many
/// has less.
struct Candidate {
    ColumnMeaning meaning; ///< without unit
    double score = 0;
    std::string phrase; ///< that it was read as
};

/// The words of other people's files (data/headings.csv): headings, abbreviations, units, sides,
/// missing readings, averages. Every key and label of this program is among them.
class Vocabulary {
public:
    static const Vocabulary& own();

    HeadingWords wordsOf(const std::string& heading) const;
    /// Best first; those under 0.6 are left out.
    std::vector<Candidate> candidatesFor(const HeadingWords& heading) const;
    /// A canonical name such as "carry_yd" or "build", by hand; nothing where it is none.
    std::optional<ColumnMeaning> meaningNamed(const std::string& name) const;

    /// Abbreviations written out, and without words that say nothing.
    std::vector<std::string> canonicalWords(const std::vector<std::string>& words) const;
    std::optional<record::Unit> unitNamed(std::string_view text) const;
    /// −1 or +1 for a side's letter or word: left is negative.
    std::optional<record::Side> sideNamed(std::string_view text) const;
    /// "Location", "Course": where it was struck.
    bool isPlace(const std::string& heading) const;
    /// "straight", "on line": on neither side.
    bool isMiddle(std::string_view text) const;
    /// Whether a metric lies to two sides: left and right, up and down, open and closed, heel and toe.
    bool hasSides(record::Metric metric) const;
    /// Whether a heading names a part of a club that may be what is compared: "Shaft", "Loft".
    bool saysPartOfClub(const HeadingWords& heading) const;
    /// Whether some heading holds this word (lower case).
    bool isKnownWord(std::string_view word) const;
    /// "--", "n/a", "#DIV/0!": nothing was read.
    bool isMissing(std::string_view text) const;
    /// "Average", "Std. Dev.", "7 iron average": a row that sums up others. In a column of any text only the surer
    /// words say so: "best" and "all" may be said of a shot.
    enum class LabelIn { names, anyText };
    bool isSummary(std::string_view text, LabelIn where = LabelIn::names) const;
    struct Range {
        double low = 0, high = 0; ///< SI
    };
    /// What readings of a metric usually lie between.
    Range usualRange(record::Metric metric) const;

private:
    Vocabulary();
    std::vector<Candidate> weighed(const HeadingWords& heading) const;
    struct Phrase {
        std::vector<std::string> words;
        ColumnMeaning meaning;
        double weight = 1;
        std::string text;
    };
    void addPhrase(const std::string& written, const ColumnMeaning& meaning, double weight);
    std::vector<Phrase> m_phrases;
    struct Tables;
    std::shared_ptr<const Tables> m_tables;
};

} // namespace knot::files
