#include "files/import/label.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <set>
#include <unordered_map>
#include <vector>

namespace knot::files {
namespace {

// A label taken apart.
struct Label {
    std::string club;
    std::string delivery = {}, player = {}, note = {};
};

constexpr std::array<std::string_view, 9> separators = {" – ", " — ", " - ", " · ", " | ", " / ", "/", "|", ", "};

std::pair<std::string, std::string> parted(const std::string& label, std::string_view separator) {
    const auto at = label.find(separator);
    if (at == std::string::npos)
        return {label, {}};
    return {std::string(record::trimmed(std::string_view(label).substr(0, at))),
            std::string(record::trimmed(std::string_view(label).substr(at + separator.size())))};
}

std::string separatorOf(const std::vector<std::string>& labels) {
    if (labels.size() < 2)
        return {};
    for (const auto separator : separators) {
        std::set<std::string> first;
        std::set<std::string> second;
        const bool all = std::ranges::all_of(labels, [&](const std::string& label) {
            auto [club, rest] = parted(label, separator);
            const bool both = !club.empty() && !rest.empty();
            first.insert(std::move(club));
            second.insert(std::move(rest));
            return both;
        });
        if (all)
            return std::string(separator);
    }
    return {};
}

Label labelOf(const std::string& label, const std::string& separator, SecondPart second) {
    if (separator.empty() || second == SecondPart::none || second == SecondPart::tag)
        return {label};
    auto [club, rest] = parted(label, separator);
    if (rest.empty())
        return {label};
    switch (second) {
    case SecondPart::delivery:
        return {.club = std::move(club), .delivery = std::move(rest)};
    case SecondPart::player:
        return {.club = std::move(club), .player = std::move(rest)};
    case SecondPart::length:
        return {.club = label, .note = std::move(rest)};
    case SecondPart::none:
    case SecondPart::tag:
        break;
    }
    return {label};
}

} // namespace

void splitLabels(ImportedTest& imported, SecondPart second) {
    auto& test = imported.test;
    std::vector<std::string> labels;
    labels.reserve(test.builds.size());
    for (const auto& build : test.builds)
        labels.push_back(build.name);
    imported.separator = separatorOf(labels);
    if (imported.separator.empty() || second == SecondPart::none || second == SecondPart::tag)
        return;
    std::vector<record::Build> builds;
    std::unordered_map<std::string, record::BuildAt> known;
    std::vector<Label> parts;
    std::vector<record::BuildAt> now;
    for (const auto& label : labels) {
        parts.push_back(labelOf(label, imported.separator, second));
        const auto [at, added] =
            known.try_emplace(record::lowerCase(parts.back().club), record::BuildAt(builds.size()));
        if (added)
            builds.push_back({parts.back().club, {}});
        now.push_back(at->second);
    }
    for (auto& shot : test.shots) {
        const Label& label = parts[shot.build];
        shot.build = now[shot.build];
        shot.delivery = label.delivery.empty() ? shot.delivery : label.delivery;
        shot.player = label.player.empty() ? shot.player : label.player;
        shot.note = label.note.empty() ? shot.note : label.note;
    }
    test.builds = std::move(builds);
}

} // namespace knot::files
