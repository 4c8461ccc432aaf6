#include "core/plan/seal.h"

#include "core/plan/key_words.h"
#include "core/record/text/digest.h"
#include "core/record/text/text.h"

#include <sodium.h>

#include <algorithm>
#include <array>
#include <numeric>
#include <utility>

namespace knot::plan {
namespace {

using Bytes = std::vector<unsigned char>;

constexpr const char* heading = "Knot Count seal 1";
constexpr const char* bagHeading = "Knot Count bag 1";
constexpr std::size_t saltBytes = 16;

std::string hex(const Bytes& bytes) {
    std::string text(2 * bytes.size() + 1, '\0');
    sodium_bin2hex(text.data(), text.size(), bytes.data(), bytes.size());
    text.pop_back();
    return text;
}

std::optional<Bytes> bytesOf(const std::string& text) {
    Bytes bytes(text.size() / 2);
    std::size_t length = 0;
    if (text.size() % 2 != 0 ||
        sodium_hex2bin(bytes.data(), bytes.size(), text.data(), text.size(), nullptr, &length, nullptr) != 0 ||
        length != bytes.size())
        return std::nullopt;
    return bytes;
}

Bytes randomBytes(std::size_t count) {
    Bytes bytes(count);
    randombytes_buf(bytes.data(), bytes.size());
    return bytes;
}

std::optional<Bytes> keyFrom(const std::string& secret, const Bytes& salt) {
    Bytes key(crypto_secretbox_KEYBYTES);
    if (salt.size() != crypto_pwhash_SALTBYTES ||
        crypto_pwhash(key.data(), key.size(), secret.data(), secret.size(), salt.data(),
                      crypto_pwhash_OPSLIMIT_INTERACTIVE, crypto_pwhash_MEMLIMIT_INTERACTIVE,
                      crypto_pwhash_ALG_ARGON2ID13) != 0)
        return std::nullopt;
    return key;
}

Assignment drawnAssignment(std::size_t count) {
    Assignment order(count);
    std::iota(order.begin(), order.end(), std::size_t{0});
    for (std::size_t i = count; i > 1; --i)
        std::swap(order[i - 1], order[randombytes_uniform(static_cast<std::uint32_t>(i))]);
    return order;
}

std::string sealedText(const std::vector<std::string>& tags, const std::vector<record::Build>& builds,
                       const Assignment& assignment) {
    std::string text = std::string(heading) + "\nsalt = " + hex(randomBytes(saltBytes)) + "\n";
    for (std::size_t i = 0; i < tags.size(); ++i)
        text += tags[i] + " = " + builds[assignment[i]].name + "\n";
    return text;
}

// "Fern = Reed 53" lines after the heading and, of a seal, the salt.
std::optional<std::vector<std::pair<std::string, std::string>>> tagsIn(const std::string& text) {
    std::vector<std::pair<std::string, std::string>> tags;
    const bool isBag = text.starts_with(bagHeading);
    std::size_t line = 0;
    for (std::size_t from = 0; from < text.size(); ++line) {
        const auto end = text.find('\n', from);
        if (end == std::string::npos)
            return std::nullopt;
        const std::string row = text.substr(from, end - from);
        from = end + 1;
        if (line == 0 && row != (isBag ? bagHeading : heading))
            return std::nullopt;
        const auto equals = row.find(" = ");
        if (line > 0 && equals == std::string::npos)
            return std::nullopt;
        if (line > (isBag ? 0 : 1))
            tags.emplace_back(row.substr(0, equals), row.substr(equals + 3));
    }
    return tags.empty() ? std::nullopt : std::optional(tags);
}

} // namespace

std::vector<std::string> tagWords(std::size_t count, const std::vector<std::string>& own) {
    constexpr std::array words = {"Fern",  "Slate", "Ochre", "Heron",  "Flint", "Thistle",
                                  "Amber", "Gull",  "Moss",  "Copper", "Sloe",  "Chalk"};
    std::vector<std::string> tags;
    auto add = [&](const std::string& tag) {
        if (tags.size() < count && !tag.empty() && std::ranges::find(tags, tag) == tags.end())
            tags.push_back(tag);
    };
    for (const std::string& word : own)
        add(std::string(record::trimmed(word)));
    for (std::size_t i = 0; tags.size() < count; ++i)
        add(words[i % words.size()] + (i < words.size() ? "" : " " + std::to_string(i / words.size() + 1)));
    return tags;
}

namespace {

// Why one's own words can't be tags; empty where they can.
std::string whyNoTags(const record::Test& test) {
    for (const std::string& word : test.plan.tagWords)
        if (word.find_first_of("\r\n") != std::string::npos)
            return "A tag word of yours holds a line break; write it on one line.";
        else if (word.find(" = ") != std::string::npos)
            return "The tag word “" + word +
                   "” holds “ = ”, which parts tag from club in the sealed text; write it otherwise.";
    const auto tags = tagWords(test.builds.size(), test.plan.tagWords);
    for (const auto& build : test.builds)
        for (const std::string& tag : tags)
            if (record::lowerCase(tag) == record::lowerCase(build.name))
                return "“" + build.name + "” is a club and a tag; a tag must tell nothing. Type another word for it.";
    return {};
}

} // namespace

std::string whyNotSealed(const record::Test& test) {
    if (test.builds.size() < 2)
        return "A seal needs two clubs or more.";
    if (!test.shots.empty())
        return "Shots have been struck already, so it is known which club they came from.";
    if (!test.feels.empty() || !test.guesses.empty())
        return "Something was said of a club already, so it would be known under its tag.";
    if (test.plan.schedule == record::Schedule::sandwich)
        return "A sandwich shows by its order which tag is the baseline; choose rotated laps to seal the clubs.";
    if (!test.plan.changeTimes.empty())
        return "Change times of their own show by the order which clubs share parts; take them back to seal the clubs.";
    std::vector<std::string> names;
    for (const auto& build : test.builds) {
        if (build.name.find('\n') != std::string::npos)
            return "The name of a club holds a line break; write it on one line.";
        if (record::trimmed(build.name).empty() || record::trimmed(build.name).size() != build.name.size())
            return "The name “" + build.name + "” begins or ends with a blank, which nobody sees; take it away.";
        if (std::ranges::find(names, build.name) != names.end())
            return "Two clubs are called “" + build.name + "”; the tags could never be told apart.";
        names.push_back(build.name);
    }
    return whyNoTags(test);
}

namespace {

// Tags in the places of the clubs, which stand behind them in the order of the sheet.
void hideClubs(record::Test& test) {
    const auto tags = tagWords(test.builds.size(), test.plan.tagWords);
    test.sealedBuilds = std::exchange(test.builds, {});
    for (const auto& tag : tags) {
        record::Build hidden;
        hidden.name = tag;
        hidden.tag = tag;
        test.builds.push_back(std::move(hidden));
    }
}

} // namespace

record::Test inBag(record::Test test, const std::string& at) {
    test.seal = {.keyKind = "bag", .sealedAt = at};
    hideClubs(test);
    return test;
}

std::optional<record::Test> sealed(record::Test test, const std::string& words, const std::string& at,
                                   const std::string& attachment) {
    if (sodium_init() < 0)
        return std::nullopt;
    const auto tags = tagWords(test.builds.size(), test.plan.tagWords);
    std::string text = sealedText(tags, test.builds, drawnAssignment(tags.size()));
    const Bytes salt = randomBytes(crypto_pwhash_SALTBYTES);
    const Bytes nonce = randomBytes(crypto_secretbox_NONCEBYTES);
    auto key = keyFrom(words, salt);
    if (!key)
        return std::nullopt;
    std::string content = text + '\0' + attachment;
    Bytes box(content.size() + crypto_secretbox_MACBYTES);
    crypto_secretbox_easy(box.data(), reinterpret_cast<const unsigned char*>(content.data()), content.size(),
                          nonce.data(), key->data());
    sodium_memzero(key->data(), key->size());
    sodium_memzero(content.data(), content.size());
    test.seal = {.commitment = record::sha256(text),
                 .box = hex(box),
                 .nonce = hex(nonce),
                 .keySalt = hex(salt),
                 .keyKind = keyWordsIn(words) ? "words" : "",
                 .sealedAt = at};
    sodium_memzero(text.data(), text.size());
    hideClubs(test);
    return test;
}

std::variant<Opened, SealFault> openSeal(const record::Seal& seal, const std::string& typed) {
    const auto box = bytesOf(seal.box);
    const auto nonce = bytesOf(seal.nonce);
    const auto salt = bytesOf(seal.keySalt);
    if (sodium_init() < 0 || !box || !nonce || !salt || box->size() < crypto_secretbox_MACBYTES ||
        nonce->size() != crypto_secretbox_NONCEBYTES || salt->size() != crypto_pwhash_SALTBYTES)
        return SealFault::damaged;
    auto key = keyFrom(keyWordsIn(typed).value_or(typed), *salt);
    if (!key)
        return SealFault::noMemory;
    std::string content(box->size() - crypto_secretbox_MACBYTES, '\0');
    const int failed = crypto_secretbox_open_easy(reinterpret_cast<unsigned char*>(content.data()), box->data(),
                                                  box->size(), nonce->data(), key->data());
    sodium_memzero(key->data(), key->size());
    if (failed != 0)
        return SealFault::wrongKey;
    const auto end = content.find('\0');
    if (end == std::string::npos)
        return SealFault::damaged;
    Opened opened{.text = content.substr(0, end), .attachment = content.substr(end + 1), .tags = {}};
    auto tags = tagsIn(opened.text);
    if (!tags || record::sha256(opened.text) != seal.commitment)
        return SealFault::damaged;
    opened.tags = std::move(*tags);
    return opened;
}

namespace {

// Says which clubs have other parts than the box has.
void amendParts(record::Test& test, const std::vector<record::Build>& inBox, const std::string& at) {
    std::string others;
    for (const record::Build& sealed : inBox) {
        const auto now = std::ranges::find(test.builds, sealed.name, &record::Build::name);
        if (now != test.builds.end() && !(now->club == sealed.club))
            others += (others.empty() ? "" : ", ") + sealed.name;
    }
    if (!others.empty())
        test.amendments.push_back({at, "since they were sealed the parts were changed of " + others});
}

} // namespace

std::optional<record::Test> revealed(record::Test test, const Opened& opened, const std::string& at,
                                     const std::vector<record::Build>& inBox) {
    for (record::Build& build : test.builds) {
        const auto pair = std::ranges::find(opened.tags, build.name, &std::pair<std::string, std::string>::first);
        if (pair == opened.tags.end())
            return std::nullopt;
        const auto hidden = std::ranges::find(test.sealedBuilds, pair->second, &record::Build::name);
        if (hidden == test.sealedBuilds.end())
            return std::nullopt;
        const std::string tag = build.name;
        build = *hidden;
        build.tag = tag;
    }
    test.seal.revealedAt = at;
    test.seal.sealedText = opened.text;
    amendParts(test, inBox, at);
    return test;
}

std::optional<record::Test> revealedByHand(record::Test test, const std::vector<std::string>& clubs,
                                           const std::string& at) {
    auto sorted = clubs;
    std::ranges::sort(sorted);
    if (clubs.size() != test.builds.size() || std::ranges::adjacent_find(sorted) != sorted.end() ||
        sorted.front().empty())
        return std::nullopt;
    if (test.sealedBuilds.empty()) // an export, whose clubs the box alone knows
        for (const auto& name : clubs)
            test.sealedBuilds.push_back({.name = name});
    const bool isBag = test.seal.isBag();
    Opened said;
    if (isBag)
        said.text = std::string(bagHeading) + "\n";
    for (std::size_t i = 0; i < clubs.size(); ++i) {
        said.tags.emplace_back(test.builds[i].name, clubs[i]);
        if (isBag)
            said.text += test.builds[i].name + " = " + clubs[i] + "\n";
    }
    auto known = revealed(std::move(test), said, at);
    if (known && !isBag)
        known->amendments.push_back(
            {at, "the clubs were named by hand, without the key: that nothing was switched can't be checked"});
    return known;
}

std::optional<record::Test> comparedWithSeal(record::Test test, const Opened& opened, const std::string& at) {
    bool same = true;
    std::vector<record::Build> builds;
    for (const record::Build& named : test.builds) {
        const auto pair = std::ranges::find(opened.tags, named.tag, &std::pair<std::string, std::string>::first);
        if (pair == opened.tags.end())
            return std::nullopt;
        const auto& known = test.sealedBuilds.empty() ? test.builds : test.sealedBuilds;
        const auto club = std::ranges::find(known, pair->second, &record::Build::name);
        if (club == known.end())
            return std::nullopt;
        same = same && pair->second == named.name;
        builds.push_back(*club);
        builds.back().tag = named.tag;
    }
    test.builds = std::move(builds);
    test.seal.sealedText = opened.text;
    test.amendments.push_back({at, same ? "the key was found: the clubs named by hand are those that were sealed"
                                        : "the key was found: the clubs named by hand were others than those sealed, "
                                          "and are put right"});
    return test;
}

bool Agreement::wasSwitched() const {
    return std::ranges::any_of(since, &Since::wasSwitched);
}

Agreement agreementOf(const record::Test& test) {
    using State = Agreement::State;
    const record::Seal& seal = test.seal;
    if (!seal.wasMade())
        return {};
    if (seal.isClosed() || seal.isByHand())
        return {.state = seal.isClosed() ? State::closed : State::byHand, .since = {}};
    const auto tags = tagsIn(seal.sealedText);
    if (!tags || (!seal.isBag() && record::sha256(seal.sealedText) != seal.commitment))
        return {.state = State::forged, .since = {}};
    Agreement agreement{.state = seal.isBag() ? State::bySight : State::agrees, .since = {}};
    for (const auto& [tag, name] : *tags) {
        const auto now = std::ranges::find(test.builds, tag, &record::Build::tag);
        const auto before = std::ranges::find(test.sealedBuilds, name, &record::Build::name);
        const bool isOther = now == test.builds.end() || now->name != name;
        const bool hasOtherParts =
            now != test.builds.end() && before != test.sealedBuilds.end() && !(now->club == before->club);
        if (!isOther && !hasOtherParts)
            continue;
        const std::string called = now == test.builds.end() ? std::string() : now->name;
        const bool isSealed =
            std::ranges::find(*tags, called, &std::pair<std::string, std::string>::second) != tags->end();
        agreement.since.push_back({tag, name, called, isOther && isSealed});
        agreement.state = State::changed;
    }
    return agreement;
}

std::vector<record::Build> declaredBuilds(const record::Test& test) {
    if (test.seal.isClosed() || test.sealedBuilds.empty())
        return test.seal.isClosed() && !test.sealedBuilds.empty() ? test.sealedBuilds : test.builds;
    const auto tags = tagsIn(test.seal.sealedText);
    std::vector<record::Build> left = test.builds;
    std::vector<record::Build> builds;
    for (const record::Build& sealed : test.sealedBuilds) {
        const auto at = std::ranges::find_if(left, [&](const record::Build& build) {
            return tags ? std::ranges::find(*tags, std::pair(build.tag, sealed.name)) != tags->end()
                        : build.name == sealed.name;
        });
        if (at == left.end())
            continue;
        builds.push_back(std::move(*at));
        left.erase(at);
    }
    builds.insert(builds.end(), left.begin(), left.end());
    return builds;
}

SealedView asSealed(record::Test test) {
    if (test.seal.isClosed()) {
        test.card.comparison = record::Comparison::whichOfThese;
        test.card.baseline.clear();
        test.card.expectedOrder.clear(); // it names clubs, and tags are all there is
    }
    return SealedView(std::move(test));
}

} // namespace knot::plan
