#include "files/import/units.h"

#include "core/record/text/number_text.h"
#include "core/statistics/quantile.h"
#include "files/import/headings/vocabulary.h"

#include <algorithm>
#include <cmath>

namespace knot::files {
namespace {

using record::Metric;
using record::Quantity;
using record::Unit;
using statistics::medianOf;

constexpr double usualShare = 0.9; // of the numbers must be usual

const std::vector<Unit>& allowedFor(Metric metric) {
    return record::unitsOf(record::info(metric).quantity);
}

std::vector<Unit> possible(const UnitAsked& column) {
    std::vector<Unit> units;
    for (const Unit unit : allowedFor(column.metric))
        // Nobody counts a carry in feet without saying so.
        if (!(unit == Unit::ft && record::info(column.metric).quantity == Quantity::distance) &&
            fitting(column.metric, unit, column.numbers) >= usualShare)
            units.push_back(unit);
    return units;
}

std::string symbolOf(Unit unit) {
    return std::string(record::symbol(unit));
}

double medianIn(const UnitAsked& column, Unit unit) {
    return column.numbers.empty() ? 0 : record::toInternal(medianOf(column.numbers), unit);
}

class Settling {
public:
    explicit Settling(std::vector<UnitAsked>& columns)
        : m_columns(columns) {}

    void all() {
        for (auto& column : m_columns)
            bySelf(column);
        // What one column learns another may learn from it.
        for (int pass = 0; pass < 3; ++pass)
            for (auto& column : m_columns)
                if (!column.unit)
                    byOthers(column);
        // One answer may settle the others.
        for (auto& column : m_columns) {
            if (!column.unit)
                byOthers(column);
            if (!column.unit)
                ask(column);
        }
    }

private:
    static void bySelf(UnitAsked& column) {
        const auto& allowed = allowedFor(column.metric);
        if (column.unit || !column.refused.empty())
            return;
        if (allowed.size() == 1) {
            column.unit = allowed.front();
            return;
        }
        const auto fits = possible(column);
        if (fits.size() == 1 && !column.numbers.empty()) {
            column.unit = fits.front();
            column.why = "by its values";
        }
    }

    const UnitAsked* settled(Metric metric) const {
        const auto at = std::ranges::find_if(
            m_columns, [&](const auto& c) { return c.metric == metric && c.unit && !c.numbers.empty(); });
        return at == m_columns.end() ? nullptr : &*at;
    }

    void byOthers(UnitAsked& column) const {
        if (!column.refused.empty() || column.numbers.empty())
            return;
        const auto fits = possible(column);
        if (fits.empty())
            return;
        if (const auto* like = sibling(column)) {
            if (std::ranges::find(fits, *like->unit) != fits.end()) {
                column.unit = like->unit;
                column.why = "as in " + record::info(like->metric).label;
            }
            return;
        }
        if (column.metric == Metric::ballSpeed || column.metric == Metric::clubSpeed)
            byFlight(column, fits);
    }

    // A column that is written in the same unit: another distance, another speed, another strike.
    const UnitAsked* sibling(const UnitAsked& column) const {
        const auto quantity = record::info(column.metric).quantity;
        if (quantity == Quantity::height)
            return nullptr;
        const auto at = std::ranges::find_if(m_columns, [&](const UnitAsked& other) {
            return &other != &column && other.unit && record::info(other.metric).quantity == quantity;
        });
        return at == m_columns.end() ? nullptr : &*at;
    }

    // Ball speed goes with carry, and club speed with ball speed: one unit fits far better than the others.
    void byFlight(UnitAsked& column, const std::vector<Unit>& fits) const {
        const auto* carry = settled(Metric::carry);
        const double metres = carry != nullptr ? medianIn(*carry, *carry->unit) : unsettledCarry();
        if (metres <= 0)
            return;
        // Roughly: a full shot carries four metres for each m/s of ball speed beyond twelve.
        const double ball = metres / 4.1 + 12;
        const double wanted = column.metric == Metric::ballSpeed ? ball : ball / 1.4;
        auto miss = [&](Unit unit) { return std::fabs(std::log(std::max(medianIn(column, unit), 1e-3) / wanted)); };
        std::vector<Unit> sorted = fits;
        std::ranges::sort(sorted, {}, miss);
        if (miss(sorted.front()) < 0.35 && (sorted.size() < 2 || miss(sorted[1]) > miss(sorted.front()) + 0.3)) {
            column.unit = sorted.front();
            column.why = "goes with the carry";
        }
    }

    // Metres or yards hardly matter here.
    double unsettledCarry() const {
        for (const auto& column : m_columns)
            if (column.metric == Metric::carry && !column.numbers.empty())
                return 0.95 * medianOf(column.numbers);
        return 0;
    }

    // Miles, yards and feet or metres: what the other columns are written in.
    bool isImperial() const {
        int votes = 0;
        for (const auto& column : m_columns)
            if (column.unit)
                switch (*column.unit) {
                case Unit::yd:
                case Unit::ft:
                    votes += 4;
                    break;
                case Unit::mph:
                case Unit::in:
                    votes += 1;
                    break;
                case Unit::m:
                    votes -= 4;
                    break;
                case Unit::ms:
                case Unit::kmh:
                    votes -= 2;
                    break;
                default:
                    break;
                }
        return votes > 0;
    }

    void ask(UnitAsked& column) const {
        auto fits = possible(column);
        if (fits.size() < 2 || column.numbers.empty())
            fits = allowedFor(column.metric);
        auto isImperialUnit = [](Unit unit) {
            return unit == Unit::yd || unit == Unit::ft || unit == Unit::mph || unit == Unit::in;
        };
        const bool imperial = isImperial();
        std::ranges::stable_sort(fits, std::greater(), [&](Unit unit) {
            // Heights beside yards are in feet.
            const bool feet = imperial && record::info(column.metric).quantity == Quantity::height && unit == Unit::ft;
            return (isImperialUnit(unit) == imperial ? 1 : 0) + (feet ? 1 : 0);
        });
        column.unit = fits.front();
        column.choices = fits;
        const std::string number = column.numbers.empty() ? std::string() : record::fixed(column.numbers.front(), 1);
        if (!column.refused.empty())
            column.question =
                "“" + column.refused + "” is no unit of " + record::info(column.metric).label + ". Which is it?";
        else if (column.numbers.empty())
            column.question = "No unit is given. Which is it?";
        else
            column.question =
                symbolOf(fits[0]) + " go with " + number + "; " + symbolOf(fits[1]) + " would too. Which?";
    }

    std::vector<UnitAsked>& m_columns;
};

} // namespace

double fitting(Metric metric, Unit unit, const std::vector<double>& numbers) {
    if (numbers.empty())
        return 1;
    const auto range = Vocabulary::own().usualRange(metric);
    const auto fits = std::ranges::count_if(numbers, [&](double number) {
        const double value = record::toInternal(number, unit);
        return value >= range.low && value <= range.high;
    });
    return static_cast<double>(fits) / static_cast<double>(numbers.size());
}

Unit likeliestUnit(Metric metric, std::optional<Unit> written, const std::vector<double>& numbers) {
    const auto& allowed = allowedFor(metric);
    if (written && std::ranges::find(allowed, *written) != allowed.end())
        return *written;
    return *std::ranges::max_element(allowed, {}, [&](Unit unit) { return fitting(metric, unit, numbers); });
}

void settleUnits(std::vector<UnitAsked>& columns) {
    Settling(columns).all();
}

} // namespace knot::files
