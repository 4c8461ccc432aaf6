#include "files/import/label.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <set>

namespace knot::files {
namespace {

constexpr std::array<std::string_view, 9> separators = {" – ", " — ", " - ", " · ", " | ", " / ", "/", "|", ", "};

std::pair<std::string, std::string> parted(const std::string& label, std::string_view separator) {
    const auto at = label.find(separator);
    if (at == std::string::npos)
        return {label, {}};
    return {std::string(record::trimmed(std::string_view(label).substr(0, at))),
            std::string(record::trimmed(std::string_view(label).substr(at + separator.size())))};
}

} // namespace

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

} // namespace knot::files
