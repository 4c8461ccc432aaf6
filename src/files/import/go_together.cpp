#include "files/import/go_together.h"

#include "core/flight/flight.h"
#include "core/statistics/moments.h"
#include "core/statistics/quantile.h"
#include "files/import/cells/cell_number.h"
#include "files/import/doubts.h"
#include "files/import/units.h"

#include <algorithm>
#include <cmath>

namespace knot::files {
namespace {

using record::Metric;
using record::Unit;
using statistics::medianOf;

constexpr std::size_t leastRows = 4;  // that say how columns go together
constexpr std::size_t flownRows = 40; // of which each is flown
constexpr double flightTolerance = 1e-6;

struct Bounds {
    double low = 0, high = 0;
    bool holds(double value) const { return value >= low && value <= high; }
};

// Beyond the first nobody hits; within the second most do.
constexpr Bounds smashCan{0.95, 1.6}, smashUsual{1.02, 1.56};
constexpr Bounds carryCan{0.55, 1.7}, carryUsual{0.7, 1.35}; // of what the model carries
constexpr Bounds apexCan{0.4, 2.4}, apexUsual{0.55, 1.7};
constexpr double leastFlown = 20;   // m of carry, where the model and the air of a range agree
constexpr double apexOfCarry = 0.5; // a lob's, about
constexpr double opposite = -0.6;   // a correlation

class Together {
public:
    Together(const Sheet& sheet, const std::vector<std::size_t>& rows, std::vector<ColumnTaken>& columns)
        : m_sheet(sheet)
        , m_rows(rows)
        , m_columns(columns) {}

    void all() {
        askSmash();
        askDifference(Metric::carry, Metric::total, -0.5, "is longer than");
        askDifference(Metric::launch, Metric::dynamicLoft, -1.5, "is more than");
        askDifference(Metric::launch, Metric::descent, -3, "is more than");
        askAngles();
        askFlight();
        askFaceToPath();
        askSides();
    }

private:
    using Row = std::vector<double>; // one reading of each metric asked for

    // The column of a metric that may be asked about still.
    ColumnTaken* columnOf(Metric metric) const {
        const auto at = std::ranges::find_if(m_columns, [&](const ColumnTaken& c) {
            return c.meaning.role == ColumnRole::metric && c.meaning.metric == metric;
        });
        return at == m_columns.end() ? nullptr : &*at;
    }
    static bool isOpen(const ColumnTaken* column) {
        return column != nullptr && !column->isByHand && column->question.empty();
    }

    // Rows that have all of them.
    std::vector<Row> rowsOf(const std::vector<Metric>& metrics) const {
        std::vector<std::size_t> at;
        for (const Metric metric : metrics) {
            const ColumnTaken* column = columnOf(metric);
            if (column == nullptr)
                return {};
            at.push_back(static_cast<std::size_t>(column - m_columns.data()));
        }
        std::vector<Row> rows;
        for (const std::size_t row : m_rows) {
            Row readings;
            for (const std::size_t column : at)
                if (const auto reading = readingAt(row, column))
                    readings.push_back(*reading);
            if (readings.size() == at.size())
                rows.push_back(std::move(readings));
        }
        return rows.size() < leastRows ? std::vector<Row>() : rows;
    }

    std::optional<double> readingAt(std::size_t row, std::size_t at) const {
        const ColumnTaken& column = m_columns[at];
        const auto number = numberOfCell(m_sheet.cell(row, at), column.mark);
        return number ? readingOf(*number, column, column.sides ? m_sheet.cell(row, *column.sides) : "") : std::nullopt;
    }

    template<typename Of> static double medianBy(const std::vector<Row>& rows, Of of) {
        std::vector<double> values;
        values.reserve(rows.size());
        for (const Row& row : rows)
            values.push_back(of(row));
        return medianOf(values);
    }

    std::vector<double> valuesIn(const ColumnTaken& column) const {
        std::vector<double> values;
        const auto at = static_cast<std::size_t>(&column - m_columns.data());
        for (const std::size_t row : m_rows)
            if (const auto number = numberOfCell(m_sheet.cell(row, at), column.mark))
                values.push_back(number->value);
        return values;
    }

    // The unit in which a column is so many times what it is in its own, and usual.
    std::optional<Unit> unitBy(const ColumnTaken& column, const Bounds& factors) const {
        for (const Unit unit : record::unitsOf(record::info(column.meaning.metric).quantity)) {
            const double factor = record::toInternal(1, unit) / record::toInternal(1, column.meaning.unit);
            if (unit != column.meaning.unit && factors.holds(factor) &&
                fitting(column.meaning.metric, unit, valuesIn(column)) > 0.8)
                return unit;
        }
        return std::nullopt;
    }

    static void swap(ColumnTaken& a, ColumnTaken& b, const std::string& why) {
        const ColumnMeaning first = a.meaning;
        const ColumnMeaning second = b.meaning;
        auto take = [&](ColumnTaken& column, const ColumnMeaning& meant) {
            ColumnMeaning asIs = column.meaning;
            const std::string heading = column.meaning.heading;
            const Unit own = column.meaning.unit;
            column.meaning = meant;
            column.meaning.heading = heading;
            // The unit belongs to the figures, where the other may have it.
            const auto& units = record::unitsOf(record::info(meant.metric).quantity);
            if (std::ranges::find(units, own) != units.end())
                column.meaning.unit = own;
            column.isOfValues = true;
            column.question = why + " Are the two swapped?";
            column.choices = {canonicalName(column.meaning), canonicalName(asIs)};
        };
        take(a, second);
        take(b, first);
    }

    static void askUnit(ColumnTaken& column, Unit unit, const std::string& why) {
        ColumnMeaning asIs = column.meaning;
        asIs.doubtful = Doubtful::asItStands;
        column.meaning.unit = unit;
        column.isOfValues = true;
        column.question = why + " Is it " + std::string(record::symbol(unit)) + "?";
        column.choices = {canonicalName(column.meaning), canonicalName(asIs)};
    }

    static void askTurned(ColumnTaken& column, const std::string& why) {
        ColumnMeaning asIs = column.meaning;
        asIs.doubtful = Doubtful::asItStands;
        column.meaning.doubtful = Doubtful::turned;
        column.isOfValues = true;
        column.question = why + " Is it turned round?";
        column.choices = {canonicalName(column.meaning), canonicalName(asIs)};
    }

    // What does not go with the rest, and nothing is found that would make it go.
    static void askOpenly(ColumnTaken& column, const std::string& why) {
        ColumnMeaning asIs = column.meaning;
        asIs.doubtful = Doubtful::asItStands;
        column.isOfValues = true;
        column.question = why + " Is it right?";
        column.choices = {canonicalName(asIs), ""};
        column.meaning = asIs;
    }

    static std::string quoted(const ColumnTaken& column) { return "“" + column.meaning.heading + "”"; }

    void askSmash() {
        ColumnTaken* ball = columnOf(Metric::ballSpeed);
        ColumnTaken* club = columnOf(Metric::clubSpeed);
        const auto rows = rowsOf({Metric::ballSpeed, Metric::clubSpeed});
        if (rows.empty() || !isOpen(ball) || !isOpen(club))
            return;
        const double smash = medianBy(rows, [](const Row& r) { return r[0] / r[1]; });
        const auto written = rowsOf({Metric::ballSpeed, Metric::clubSpeed, Metric::smash});
        const auto gap = [&](bool isSwapped) {
            return medianBy(
                written, [&](const Row& r) { return std::fabs((isSwapped ? r[1] / r[0] : r[0] / r[1]) / r[2] - 1); });
        };
        constexpr double far = 0.08, close = 0.04;
        const bool saysSwapped = !written.empty() && gap(false) > far && gap(true) < close;
        if (saysSwapped || smash < smashCan.low || smash > smashCan.high) {
            const std::string why =
                smash < 1 ? quoted(*ball) + " is slower than " + quoted(*club) + "."
                          : quoted(*ball) + " is " + record::fixed(smash, 1) + " times " + quoted(*club) + ".";
            if (saysSwapped || smashUsual.holds(1 / smash))
                return swap(*ball, *club, why);
            const Bounds factors{smashUsual.low / smash, smashUsual.high / smash};
            if (const auto unit = unitBy(*ball, factors))
                return askUnit(*ball, *unit, why);
            if (const auto unit = unitBy(*club, {1 / factors.high, 1 / factors.low}))
                return askUnit(*club, *unit, why);
            return askOpenly(*ball, why);
        }
        if (ColumnTaken* column = columnOf(Metric::smash); !written.empty() && isOpen(column) && gap(false) > far)
            askOpenly(*column, quoted(*column) + " is not ball speed by club speed.");
    }

    // One that can't be less than the other, by more than so much in the median.
    void askDifference(Metric lower, Metric higher, double least, const std::string& says) {
        ColumnTaken* low = columnOf(lower);
        ColumnTaken* high = columnOf(higher);
        const auto rows = rowsOf({lower, higher});
        if (rows.empty() || !isOpen(low) || !isOpen(high))
            return;
        if (medianBy(rows, [](const Row& r) { return r[1] - r[0]; }) < least)
            swap(*low, *high, quoted(*low) + " " + says + " " + quoted(*high) + ".");
    }

    // A ball that starts far to one side in the median and hardly rises.
    void askAngles() {
        ColumnTaken* launch = columnOf(Metric::launch);
        ColumnTaken* direction = columnOf(Metric::launchDirection);
        const auto rows = rowsOf({Metric::launch, Metric::launchDirection});
        constexpr double farAside = 6, hardlyUp = 4;
        if (rows.empty() || !isOpen(launch) || !isOpen(direction))
            return;
        if (medianBy(rows, [](const Row& r) { return r[0]; }) < hardlyUp &&
            std::fabs(medianBy(rows, [](const Row& r) { return r[1]; })) > farAside)
            swap(*launch, *direction, quoted(*direction) + " is far to one side.");
    }

    // What the model makes of the median shot; a wedge's spin for its launch where none is read.
    std::optional<flight::Flight> flown() const {
        const bool hasSpin = columnOf(Metric::spin) != nullptr;
        const auto rows = hasSpin ? rowsOf({Metric::ballSpeed, Metric::launch, Metric::spin})
                                  : rowsOf({Metric::ballSpeed, Metric::launch});
        if (rows.empty())
            return std::nullopt;
        flight::Launch launch;
        launch.ballSpeed = medianBy(rows, [](const Row& r) { return r[0]; });
        launch.launch = medianBy(rows, [](const Row& r) { return r[1]; });
        constexpr double spinADegree = 330, leastSpin = 2500;
        launch.spin = hasSpin ? medianBy(rows, [](const Row& r) { return r[2]; })
                              : std::max(leastSpin, spinADegree * launch.launch);
        return flight::fly(launch, {}, flight::PathWanted::no, 0, flightTolerance);
    }

    void askFlight() {
        ColumnTaken* carry = columnOf(Metric::carry);
        const auto model = flown();
        const auto carries = rowsOf({Metric::carry});
        const double far = carries.empty() ? 0 : medianBy(carries, [](const Row& r) { return r[0]; });
        if (far > leastFlown && model && isOpen(carry) && !carryCan.holds(far / std::max(model->carry, 1.0)))
            return askCarry(*carry, far, std::max(model->carry, 1.0));
        ColumnTaken* apex = columnOf(Metric::apex);
        const auto heights = rowsOf({Metric::apex});
        if (heights.empty() || !isOpen(apex))
            return;
        const double height = medianBy(heights, [](const Row& r) { return r[0]; });
        const bool isFlown = model && model->apex > 2 && carry != nullptr && carry->question.empty();
        const double wanted = isFlown ? model->apex : 0.2 * far;
        if (wanted <= 0 || (isFlown ? apexCan.holds(height / wanted) : height <= apexOfCarry * far))
            return;
        const std::string why = quoted(*apex) + " is " + record::fixed(height, 0) + " m high, where about " +
                                record::fixed(wanted, 0) + " would be usual.";
        const Bounds factors{apexUsual.low * wanted / height, apexUsual.high * wanted / height};
        const auto unit = unitBy(*apex, factors);
        unit ? askUnit(*apex, *unit, why) : askOpenly(*apex, why);
    }

    void askCarry(ColumnTaken& carry, double far, double modelled) {
        const double ratio = far / modelled;
        const std::string why =
            quoted(carry) + " is " + record::fixed(ratio, 1) + " times what its ball speed and launch carry.";
        const Bounds factors{carryUsual.low / ratio, carryUsual.high / ratio};
        if (const auto unit = unitBy(carry, factors))
            return askUnit(carry, *unit, why);
        // Another column of angles may be the launch.
        ColumnTaken* launch = columnOf(Metric::launch);
        for (const Metric other : {Metric::launchDirection, Metric::attack}) {
            ColumnTaken* column = columnOf(other);
            if (!isOpen(launch) || !isOpen(column))
                continue;
            std::swap(launch->meaning.metric, column->meaning.metric);
            const auto again = flown();
            std::swap(launch->meaning.metric, column->meaning.metric);
            if (again && again->carry > 0 && carryUsual.holds(far / again->carry))
                return swap(*launch, *column, why);
        }
        ColumnTaken* ball = columnOf(Metric::ballSpeed);
        if (isOpen(ball) && columnOf(Metric::clubSpeed) == nullptr)
            for (const Unit unit : record::unitsOf(record::Quantity::speed)) {
                const Unit own = ball->meaning.unit;
                if (unit == own || fitting(Metric::ballSpeed, unit, valuesIn(*ball)) < 0.8)
                    continue;
                ball->meaning.unit = unit;
                const auto again = flown();
                ball->meaning.unit = own;
                if (again && again->carry > 0 && carryUsual.holds(far / again->carry))
                    return askUnit(*ball, unit, why);
            }
        askOpenly(carry, why);
    }
    static double correlation(const std::vector<double>& a, const std::vector<double>& b) {
        const double meanA = statistics::meanOf(a);
        const double meanB = statistics::meanOf(b);
        double both = 0;
        double ofA = 0;
        double ofB = 0;
        for (std::size_t i = 0; i < a.size(); ++i) {
            both += (a[i] - meanA) * (b[i] - meanB);
            ofA += (a[i] - meanA) * (a[i] - meanA);
            ofB += (b[i] - meanB) * (b[i] - meanB);
        }
        return ofA <= 0 || ofB <= 0 ? 0 : both / std::sqrt(ofA * ofB);
    }

    void askFaceToPath() {
        ColumnTaken* column = columnOf(Metric::faceToPath);
        const auto rows = rowsOf({Metric::face, Metric::path, Metric::faceToPath});
        if (rows.size() < leastSided || !isOpen(column))
            return;
        std::vector<double> reckoned;
        std::vector<double> written;
        for (const Row& row : rows) {
            reckoned.push_back(row[0] - row[1]);
            written.push_back(row[2]);
        }
        if (correlation(reckoned, written) < opposite)
            askTurned(*column, quoted(*column) + " is path less face.");
    }

    // Where the ball came down beside where it started and how it curved.
    void askSides() {
        ColumnTaken* side = columnOf(Metric::side);
        if (!isOpen(side))
            return;
        std::vector<double> wanted;
        std::vector<double> written;
        constexpr double degree = 3.14159265358979323846 / 180;
        const auto curved = rowsOf({Metric::carry, Metric::launchDirection, Metric::curve, Metric::side});
        for (const Row& row : curved) {
            wanted.push_back(row[0] * std::sin(row[1] * degree) + row[2]);
            written.push_back(row[3]);
        }
        if (curved.empty()) {
            auto flights = rowsOf({Metric::ballSpeed, Metric::launch, Metric::launchDirection, Metric::spin,
                                   Metric::spinAxis, Metric::side});
            flights.resize(std::min(flights.size(), flownRows));
            for (const Row& r : flights) {
                const flight::Launch launch{
                    .ballSpeed = r[0], .launch = r[1], .direction = r[2], .spin = r[3], .spinAxis = r[4]};
                wanted.push_back(flight::fly(launch, {}, flight::PathWanted::no, 0, flightTolerance).side);
                written.push_back(r[5]);
            }
        }
        if (wanted.size() >= leastSided && correlation(wanted, written) < opposite)
            askTurned(*side, quoted(*side) + " lies to the other side than direction and curve say.");
    }

    static constexpr std::size_t leastSided = 6; // rows that show a sign

    const Sheet& m_sheet;
    const std::vector<std::size_t>& m_rows;
    std::vector<ColumnTaken>& m_columns;
};

} // namespace

void askTogether(const Sheet& sheet, const std::vector<std::size_t>& rows, std::vector<ColumnTaken>& columns) {
    Together(sheet, rows, columns).all();
}

} // namespace knot::files
