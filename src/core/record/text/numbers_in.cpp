#include "core/record/text/numbers_in.h"

#include "core/record/text/number_text.h"

#include <string_view>

namespace knot::record {

std::vector<double> numbersIn(std::string text) {
    constexpr std::string_view minus = "\u2212";
    for (auto at = text.find(minus); at != std::string::npos; at = text.find(minus))
        text.replace(at, minus.size(), "-");
    std::vector<double> numbers;
    std::string figure;
    auto take = [&] {
        if (const auto number = numberIn(figure); number && !figure.empty())
            numbers.push_back(*number);
        figure.clear();
    };
    for (const char c : text)
        if ((c >= '0' && c <= '9') || c == '.' || (c == '-' && figure.empty()))
            figure += c;
        else
            take();
    take();
    return numbers;
}

} // namespace knot::record
