#include "core/record/rename.h"

#include <algorithm>

namespace knot::record {

void renameBuild(Test& test, BuildAt build, const std::string& name) {
    const std::string before = test.builds[build].name;
    if (test.card.baseline == before)
        test.card.baseline = name;
    std::ranges::replace(test.card.expectedOrder, before, name);
    for (Target& target : test.card.targets)
        if (target.build == before)
            target.build = name;
    Choices& said = test.choices;
    for (std::string* named : {&said.byFeel.tag, &said.own.tag, &said.byNumbers.tag, &test.decision.club})
        if (*named == before)
            *named = name;
    test.builds[build].name = name;
}

} // namespace knot::record
