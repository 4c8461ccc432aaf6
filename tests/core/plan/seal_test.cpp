#include "core/judge/judge.h"
#include "core/plan/key_words.h"
#include "core/plan/seal.h"
#include "core/plan/spreads.h"
#include "core/random.h"
#include "core/simulate/scenarios.h"
#include "core/words/decide.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <cctype>
#include <set>
#include <sstream>

#include <cmath>
#include <map>

using namespace knot;
using record::Metric;

namespace {

record::Test threeShafts() {
    record::Test test;
    for (const char* name : {"Reed 53", "Alder 62", "Larch 71"}) {
        record::Build build;
        build.name = name;
        test.builds.push_back(build);
    }
    test.card.baseline = "Reed 53";
    return test;
}

} // namespace

TEST_CASE("a seal hides which tag is which, and the PIN opens it") {
    const auto test = threeShafts();
    const auto sealed = *plan::sealed(test, "4711", "2026-05-01T09:00", "more");
    CHECK(sealed.seal.isClosed());
    CHECK(sealed.builds[0].name == "Fern");
    CHECK(sealed.sealedBuilds == test.builds);
    CHECK(sealed.seal.box.find("Reed") == std::string::npos);
    const auto opened = std::get<plan::Opened>(plan::openSeal(sealed.seal, "4711"));
    CHECK(opened.attachment == "more");
    REQUIRE(opened.tags.size() == 3);
    CHECK(plan::sha256(opened.text) == sealed.seal.commitment);
    const auto revealed = *plan::revealed(sealed, opened, "2026-05-01T11:00");
    CHECK(!revealed.seal.isClosed());
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(revealed.builds[i].tag == opened.tags[i].first);
        CHECK(revealed.builds[i].name == opened.tags[i].second);
    }
    CHECK(revealed.buildIndex("Reed 53"));
}

TEST_CASE("a wrong PIN, a switched assignment and a broken box are refused") {
    const auto sealed = *plan::sealed(threeShafts(), "4711", "", "");
    CHECK(std::get<plan::SealFault>(plan::openSeal(sealed.seal, "4712")) == plan::SealFault::wrongKey);
    auto forged = sealed.seal;
    forged.commitment = plan::sha256("another");
    CHECK(std::get<plan::SealFault>(plan::openSeal(forged, "4711")) == plan::SealFault::damaged);
    auto broken = sealed.seal;
    broken.box = broken.box.substr(0, 20);
    CHECK(std::get<plan::SealFault>(plan::openSeal(broken, "4711")) == plan::SealFault::damaged);
    broken.box = "zz";
    CHECK(std::get<plan::SealFault>(plan::openSeal(broken, "4711")) == plan::SealFault::damaged);
    auto other = *plan::sealed(threeShafts(), "4711", "", "");
    CHECK(other.seal.commitment != sealed.seal.commitment);
    auto strange = sealed;
    strange.sealedBuilds[0].name = "Birch 99";
    const auto opened = std::get<plan::Opened>(plan::openSeal(sealed.seal, "4711"));
    CHECK(!plan::revealed(strange, opened, ""));
}

TEST_CASE("every assignment is as likely as any other") {
    std::map<std::string, int> drawn;
    constexpr int draws = 24; // each costs the time that makes guessing PINs slow
    for (int i = 0; i < draws; ++i) {
        record::Test two = threeShafts();
        two.builds.pop_back();
        const auto sealed = *plan::sealed(two, "1234", "", "");
        ++drawn[std::get<plan::Opened>(plan::openSeal(sealed.seal, "1234")).tags[0].second];
    }
    CHECK(drawn.size() == 2);
    CHECK(drawn["Reed 53"] > 2); // fewer: 1 in 50,000 for a fair draw
    CHECK(drawn["Reed 53"] < 22);
}

TEST_CASE("hashes are those of sha256sum") {
    CHECK(plan::sha256("abc") == "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}

TEST_CASE("a test that can't be sealed says why") {
    auto test = threeShafts();
    CHECK(plan::whyNotSealed(test).empty());
    test.plan.schedule = record::Schedule::sandwich;
    CHECK(plan::whyNotSealed(test).find("which tag is the baseline") != std::string::npos);
    test = threeShafts();
    test.plan.changeTimes = {{record::BuildAt(0), record::BuildAt(1), 200}};
    CHECK(plan::whyNotSealed(test).find("share parts") != std::string::npos);
    test = threeShafts();
    test.shots.emplace_back();
    CHECK(plan::whyNotSealed(test).find("struck already") != std::string::npos);
    test.builds.resize(1);
    CHECK(plan::whyNotSealed(test).find("two clubs") != std::string::npos);
}

TEST_CASE("while the seal is closed the judge compares tags and knows no baseline") {
    auto test = *plan::sealed(threeShafts(), "4711", "", "");
    Random random(2);
    for (int lap = 0; lap < 4; ++lap)
        for (std::size_t build = 0; build < 3; ++build) {
            record::Shot shot;
            shot.build = record::BuildAt(build);
            shot.round = std::to_string(lap + 1);
            shot.readings.measure(Metric::carry, 150 + random.normal());
            test.shots.push_back(shot);
        }
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.average.size() == 3);
    CHECK(reading.card.comparison == record::Comparison::whichOfThese);
    for (const auto& build : reading.builds)
        CHECK(build.name.find(' ') == std::string::npos);
    auto open = threeShafts();
    CHECK(plan::asSealed(open).take() == open);
}

TEST_CASE("tags never run out and never repeat") {
    const auto tags = plan::tagWords(30);
    for (std::size_t i = 0; i < tags.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            CHECK(tags[i] != tags[j]);
}

TEST_CASE("every metric has usual spreads, wider for a less steady player") {
    for (const auto metric : record::allMetrics()) {
        const auto steady = plan::usualSpreads(metric, plan::Level::steady);
        const auto club = plan::usualSpreads(metric, plan::Level::club);
        const auto occasional = plan::usualSpreads(metric, plan::Level::occasional);
        CHECK(steady.sdShot > 0);
        CHECK(steady.sdTurn > 0);
        CHECK((steady.sdShot < club.sdShot && club.sdShot < occasional.sdShot));
        CHECK((steady.sdTurn < club.sdTurn && club.sdTurn < occasional.sdTurn));
    }
}

TEST_CASE("the player's own spreads come from their shots, free of builds and sittings") {
    Random random(3);
    std::vector<record::Test> tests;
    for (int t = 0; t < 8; ++t) {
        knot::test::TestBuilder builder;
        for (int lap = 0; lap < 10; ++lap)
            for (int club = 0; club < 3; ++club) {
                const double turn = 140 + 10 * club + 2 * random.normal();
                std::vector<double> values;
                for (int i = 0; i < 4; ++i)
                    values.push_back(turn + 5 * random.normal());
                builder.turn(std::string(1, static_cast<char>('A' + club)), std::to_string(lap), values);
            }
        tests.push_back(builder.test);
    }
    const auto own = plan::ownSpreads(tests, Metric::carry);
    REQUIRE(own);
    CHECK(own->sdShot == Approx(5).margin(0.4));
    CHECK(own->sdTurn == Approx(2).margin(0.7));
    CHECK(own->turns == 240);
    CHECK(own->shots == 960);
    CHECK(!plan::ownSpreads(tests, Metric::spin));
    tests.resize(1);
    tests[0].shots.resize(8);
    CHECK(!plan::ownSpreads(tests, Metric::carry));
    CHECK(!plan::ownSpreads({}, Metric::carry));
}

TEST_CASE("a key is ten words of 128 bits, read back however it was written down") {
    std::set<std::string> keys;
    std::set<std::string> words;
    for (int i = 0; i < 500; ++i) {
        const std::string key = plan::newKeyWords();
        CHECK(keys.insert(key).second);
        CHECK(plan::keyWordsIn(key) == key);
        std::istringstream in(key);
        std::size_t count = 0;
        for (std::string word; in >> word; ++count)
            words.insert(word);
        CHECK(count == 10);
    }
    CHECK(words.size() > 3500); // of 8,192, 5,000 drawn
    const std::string key = plan::newKeyWords();
    std::string spread = "  ";
    for (const char c : key)
        spread += c == ' ' ? std::string(",\n ") : std::string(1, static_cast<char>(std::toupper(c)));
    CHECK(plan::keyWordsIn(spread + " .") == key);
    CHECK(!plan::keyWordsIn(""));
    CHECK(!plan::keyWordsIn(key.substr(0, 53)));
    CHECK(!plan::keyWordsIn(key + " bakin"));
    CHECK(!plan::keyWordsIn("4711"));
    // Three of four slips of a letter are seen before the seal is tried.
    int seen = 0;
    for (std::size_t i = 1; i < key.size(); i += 6) // the first vowel of each word
        for (const char other : std::string("aeio")) {
            std::string slip = key;
            slip[i] = other;
            seen += slip != key && !plan::keyWordsIn(slip) ? 1 : 0;
        }
    CHECK(seen >= 12);
    CHECK(seen <= 30);
}

TEST_CASE("names that could not be told apart later are not sealed") {
    auto test = threeShafts();
    for (const char* name : {" Oak", "Oak ", "", "  ", "\u00a0Oak"}) {
        test.builds[0].name = name;
        CHECK(plan::whyNotSealed(test).find("begins or ends with a blank") != std::string::npos);
    }
    test.builds[0].name = test.builds[1].name;
    CHECK(plan::whyNotSealed(test).find("never be told apart") != std::string::npos);
}

TEST_CASE("what was named by hand is compared with the seal once its key is found") {
    const auto words = plan::newKeyWords();
    const auto sealed = *plan::sealed(threeShafts(), words, "t", "");
    CHECK(sealed.seal.keyKind == "words");
    const auto opened = std::get<plan::Opened>(plan::openSeal(sealed.seal, words));
    std::vector<std::string> truth;
    for (const auto& [tag, club] : opened.tags)
        truth.push_back(club);
    auto right = *plan::revealedByHand(sealed, truth, "t");
    CHECK(right.seal.isByHand());
    right = *plan::comparedWithSeal(right, opened, "u");
    CHECK(!right.seal.isByHand());
    CHECK(right.amendments.back().text.find("are those that were sealed") != std::string::npos);
    std::swap(truth[0], truth[2]);
    const auto wrong = *plan::comparedWithSeal(*plan::revealedByHand(sealed, truth, "t"), opened, "u");
    CHECK(wrong.amendments.back().text.find("put right") != std::string::npos);
    CHECK(wrong.builds == right.builds);
    // An export holds no clubs: any names are taken.
    auto exported = sealed;
    exported.sealedBuilds.clear();
    CHECK(plan::revealedByHand(exported, {"one", "two", "three"}, "t")->builds[1].name == "two");
    CHECK(!plan::revealedByHand(exported, {"one", "", "three"}, "t"));
}

TEST_CASE("the reveal proves itself: hash, text and clubs agree, or what differs is named") {
    using State = plan::Agreement::State;
    record::Test open = threeShafts();
    for (auto& build : open.builds)
        build.club.shaft.mass = 60;
    CHECK(plan::agreementOf(open).state == State::notSealed);
    const auto sealed = *plan::sealed(open, "4711", "t", "");
    CHECK(plan::agreementOf(sealed).state == State::closed);
    CHECK(words::sealSentence(sealed).empty());
    const auto opened = std::get<plan::Opened>(plan::openSeal(sealed.seal, "4711"));
    const auto revealed = *plan::revealed(sealed, opened, "u", sealed.sealedBuilds);
    CHECK(revealed.amendments.empty());
    CHECK(plan::agreementOf(revealed).state == State::agrees);
    CHECK(words::sealSentence(revealed).find("nothing was switched") != std::string::npos);

    auto switched = revealed;
    std::swap(switched.builds[0].name, switched.builds[1].name);
    const auto found = plan::agreementOf(switched);
    CHECK(found.state == State::changed);
    CHECK(found.wasSwitched());
    REQUIRE(found.since.size() == 2);
    CHECK(words::sealSentence(switched).find(revealed.builds[0].tag + " was sealed as " + revealed.builds[0].name +
                                             ", called " + revealed.builds[1].name + " since.") != std::string::npos);
    CHECK(words::sealSentence(switched).find("nothing was switched") == std::string::npos);

    auto renamed = revealed;
    renamed.builds[2].name = "Yew";
    CHECK(plan::agreementOf(renamed).state == State::changed);
    CHECK_FALSE(plan::agreementOf(renamed).wasSwitched());

    auto otherShaft = revealed;
    otherShaft.builds[1].club.shaft.mass = 71;
    CHECK(words::sealSentence(otherShaft).find(", with other parts since.") != std::string::npos);

    auto gone = revealed;
    gone.builds.pop_back();
    CHECK(words::sealSentence(gone).find("no club has its tag") != std::string::npos);

    auto forged = revealed;
    forged.seal.sealedText += "x = y\n";
    CHECK(plan::agreementOf(forged).state == State::forged);
    CHECK(plan::agreementOf(*plan::revealedByHand(sealed, {"Reed 53", "Alder 62", "Larch 71"}, "u")).state ==
          State::byHand);

    // Parts that were changed in the file while it was sealed are noted at the reveal.
    auto tampered = sealed;
    tampered.sealedBuilds[0].club.shaft.mass = 85;
    const auto noted = *plan::revealed(tampered, opened, "u", open.builds);
    REQUIRE(noted.amendments.size() == 1);
    CHECK(noted.amendments[0].text == "since they were sealed the parts were changed of Reed 53");
}

TEST_CASE("clubs stand in the order of the sheet before, under and after the seal") {
    const auto open = threeShafts();
    const auto sealed = *plan::sealed(open, "4711", "t", "");
    const auto opened = std::get<plan::Opened>(plan::openSeal(sealed.seal, "4711"));
    auto names = [](const record::Test& test) {
        std::string all;
        for (const auto& build : plan::declaredBuilds(test))
            all += build.name + ";";
        return all;
    };
    CHECK(names(open) == "Reed 53;Alder 62;Larch 71;");
    CHECK(names(sealed) == names(open));
    auto revealed = *plan::revealed(sealed, opened, "u");
    CHECK(names(revealed) == names(open));
    CHECK(names(*plan::revealedByHand(sealed, {"Larch 71", "Reed 53", "Alder 62"}, "u")) == names(open));
    revealed.builds[*revealed.buildIndex("Alder 62")].name = "Elm";
    CHECK(names(revealed) == "Reed 53;Elm;Larch 71;");
    revealed.builds.push_back({.name = "Yew"});
    CHECK(names(revealed) == "Reed 53;Elm;Larch 71;Yew;");
}

TEST_CASE("tags that could not be revealed, and what was said in the open, are refused before sealing") {
    for (const char* word : {"A = B", "two\nlines", "two\rlines"}) {
        auto test = threeShafts();
        test.plan.tagWords = {word};
        CHECK_FALSE(plan::whyNotSealed(test).empty());
    }
    for (const char* name : {"Slate", "fern"}) {
        auto test = threeShafts();
        test.builds[1].name = name;
        CHECK(plan::whyNotSealed(test).find("a tag must tell nothing") != std::string::npos);
        test.plan.tagWords = {"one", "two", "three"}; // whose tags are others
        CHECK(plan::whyNotSealed(test).empty());
    }
    auto said = threeShafts();
    said.guesses = {{.build = record::BuildAt(0), .said = "Reed 53", .turn = {}}};
    CHECK(plan::whyNotSealed(said).find("said of a club already") != std::string::npos);
    said = threeShafts();
    said.feels = {{}};
    CHECK_FALSE(plan::whyNotSealed(said).empty());
    CHECK(plan::whyNotSealed(threeShafts()).empty());
}

TEST_CASE("clubs in a bag keep the secret themselves, and what was named in the end stays") {
    using State = plan::Agreement::State;
    const auto test = threeShafts();
    const auto tagged = plan::inBag(test, "2026-05-01T09:00");
    CHECK(tagged.seal.isClosed());
    CHECK(tagged.seal.commitment.empty());
    CHECK(tagged.builds[2].name == "Ochre");
    CHECK(tagged.sealedBuilds == test.builds);
    CHECK(plan::agreementOf(tagged).state == State::closed);
    CHECK(std::move(plan::asSealed(tagged)).take().card.baseline.empty());
    CHECK_FALSE(plan::revealedByHand(tagged, {"Reed 53", "Alder 62"}, "now"));
    CHECK_FALSE(plan::revealedByHand(tagged, {"Reed 53", "Alder 62", "Alder 62"}, "now"));
    CHECK_FALSE(plan::revealedByHand(tagged, {"Reed 53", "Alder 62", "Fern"}, "now"));
    auto named = *plan::revealedByHand(tagged, {"Larch 71", "Reed 53", "Alder 62"}, "2026-05-01T11:00");
    CHECK_FALSE(named.seal.isClosed());
    CHECK_FALSE(named.seal.isByHand());
    CHECK(named.amendments.empty());
    CHECK(named.builds[0].name == "Larch 71");
    CHECK(named.builds[0].tag == "Fern");
    CHECK(plan::agreementOf(named).state == State::bySight);
    CHECK(plan::declaredBuilds(named)[0].name == "Reed 53");
    CHECK(words::sealSentence(named).find("named by looking") != std::string::npos);
    // Two that change their names were named otherwise.
    std::swap(named.builds[0].name, named.builds[1].name);
    CHECK(plan::agreementOf(named).state == State::changed);
    CHECK(plan::agreementOf(named).wasSwitched());
    CHECK(words::sealSentence(named).find("Fern was named Larch 71, called Reed 53 since") != std::string::npos);
    CHECK(plan::declaredBuilds(named)[0].name == "Larch 71"); // it was Reed 53 when it was declared
    named.seal.sealedText = "Fern is what?";
    CHECK(plan::agreementOf(named).state == State::forged);
}
