#include "core/words/versions.h"

#include "core/record/text/moment.h"
#include "core/record/text/number_text.h"
#include "core/words/decide.h"

#include <algorithm>

namespace knot::words {

namespace {

using record::Test;

std::string shotsOf(const Test& test) {
    const auto counted =
        static_cast<std::size_t>(std::ranges::count(test.shots, record::ShotStatus::counted, &record::Shot::status));
    const std::size_t others = test.shots.size() - counted;
    return record::counted(counted, "shot") + (others > 0 ? ", " + std::to_string(others) + " not counted" : "");
}

std::string lastOf(const Test& test) {
    return test.shots.empty() ? std::string() : test.shots.back().takenAt.shown();
}

std::string clubsOf(const Test& test) {
    std::string names;
    for (const record::Build& build : test.builds)
        names += (names.empty() ? "" : ", ") + build.name;
    return names;
}

std::string lapsOf(const Test& test) {
    std::size_t laps = 0;
    for (const record::PlannedTurn& turn : test.turns)
        laps = std::max<std::size_t>(laps, static_cast<std::size_t>(turn.round));
    return laps == 0 ? "none" : record::counted(laps, "lap");
}

std::string decided(const Test& test) {
    std::string text = decisionText(test);
    for (const std::string& said : {test.decision.reason, test.decision.price, test.decision.watch})
        if (!said.empty())
            text += (text.empty() ? "" : "; ") + said;
    return text;
}

// How many shots that both have are not the same in both.
std::size_t changedShots(const Test& here, const Test& there) {
    std::size_t changed = 0;
    for (const record::Shot& shot : here.shots)
        if (const auto at = there.shotIndex(shot.id))
            changed += there.shots[*at] == shot ? 0 : 1;
    return changed;
}

} // namespace

std::vector<VersionRow> versionRows(const Test& here, const Test& there) {
    std::vector<VersionRow> rows;
    auto put = [&](const char* what, const std::string& own, const std::string& other) {
        if (own != other)
            rows.push_back({what, own.empty() ? "–" : own, other.empty() ? "–" : other});
    };
    put("shots", shotsOf(here), shotsOf(there));
    put("last shot", lastOf(here), lastOf(there));
    if (const std::size_t changed = changedShots(here, there); changed > 0)
        rows.push_back({"shots of both that differ", std::to_string(changed), std::to_string(changed)});
    put("title", here.title, there.title);
    put("question", here.question, there.question);
    if (here.card != there.card)
        rows.push_back({"the sheet", "one", "another"});
    put("clubs", clubsOf(here), clubsOf(there));
    put("players", here.playerNames(), there.playerNames());
    put("plan", lapsOf(here), lapsOf(there));
    put("seal", here.seal.isClosed() ? "closed" : "open", there.seal.isClosed() ? "closed" : "open");
    put("amendments", std::to_string(here.amendments.size()), std::to_string(there.amendments.size()));
    put("decided", decided(here), decided(there));
    if (rows.empty())
        rows.push_back({"something smaller", "as here", "as there"});
    return rows;
}

} // namespace knot::words
