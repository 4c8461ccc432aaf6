#include "core/record/typed/club_names.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace knot::record {
namespace {

bool isSeparator(char c) {
    return c == ',' || c == ';' || c == '>' || c == '\n';
}

// "and" and "or" between names, with the blanks around them.
std::size_t jointWordAt(std::string_view text) {
    for (const std::string_view word : {" and ", " or ", " And ", " Or "})
        if (text.starts_with(word))
            return word.size();
    return 0;
}

bool nameEndsAt(std::string_view text) {
    const auto rest = trimmed(text);
    return rest.empty() || isSeparator(rest.front()) || jointWordAt(text) > 0;
}

// The longest known name that a text begins with.
const std::string* knownAt(std::string_view text, const std::vector<std::string>& known) {
    const std::string* longest = nullptr;
    for (const std::string& name : known)
        if (!name.empty() && lowerCase(text.substr(0, name.size())) == lowerCase(name) &&
            nameEndsAt(text.substr(std::min(name.size(), text.size()))) &&
            (longest == nullptr || name.size() > longest->size()))
            longest = &name;
    return longest;
}

// What stands in quotes at the front, with them.
std::string_view quotedAt(std::string_view text) {
    constexpr std::array<std::pair<std::string_view, std::string_view>, 2> quotes = {{{"\"", "\""}, {"“", "”"}}};
    for (const auto& [opens, closes] : quotes)
        if (text.starts_with(opens))
            if (const auto end = text.find(closes, opens.size()); end != std::string_view::npos)
                return text.substr(0, end + closes.size());
    return {};
}

} // namespace

std::vector<std::string> namesIn(const std::string& text, const std::vector<std::string>& known) {
    std::vector<std::string> names;
    std::string_view left = trimmed(text);
    auto skip = [&](std::size_t size) { left = trimmed(left.substr(size)); };
    while (!left.empty()) {
        if (isSeparator(left.front())) {
            skip(1);
        } else if (const std::string* name = knownAt(left, known)) {
            names.push_back(*name);
            const std::size_t joint = jointWordAt(left.substr(name->size()));
            skip(name->size() + joint);
        } else if (const auto quoted = quotedAt(left); !quoted.empty()) {
            const std::size_t mark = quoted.front() == '"' ? 1 : std::string_view("“").size();
            names.emplace_back(trimmed(quoted.substr(mark, quoted.size() - 2 * mark)));
            skip(quoted.size());
        } else {
            std::size_t end = 0;
            while (end < left.size() && !isSeparator(left[end]) && jointWordAt(left.substr(end)) == 0)
                ++end;
            names.emplace_back(trimmed(left.substr(0, end)));
            skip(end + jointWordAt(left.substr(end)));
        }
    }
    std::erase(names, "");
    return names;
}

namespace {

tl::expected<std::string, std::string> buildMeant(const std::string& said, const std::vector<Build>& builds) {
    std::vector<std::string> begun;
    for (const Build& build : builds) {
        if (lowerCase(build.name) == lowerCase(said))
            return build.name;
        if (lowerCase(build.name).starts_with(lowerCase(said)))
            begun.push_back(build.name);
    }
    if (begun.size() == 1)
        return begun.front();
    return tl::unexpected(begun.empty()
                              ? "No club on the Clubs page is called “" + said + "”."
                              : "“" + said + "” may be " + begun[0] + " or " + begun[1] + "; type a letter more.");
}

} // namespace

tl::expected<std::vector<std::string>, std::string> orderFromText(const std::string& text,
                                                                  const std::vector<Build>& builds) {
    std::vector<std::string> known;
    for (const Build& build : builds)
        known.push_back(build.name);
    std::vector<std::string> order;
    for (const std::string& piece : namesIn(text, known)) {
        auto name = buildMeant(piece, builds);
        if (!name)
            return tl::unexpected(name.error());
        if (std::ranges::find(order, *name) != order.end())
            return tl::unexpected(*name + " is named twice.");
        order.push_back(std::move(*name));
    }
    return order;
}

std::string orderText(const std::vector<std::string>& order) {
    std::string text;
    for (const std::string& name : order)
        text += (text.empty() ? "" : ", ") + name;
    return text;
}

} // namespace knot::record
