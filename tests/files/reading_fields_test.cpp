// The table of docs/formats.md is what the facts of a reading tell of themselves.
#include "core/judge/facts.h"
#include "files/base/file.h"
#include "files/reading_json.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cstdio>

using namespace knot;
using judge::BuildAt;
using judge::Metric;
using judge::Reading;

namespace {

// Every list and object of a reading with the names and units of its fields, in the order in which they are told.
class Table {
public:
    template<typename T> void operator()(const char* name, const T& value, const char* unit = "") {
        if constexpr (requires(Table & to) { tell(to, value); })
            nested(name, "", value);
        else
            add(name, unit);
    }
    template<typename T> void operator()(const char* name, const std::optional<T>& value, const char* unit = "") {
        (*this)(name, value.value_or(T{}), unit);
    }
    template<typename T> void operator()(const char* name, const std::vector<T>& values, const char* unit = "") {
        if constexpr (requires(Table & to, const T& one) { tell(to, one); })
            nested(name, "[]", values.empty() ? T{} : values.front());
        else
            add(std::string(name) + "[]", unit);
    }
    template<typename Fill> void object(const char* name, const Fill& fill) { nested(name, "", fill); }
    template<typename Rows> void list(const char* name, const Rows& rows) {
        rows([&](const auto& row) { nested(name, "[]", row); });
    }
    template<typename Rows> void byMetric(const char* name, const Rows& rows) {
        rows([&](Metric, const auto& row, BuildAt, BuildAt) { nested(name, "{metric}", row); });
    }

    std::string text() const {
        std::string out = "| | |\n|---|---|\n";
        for (const auto& [place, fields] : m_rows) {
            out += "| " + (place.empty() ? std::string("the reading") : "`" + place + "`") + " | ";
            for (std::size_t i = 0; i < fields.size(); ++i)
                out += (i == 0 ? "" : ", ") + fields[i];
            out += " |\n";
        }
        return out;
    }

private:
    template<typename Row> void nested(const std::string& name, const char* kind, const Row& row) {
        const std::string before = m_place;
        m_place += (m_place.empty() ? "" : ".") + name + kind;
        if constexpr (std::is_invocable_v<Row, Table&>)
            row(*this);
        else
            tell(*this, row);
        m_place = before;
    }
    void add(const std::string& name, const std::string& unit) {
        const std::string field = name + (unit.empty() ? "" : unit == judge::ofMetric ? "†" : " (" + unit + ")");
        auto at = std::ranges::find(m_rows, m_place, &std::pair<std::string, std::vector<std::string>>::first);
        if (at == m_rows.end())
            at = m_rows.insert(m_rows.end(), {m_place, {}});
        if (std::ranges::find(at->second, field) == at->second.end())
            at->second.push_back(field);
    }

    std::string m_place;
    std::vector<std::pair<std::string, std::vector<std::string>>> m_rows;
};

// A reading with one of everything that is told only where it is there.
Reading fullReading() {
    Reading full;
    full.builds = {{}};
    full.metrics = {Metric::carry};
    judge::AverageGap gap;
    gap.kind = record::OutcomeKind::equal;
    gap.rounds = 1;
    gap.sameOrder = true;
    gap.details.slopes = {1};
    gap.details.slopesDifferP = 1;
    gap.details.mishitsBuild = gap.details.mishitsAgainst = judge::Share{};
    gap.shuffle = judge::ShuffleCheck{};
    gap.opinion = judge::YuenTest{};
    judge::ModelEstimate model;
    model.against = BuildAt(1);
    gap.adaptation = gap.settling = gap.forgiveness = model;
    gap.equalStrike = judge::EqualStrike{};
    gap.worstFifth = gap.longestFifth = judge::WorstFifth{};
    gap.pooled = judge::SittingsPooled{};
    gap.claim.otherSide = judge::OtherSide{};
    gap.claim.withoutLate = judge::OtherSide{.changes = true};
    gap.claim.influence = {{}};
    full.average = {gap, gap};
    full.average.back().opinion = judge::MedianGap{.interval = judge::Interval{}};
    judge::SpreadRatio spread;
    spread.sds = judge::SdRatio{};
    spread.method = judge::SpreadMethod::distance;
    spread.shapesDiffer = true;
    full.consistency = {spread};
    full.brownForsythe = {{}};
    full.drift = full.settling = full.lateInTurn = full.interaction = full.interactionInLaps = {model};
    full.trend = {{.fitF = 1, .fitDf1 = 1, .fitDf2 = 1, .fitP = 1, .jonckheere = 1}};
    full.amendments = {{}};
    full.setAsideShares = {{.n = 1}};
    full.best = {{.set = {BuildAt()}}};
    full.findings = {{}};
    full.shareGaps = {{.gap = gap}};
    full.whoseDoing = {{.shares = {{.cause = "club_speed", .ci95 = judge::Interval{}}}, .leftOut = {Metric::carry}}};
    full.sameSwing = {{.p = 1, .asSeen = true, .builtIn = 1}};
    full.singleRuns = {Metric::carry};
    full.bets = full.betsAsStints = {{}};
    full.bestBets = full.bestBetsAsStints = {{}};
    full.furtherBets = {{}};
    full.again = {{.build = BuildAt(1), .after = judge::Again::After::playerChanged, .words = "slower"}};
    full.weightOrder = judge::WeightOrder{};
    full.carryPerBallSpeed = 1;
    full.misses = {{.bothWaysP = 1}};
    full.bySetting = {{.name = "high", .reading = {}}};
    full.targets = {{.oneStint = true}};
    full.parts = {{.parts = {{.input = "club_speed", .ci95 = judge::Interval{}}}}};
    return full;
}

} // namespace

TEST_CASE("docs/formats.md lists the fields of a reading with their units") {
    Table table;
    tell(table, fullReading());
    const std::string docs = *files::readFile(std::string(KNOT_SOURCE_DIR) + "/docs/formats.md");
    const bool isThere = docs.find(table.text()) != std::string::npos;
    if (!isThere) // to be put in its place
        std::fputs(table.text().c_str(), stdout);
    CHECK(isThere);
}

TEST_CASE("every name that is written stands in the table") {
    Table table;
    tell(table, fullReading());
    const auto json = test::readingOf(test::loadReference("two_deliveries").test);
    for (const auto& [name, value] : json.items()) {
        INFO(name);
        const bool isOwn = name == "format" || name == "version" || name == "checks" || name == "sentences";
        CHECK((isOwn || (value.is_structured() && value.empty()) || table.text().find(name) != std::string::npos));
    }
}
