#include "core/ask/sentence.h"

#include "core/record/roster.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/shape_text.h"
#include "core/words/along.h"

#include <algorithm>
#include <array>

namespace knot::ask {

using record::Card;
using record::Metric;
using record::MetricFormat;
using record::Outcome;
using record::OutcomeKind;
using record::TestKind;
using record::Want;

namespace {

// What is tested, after "another" or "which".
constexpr std::array<const char*, 10> kindWords = {"thing", "shaft", "head", "loft",     "length",
                                                   "lie",   "grip",  "ball", "delivery", "club"};

std::string listed(const std::vector<std::string>& names, const char* last) {
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i)
        text += (i == 0 ? "" : i + 1 < names.size() ? ", " : last) + names[i];
    return text;
}

class Sentence {
public:
    Sentence(const record::Test& test, const record::DisplayUnits& units)
        : m_test(test)
        , m_card(test.card)
        , m_units(units) {}

    std::vector<Piece> all() {
        if (m_card.comparison == record::Comparison::againstBaseline)
            againstOne();
        else
            whichOfThese();
        players();
        outcomes();
        clauses();
        words("?");
        m_pieces.push_back({"+ and …, with …, along …, by …, on …, aimed at …", Chip{Part::another}, true});
        return std::move(m_pieces);
    }

private:
    void words(const std::string& text) { m_pieces.push_back({text}); }
    void chip(Part part, std::size_t at, const std::string& text, const std::string& hint = {}) {
        m_pieces.push_back({text.empty() ? hint : text, Chip{part, at}, text.empty()});
    }

    std::string kindWord() const {
        if (m_card.kind == TestKind::own)
            return m_card.factor;
        return kindWords.at(static_cast<std::size_t>(m_card.kind));
    }

    std::vector<std::string> names(const std::string& butFor) const {
        std::vector<std::string> all;
        for (const record::Build& build : clubsIn(m_test))
            if (build.name != butFor)
                all.push_back(build.name);
        return all;
    }

    // While the seal is closed only the Rack names clubs.
    std::string clubsText(const std::string& butFor, const char* last) const {
        if (m_test.seal.isClosed())
            return std::to_string(clubsOf(m_test).size()) + " sealed clubs";
        return listed(names(butFor), last);
    }

    void againstOne() {
        const auto& clubs = clubsOf(m_test);
        const record::Build* named = m_test.buildCalled(m_card.baseline);
        const std::string baseline = named != nullptr ? named->name : clubs.empty() ? "" : clubs.front().name;
        words("Against");
        chip(Part::against, 0, m_test.seal.isClosed() ? "my club" : baseline, "my club");
        words(", does");
        const std::string kind = kindWord();
        chip(Part::tested, 0, kind.empty() || m_card.kind == TestKind::own ? kind : "another " + kind, "what differs");
        words("(");
        chip(Part::clubs, 0, clubsText(baseline, " or "), "name the others");
        words(") give");
    }

    void whichOfThese() {
        chip(Part::against, 0, "Which");
        chip(Part::tested, 0, kindWord(), "of what differs");
        words("of");
        chip(Part::clubs, 0, clubsText({}, " and "), "name the clubs");
        words("gives");
    }

    void players() {
        chip(Part::player, 0, m_test.players.empty() ? std::string() : m_test.players.front().name, "whom");
        for (std::size_t i = 1; i < m_test.players.size(); ++i) {
            words("and");
            chip(Part::player, i, m_test.players[i].name);
        }
    }

    void outcomes() {
        if (m_card.primary.empty())
            return chip(Part::outcome, 0, {}, "more of what");
        for (std::size_t i = 0; i < m_card.primary.size(); ++i) {
            const Outcome& outcome = m_card.primary[i];
            if (i > 0)
                words("– and");
            chip(Part::outcome, i, wantedText(outcome, m_card.want(outcome), m_units));
            words(i == 0 ? "– worth having from" : "from");
            chip(Part::gap, i, gapText(outcome));
        }
    }

    std::string gapText(const Outcome& outcome) const {
        switch (outcome.kind) {
        case OutcomeKind::spread:
            return record::fixed(m_card.sdRatioMargin, 2) + " times";
        case OutcomeKind::area:
            return record::fixed(m_card.areaRatioMargin, 2) + " times";
        case OutcomeKind::share:
            return "10 % of shots";
        case OutcomeKind::average:
        case OutcomeKind::equal:
        case OutcomeKind::typical:
            break;
        }
        return MetricFormat(outcome.metric, m_units).withUnit(m_card.margin(outcome.metric));
    }

    void clauses() {
        if (!m_card.covariates.empty()) {
            std::vector<std::string> causes;
            for (const Metric metric : m_card.covariates)
                causes.push_back(record::info(metric).label);
            words(", with");
            chip(Part::causes, 0, listed(causes, " and "));
            words("taken out");
        }
        if (!m_card.trendColumn.empty()) {
            words(", along");
            chip(Part::along, 0, words::alongOf(m_card.trendColumn).what);
        }
        if (!m_card.factorColumn.empty()) {
            words(", by");
            chip(Part::factor, 0, m_card.factorColumn);
        }
        for (std::size_t i = 0; i < m_card.shapes.size(); ++i) {
            words(i == 0 ? ", on" : "and");
            chip(Part::shape, i, m_card.shapes[i].name);
        }
        if (m_card.aim) {
            const MetricFormat format(Metric::carry, m_units);
            std::string text = format.withUnit(m_card.aim->carry);
            if (m_card.aim->side != 0)
                text += ", " + format.number(std::abs(m_card.aim->side)) + (m_card.aim->side < 0 ? " left" : " right");
            words(", aimed at");
            chip(Part::aim, 0, text);
        }
    }

    const record::Test& m_test;
    const Card& m_card;
    const record::DisplayUnits& m_units;
    std::vector<Piece> m_pieces;
};

} // namespace

const std::vector<record::Build>& clubsOf(const record::Test& test) {
    return test.seal.isClosed() ? test.sealedBuilds : test.builds;
}

std::vector<record::Build> clubsIn(const record::Test& test) {
    return test.seal.isClosed() ? test.sealedBuilds : record::buildsIn(test);
}

std::vector<Piece> sentenceOf(const record::Test& test, const record::DisplayUnits& units) {
    return Sentence(test, units).all();
}

bool joinsBefore(const std::string& text) {
    return !text.empty() && std::string_view(",.;:)?").find(text.front()) != std::string_view::npos;
}

std::string textOf(const std::vector<Piece>& pieces) {
    std::string text;
    for (const Piece& piece : pieces) {
        if (piece.chip && piece.chip->part == Part::another)
            continue;
        const bool isUnsaid = piece.isEmpty && piece.chip && piece.chip->part == Part::tested;
        const std::string word = isUnsaid ? "another club" : piece.text; // where nobody said what differs
        const bool joins = text.empty() || joinsBefore(piece.text) || text.ends_with("(");
        text += (joins ? "" : " ") + word;
    }
    return text;
}

namespace {

struct PartRow {
    Part part;
    const char* field;
    const char* name;
    bool isOneOfSeveral = false;
};

constexpr std::array parts = {PartRow{Part::against, "against", "against which club, or which of several"},
                              PartRow{Part::tested, "tested", "what is tested"},
                              PartRow{Part::clubs, "clubNames", "clubs on test"},
                              PartRow{Part::player, "player", "player", true},
                              PartRow{Part::outcome, "outcome", "outcome", true},
                              PartRow{Part::gap, "gap", "worthwhile gap of outcome", true},
                              PartRow{Part::causes, "causes", "causes taken out"},
                              PartRow{Part::along, "along", "what the test goes along"},
                              PartRow{Part::factor, "secondFactor", "second factor"},
                              PartRow{Part::shape, "groundShape", "shape on the ground", true},
                              PartRow{Part::aim, "aim", "aim"},
                              PartRow{Part::another, "clause", "one more clause"},
                              PartRow{Part::minutes, "minutes", "minutes"},
                              PartRow{Part::order, "schedule", "order"},
                              PartRow{Part::laps, "rounds", "laps"},
                              PartRow{Part::stint, "turnLength", "shots a stint"},
                              PartRow{Part::warmUp, "warmUp", "warm-up"},
                              PartRow{Part::change, "changeSeconds", "time of a change"},
                              PartRow{Part::slower, "slower", "change that takes longer", true},
                              PartRow{Part::shot, "shotSeconds", "time of a shot"},
                              PartRow{Part::restEvery, "restEvery", "swings between rests"},
                              PartRow{Part::rest, "restMinutes", "length of a rest"},
                              PartRow{Part::grade, "grade", "who knows the clubs"},
                              PartRow{Part::handsOver, "way", "who hands over"},
                              PartRow{Part::tags, "tagWords", "words of the tags"},
                              PartRow{Part::seesComparisons, "seesComparisons", "who sees comparisons"},
                              PartRow{Part::seesAverages, "seesAverages", "who sees averages"},
                              PartRow{Part::seesShots, "seesShots", "who sees shots"},
                              PartRow{Part::looks, "looks", "when it may end"},
                              PartRow{Part::worthOf, "seenIn", "outcome that is planned for"},
                              PartRow{Part::spreadOf, "level", "whose spread is taken"},
                              PartRow{Part::clubKind, "clubKind", "what kind of club it is"},
                              PartRow{Part::baseline, "baseline", "baseline"},
                              PartRow{Part::role, "declared", "whether this number was declared"},
                              PartRow{Part::margin, "gap", "worthwhile gap"},
                              PartRow{Part::want, "want", "what is wanted"},
                              PartRow{Part::decidedClub, "decidedClub", "the club"},
                              PartRow{Part::reason, "decisionReason", "because"},
                              PartRow{Part::price, "decisionPrice", "price"},
                              PartRow{Part::watch, "decisionWatch", "what to look at next time"}};

const PartRow& rowOf(Part part) {
    return *std::ranges::find(parts, part, &PartRow::part);
}

} // namespace

std::string nameOf(const Chip& chip) {
    const PartRow& row = rowOf(chip.part);
    return row.name + (row.isOneOfSeveral ? " " + std::to_string(chip.at + 1) : std::string());
}

std::string fieldOf(const Chip& chip) {
    const PartRow& row = rowOf(chip.part);
    const bool isFirstPlayer = chip.part == Part::player && chip.at == 0;
    return row.field + (row.isOneOfSeveral && !isFirstPlayer ? std::to_string(chip.at + 1) : std::string());
}

std::string wantedText(const Outcome& outcome, const Want& want, const record::DisplayUnits& units) {
    if (outcome.kind == OutcomeKind::share)
        return (want.kind == Want::Kind::less ? "a smaller " : "a larger ") + record::outcomeLabel(outcome);
    const std::string label = record::outcomeLabel(outcome);
    switch (want.kind) {
    case Want::Kind::more:
        return "more " + label;
    case Want::Kind::less:
        return "less " + label;
    case Want::Kind::near:
        return label + " nearer " + MetricFormat(outcome.metric, units).withUnit(want.value);
    case Want::Kind::none:
        break;
    }
    return "a different " + label;
}

} // namespace knot::ask
