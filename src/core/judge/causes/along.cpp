#include "core/judge/causes/along.h"

#include "core/rack/measures.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <set>

namespace knot::judge {

namespace {

// What a file's own column says of a shot; empty where there is no such column.
std::string entryOf(const record::Test& test, const record::Shot& shot, const std::string& column) {
    const auto at = static_cast<std::size_t>(std::ranges::find(test.extraColumns, column) - test.extraColumns.begin());
    return at < std::min(test.extraColumns.size(), shot.extra.size()) ? shot.extra[at] : std::string();
}

} // namespace

std::string levelOf(const record::Test& test, const record::Shot& shot, const std::string& factor) {
    return factor == "delivery" ? shot.delivery : factor == "player" ? shot.player : entryOf(test, shot, factor);
}

std::optional<double> numberAlong(const record::Test& test, const record::Shot& shot, const std::string& name) {
    if (const rack::Measure* measure = rack::measureCalled(name))
        return measure->of(test.builds[shot.build].club);
    const auto number = record::numberIn(entryOf(test, shot, name));
    return number ? std::optional(*number) : std::nullopt;
}

std::vector<std::string> alongWhat(const record::Test& test) {
    std::vector<std::string> names;
    for (const rack::Measure& measure : rack::measures()) {
        std::set<double> numbers;
        for (const record::Build& build : test.builds)
            if (const auto number = measure.of(build.club))
                numbers.insert(*number);
        if (numbers.size() > 1)
            names.emplace_back(measure.key);
    }
    for (const std::string& column : test.extraColumns) {
        std::set<double> numbers;
        for (const record::Shot& shot : test.shots)
            if (const auto number = numberAlong(test, shot, column))
                numbers.insert(*number);
        if (numbers.size() > 1)
            names.push_back(column);
    }
    return names;
}

} // namespace knot::judge
