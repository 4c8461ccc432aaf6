#include "core/words/feels.h"

namespace knot::words {

const char* feelWord(record::FeelScale scale) {
    switch (scale) {
    case record::FeelScale::liveliness:
        return "liveliness";
    case record::FeelScale::weight:
        return "weight in the head";
    case record::FeelScale::harshness:
        return "harshness";
    case record::FeelScale::control:
        return "control";
    case record::FeelScale::look:
        return "look";
    case record::FeelScale::confidence:
        return "confidence";
    }
    return "";
}

std::string feelText(const record::Feel& feel) {
    std::string text;
    auto add = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
    if (!feel.words.empty())
        add("“" + feel.words + "”");
    for (std::size_t i = 0; i < record::feelScaleCount; ++i)
        if (feel.scores[i] > 0)
            add(std::string(feelWord(static_cast<record::FeelScale>(i))) + " " + std::to_string(feel.scores[i]));
    switch (feel.versus) {
    case record::Versus::notSaid:
        break;
    case record::Versus::better:
        add("better than the one before");
        break;
    case record::Versus::worse:
        add("worse than the one before");
        break;
    case record::Versus::same:
        add("can't tell from the one before");
        break;
    }
    return text;
}

} // namespace knot::words
