#include "core/record/text/order_text.h"

#include "core/record/text/text.h"

#include <algorithm>
#include <string_view>

namespace knot::record {
namespace {

// What stands between commas, semicolons or signs of more; empty pieces are nothing said.
std::vector<std::string> piecesOf(const std::string& text) {
    std::vector<std::string> pieces(1);
    for (const char c : text)
        if (c == ',' || c == ';' || c == '>')
            pieces.emplace_back();
        else
            pieces.back() += c;
    for (std::string& piece : pieces)
        piece = std::string(trimmed(piece));
    std::erase(pieces, "");
    return pieces;
}

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
                              ? "No club on the Rack is called “" + said + "”."
                              : "“" + said + "” may be " + begun[0] + " or " + begun[1] + "; type a letter more.");
}

} // namespace

tl::expected<std::vector<std::string>, std::string> orderFromText(const std::string& text,
                                                                  const std::vector<Build>& builds) {
    // A name that itself holds a comma is found whole where it is all that is said.
    if (const auto one = buildMeant(std::string(trimmed(text)), builds); one && !trimmed(text).empty())
        return std::vector{*one};
    std::vector<std::string> order;
    for (const std::string& piece : piecesOf(text)) {
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
