#include "mutation/mutator.h"

#include <algorithm>
#include <array>
#include <cstdlib>
#include <fstream>

namespace knot::test {

namespace {

// Values that have tripped readers, and the marks that structure is made of.
constexpr std::array tokens = {
    "-1",        "0",          "1e308",
    "-1e160",    "1e-308",     "nan",
    "inf",       "2147483648", "9223372036854775807",
    "6,250",     "3,5",        "1.234.",
    "",          " ",          "\"",
    "\"\"",      "\n",         "\r\n",
    "\t",        ";",          ",",
    "{",         "}",          "[",
    "]",         "null",       "true",
    "\\u0000",   "\xc3",       "\xef\xbb\xbf",
    "°",         "−12",        "12 mph",
    "=1+1",      "<img>",      "\x1b[31m",
    "\\ud800",   "\u202e",     "counted",
    "set_aside", "()",         "e",
    ":",         "'",          "--",
    "_",         "[[[[[[[[",   "0x10",
    "-0",        "1e6",
};

} // namespace

void Mutator::damage(std::string& text) {
    const std::size_t at = below(text.size() + 1);
    const std::size_t length = std::min(below(20) == 0 ? below(text.size() + 1) : below(16), text.size() - at);
    switch (below(11)) {
    case 0: // a bit
        if (at < text.size())
            text[at] = static_cast<char>(text[at] ^ (1 << below(8)));
        break;
    case 1: // any byte put in
        text.insert(at, 1, static_cast<char>(below(256)));
        break;
    case 2: // a piece gone
        text.erase(at, length);
        break;
    case 3: // a piece twice, somewhere
        text.insert(below(text.size() + 1), text.substr(at, length));
        break;
    case 4: // the end cut off
        text.resize(at);
        break;
    case 5: // a token put in
        text.insert(at, tokens[below(tokens.size())]);
        break;
    case 6: // a token in place of a piece
        text.replace(at, length, tokens[below(tokens.size())]);
        break;
    case 7: // a number replaced
    case 9:
    case 10:
        if (const auto digit = text.find_first_of("0123456789", at); digit != std::string::npos) {
            const auto end = std::min(text.find_first_not_of("0123456789.", digit), text.size());
            text.replace(digit, end - digit, tokens[below(tokens.size())]);
        }
        break;
    default: { // a piece of another seed
        const auto& other = m_seeds[below(m_seeds.size())];
        const std::size_t from = below(other.size() + 1);
        text.insert(at, other.substr(from, below(200)));
    }
    }
}

std::string Mutator::next() {
    std::string text = m_seeds[below(m_seeds.size())];
    for (std::size_t left = below(2) == 0 ? 1 : 1 + below(4); left > 0; --left)
        damage(text);
    return text;
}

std::vector<std::string> seedsIn(std::string_view kind) {
    std::vector<std::filesystem::path> paths;
    for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(KNOT_TEST_DATA) / "fuzz" / kind))
        paths.push_back(entry.path());
    std::sort(paths.begin(), paths.end());
    std::vector<std::string> seeds;
    for (const auto& path : paths) {
        std::ifstream in(path, std::ios::binary);
        seeds.emplace_back(std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>());
    }
    return seeds;
}

std::size_t mutations() {
    if (const char* wanted = std::getenv("KNOT_MUTATIONS"))
        return static_cast<std::size_t>(std::max(1, std::atoi(wanted)));
    return 150;
}

std::filesystem::path mutantFile(std::string_view kind) {
    return std::filesystem::temp_directory_path() / ("knot_mutant_" + std::string(kind));
}

} // namespace knot::test
