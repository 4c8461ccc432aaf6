#include "core/words/bag.h"

#include "core/record/text/number_text.h"

namespace knot::words {
namespace {

std::string whole(double metres, const record::DisplayUnits& units) {
    return record::fixed(record::MetricFormat(record::Metric::carry, units).shown(metres), 0);
}

std::string unitOf(const record::DisplayUnits& units) {
    return " " + record::MetricFormat(record::Metric::carry, units).unitText();
}

} // namespace

std::string gapText(const bag::Gap& gap, const record::DisplayUnits& units) {
    std::string text = whole(gap.gap, units) + unitOf(units);
    if (gap.ci95)
        text += " (" + whole(gap.ci95->low, units) + " to " + whole(gap.ci95->high, units) + ")";
    return text;
}

std::string restsText(const bag::Gap& gap) {
    switch (gap.rests) {
    case bag::Rests::severalSittings:
        return "on " + record::counted(gap.sittings, "sitting");
    case bag::Rests::oneSitting:
        return "on one sitting";
    case bag::Rests::byAnother:
        return "by way of another club";
    case bag::Rests::averages:
        return "by their averages alone, which never met";
    }
    return {};
}

std::vector<std::string> bagSentences(const bag::Bag& bag, const record::DisplayUnits& units) {
    constexpr double often = 0.2;
    std::vector<std::string> said;
    bool anyTold = false;
    for (const bag::Gap& gap : bag.gaps) {
        const std::string& longer = bag.clubs[gap.longer].name;
        const std::string& shorter = bag.clubs[gap.shorter].name;
        if (gap.is == bag::Gap::Is::hole)
            said.push_back("There is a hole between " + longer + " and " + shorter + ": " + gapText(gap, units) + ", " +
                           restsText(gap) + ".");
        else if (gap.is == bag::Gap::Is::twin)
            said.push_back(longer + " and " + shorter + " carry nearly the same: " + gapText(gap, units) + ", " +
                           restsText(gap) + ".");
        anyTold = anyTold || gap.is != bag::Gap::Is::neither;
    }
    if (!anyTold && bag.gaps.size() > 1)
        said.emplace_back("No hole and no two clubs that do the same are settled.");
    for (const bag::Gap& gap : bag.gaps)
        if (gap.outflown && *gap.outflown >= often)
            said.push_back(bag.clubs[gap.shorter].name + " outflies " + bag.clubs[gap.longer].name + " " +
                           record::fixed(100 * *gap.outflown, 0) + " times in 100.");
    if (!bag.gaps.empty())
        said.push_back("Held against a step of " + whole(bag.step, units) + unitOf(units) +
                       "; at most 5 of 100 even bags would be told a hole or a double.");
    return said;
}

} // namespace knot::words
