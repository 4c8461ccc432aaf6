#include "core/plan/key_words.h"

#include "core/record/text/text.h"

#include <sodium.h>

#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

namespace knot::plan {
namespace {

// A word is consonant, vowel, consonant, vowel, ending: 4 + 2 + 4 + 2 + 1 bits.
constexpr std::string_view consonants = "bdhjklmnprstvwyz";
constexpr std::string_view vowels = "aeio";
constexpr std::string_view endings = "nr";
constexpr std::size_t words = 10, wordBits = 13, keyBytes = 16;

using Bits = std::array<bool, words * wordBits>;

// The key's bits and two of its hash.
Bits bitsOf(const std::array<unsigned char, keyBytes>& key) {
    Bits bits{};
    for (std::size_t i = 0; i < 8 * keyBytes; ++i)
        bits[i] = (key[i / 8] >> (7 - i % 8) & 1U) != 0;
    std::array<unsigned char, crypto_hash_sha256_BYTES> hash{};
    crypto_hash_sha256(hash.data(), key.data(), key.size());
    bits[8 * keyBytes] = (hash[0] & 1U) != 0;
    bits[8 * keyBytes + 1] = (hash[0] & 2U) != 0;
    return bits;
}

std::string textOf(const Bits& bits) {
    std::string text;
    std::size_t at = 0;
    auto take = [&](std::size_t count, std::string_view letters) {
        std::size_t value = 0;
        for (std::size_t i = 0; i < count; ++i)
            value = 2 * value + (bits[at++] ? 1 : 0);
        text += letters[value];
    };
    for (std::size_t word = 0; word < words; ++word) {
        text += word == 0 ? "" : " ";
        take(4, consonants);
        take(2, vowels);
        take(4, consonants);
        take(2, vowels);
        take(1, endings);
    }
    return text;
}

// Adds the bits of a letter; false for one that can't stand there.
bool put(Bits& bits, std::size_t& at, std::size_t count, std::string_view letters, char letter) {
    const auto value = letters.find(letter);
    if (value == std::string_view::npos)
        return false;
    for (std::size_t i = count; i-- > 0;)
        bits[at++] = (value >> i & 1U) != 0;
    return true;
}

std::vector<std::string> wordsIn(const std::string& text) {
    std::vector<std::string> found(1);
    for (const char c : record::lowerCase(text))
        if (c >= 'a' && c <= 'z')
            found.back() += c;
        else if (!found.back().empty())
            found.emplace_back();
    if (found.back().empty())
        found.pop_back();
    return found;
}

} // namespace

std::string newKeyWords() {
    if (sodium_init() < 0)
        return {};
    std::array<unsigned char, keyBytes> key{};
    randombytes_buf(key.data(), key.size());
    std::string text = textOf(bitsOf(key));
    sodium_memzero(key.data(), key.size());
    return text;
}

std::optional<std::string> keyWordsIn(const std::string& text) {
    const auto found = wordsIn(text);
    if (found.size() != words)
        return std::nullopt;
    Bits bits{};
    std::size_t at = 0;
    for (const auto& word : found)
        if (word.size() != 5 || !put(bits, at, 4, consonants, word[0]) || !put(bits, at, 2, vowels, word[1]) ||
            !put(bits, at, 4, consonants, word[2]) || !put(bits, at, 2, vowels, word[3]) ||
            !put(bits, at, 1, endings, word[4]))
            return std::nullopt;
    std::array<unsigned char, keyBytes> key{};
    for (std::size_t i = 0; i < 8 * keyBytes; ++i)
        key[i / 8] = static_cast<unsigned char>(key[i / 8] << 1U | (bits[i] ? 1U : 0U));
    const bool sound = bitsOf(key) == bits;
    sodium_memzero(key.data(), key.size());
    return sound ? std::optional(textOf(bits)) : std::nullopt;
}

} // namespace knot::plan
