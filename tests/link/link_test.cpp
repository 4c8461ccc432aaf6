#include "core/random.h"
#include "link/conversation.h"
#include "support/json_schema.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <rapidcheck.h>

using namespace knot;
using namespace knot::link;

namespace {

const std::string hello = R"({"type":"hello","device":"Stand-in","protocol":1,"reads":["carry_m"]})"
                          "\n";

std::string shot(const std::string& id, double carry = 150) {
    record::Readings readings;
    readings.measure(record::Metric::carry, carry);
    return lineOf(ShotRead{id, "2026-05-02T09:00:00", readings, 0.9});
}

std::size_t shotsIn(const Heard& heard) {
    std::size_t shots = 0;
    for (const auto& message : heard.messages)
        shots += std::holds_alternative<ShotRead>(message) ? 1 : 0;
    return shots;
}

Admission only2718(const std::string& code) {
    return sameCode(code, "2718") ? Admission::yes : Admission::no;
}

} // namespace

TEST_CASE("every line that is written is as the link's schema says, and has nothing that it does not name") {
    auto schema = knot::test::schemaNamed("knotcount.link.json");
    schema["additionalProperties"] = false;
    record::Readings readings;
    readings.measure(record::Metric::carry, 150.5);
    for (const Message& message :
         {Message(Hello{.device = "Stand-in", .reads = {"carry_m"}, .code = "123456", .at = "2026-05-02T09:00:00"}),
          Message(ShotRead{"a", "2026-05-02T09:00:00", readings, 0.9}), Message(NoRead{"b", "", "no ball"}),
          Message(Heartbeat{"2026-05-02T09:00:00"}), Message(Welcome{}), Message(Ack{"a"}), Message(InHand{"Fern", 1}),
          Message(Refused{"a", "no test takes shots"}), Message(Unreadable{"c", "a wrong type"})}) {
        INFO(lineOf(message));
        CHECK(knot::test::faultsOf(lineOf(message), schema) == "");
    }
    CHECK(!knot::test::faultsOf(R"({"type":"shot","metrics":{"carry_m":"far"}})", schema).empty());
}

TEST_CASE("a monitor says hello, is welcomed, and its shots come through") {
    Receipts receipts;
    Conversation conversation(receipts);
    Heard heard = conversation.take(hello);
    CHECK(heard.reply == "{\"type\":\"welcome\",\"protocol\":1}\n");
    REQUIRE(heard.messages.size() == 1);
    CHECK(std::get<Hello>(heard.messages[0]).device == "Stand-in");
    heard = conversation.take(
        R"({"type":"shot","id":"7","at":"2026-05-02T09:00:00","metrics":{"carry_m":151.5,"spin_rpm":null,"mood":3},"quality":0.8,"later":[1]})"
        "\r\n\n{\"type\":\"no_read\",\"id\":\"8\",\"reason\":\"no ball\"}\n{\"type\":\"heartbeat\"}\n");
    CHECK(heard.reply.empty()); // nothing is acknowledged before it is on disk
    REQUIRE(heard.messages.size() == 3);
    const auto& read = std::get<ShotRead>(heard.messages[0]);
    CHECK(read.id == "7");
    CHECK(read.readings.at(record::Metric::carry) == 151.5);
    CHECK(!read.readings.has(record::Metric::spin));
    CHECK(read.quality == 0.8);
    CHECK(std::get<NoRead>(heard.messages[1]) == NoRead{"8", "", "no ball"});
    CHECK(std::holds_alternative<Heartbeat>(heard.messages[2]));
}

TEST_CASE("a repeated id is acknowledged once it is kept, and never given twice") {
    Receipts receipts;
    Conversation conversation(receipts);
    conversation.take(hello);
    CHECK(shotsIn(conversation.take(shot("a"))) == 1);
    Heard again = conversation.take(shot("a"));
    CHECK(shotsIn(again) == 0);
    CHECK(again.reply.empty()); // still on its way to the disk
    CHECK(again.repeated == std::vector<std::string>{"a"});
    receipts.keep("a");
    again = conversation.take(shot("a"));
    CHECK(shotsIn(again) == 0);
    CHECK(again.reply == "{\"type\":\"ack\",\"id\":\"a\"}\n");
    SECTION("also over another connection") {
        Conversation next(receipts);
        next.take(hello);
        CHECK(next.take(shot("a")).reply == "{\"type\":\"ack\",\"id\":\"a\"}\n");
        CHECK(shotsIn(next.take(shot("b"))) == 1);
    }
}

TEST_CASE("what is not a message is refused with its reason and the line goes on") {
    const auto [line, reason] = GENERATE(table<std::string, std::string>(
        {{"nonsense", "the line is not JSON in UTF-8"},
         {"\"\xff\xfe\"", "the line is not JSON in UTF-8"},
         {"[1,2]", "the line is not a JSON object"},
         {"{}", "type is missing"},
         {R"({"type":5})", "type is not text"},
         {R"({"type":"shot","metrics":{}})", "id is missing"},
         {R"({"type":"shot","id":3,"metrics":{}})", "id is not text"},
         {R"({"type":"shot","id":"x"})", "metrics is not an object"},
         {R"({"type":"shot","id":"x","metrics":{"carry_m":"150"}})", "carry_m is not a number"},
         {R"({"type":"shot","id":"x","metrics":{"carry_m":1e300}})", "carry_m is no measurement of a golf shot"},
         {R"({"type":"shot","id":"x","at":5,"metrics":{}})", "at is not text"},
         {R"({"type":"shot","id":"x","metrics":{},"quality":2})", "quality is not from 0 to 1"},
         {R"({"type":"no_read"})", "id is missing"}}));
    Receipts receipts;
    Conversation conversation(receipts);
    conversation.take(hello);
    const Heard heard = conversation.take(line + "\n" + shot("next"));
    CHECK(heard.reply.find("\"type\":\"error\"") != std::string::npos);
    CHECK(heard.reply.find("\"reason\":\"" + reason + "\"") != std::string::npos);
    CHECK(shotsIn(heard) == 1);
}

TEST_CASE("a refusal names the shot it refuses") {
    const auto message = messageFrom(R"({"type":"shot","id":"s9","metrics":{"spin_rpm":true}})");
    CHECK(std::get<Unreadable>(message) == Unreadable{"s9", "spin_rpm is not a number"});
    CHECK(lineOf(message) == "{\"type\":\"error\",\"id\":\"s9\",\"reason\":\"spin_rpm is not a number\"}\n");
}

TEST_CASE("a line beyond 64 KiB is dropped whole and the next one is heard") {
    Receipts receipts;
    Conversation conversation(receipts);
    conversation.take(hello);
    Heard heard = conversation.take(std::string(longestLine - 1, 'x'));
    CHECK(heard.reply.empty());
    heard = conversation.take(std::string(5000, 'x'));
    CHECK(heard.reply.empty());
    heard = conversation.take("x\n" + shot("after"));
    CHECK(heard.reply.find("longer than 64 KiB") != std::string::npos);
    CHECK(shotsIn(heard) == 1);
}

TEST_CASE("shots before hello, another protocol and a wrong pairing code are answered") {
    Receipts receipts;
    Conversation conversation(receipts, only2718);
    Heard heard = conversation.take(shot("early"));
    CHECK(shotsIn(heard) == 0);
    CHECK(heard.reply.find("\"id\":\"early\",\"reason\":\"hello comes first\"") != std::string::npos);
    CHECK(!heard.hangUp);
    heard = conversation.take(R"({"type":"hello","device":"x","protocol":2})"
                              "\n");
    CHECK(heard.hangUp);
    heard = Conversation(receipts, only2718).take(lineOf(Hello{"x", 1, {}, "2717", ""}) + shot("early"));
    CHECK(heard.hangUp);
    CHECK(shotsIn(heard) == 0);
    heard = Conversation(receipts, only2718).take(lineOf(Hello{"x", 1, {}, "2718", ""}) + shot("early"));
    CHECK(!heard.hangUp);
    CHECK(shotsIn(heard) == 1); // the refused one was not taken
}

TEST_CASE("every message reads back as it was written") {
    record::Readings readings;
    readings.measure(record::Metric::carry, 150.25);
    readings.measure(record::Metric::side, -3.5);
    const std::vector<Message> messages{Hello{"Stand-in", 1, {"carry_m", "side_m"}, "11", "2026-05-02T08:59:00"},
                                        ShotRead{"5", "2026-05-02T09:00:00.250", readings, std::nullopt},
                                        NoRead{"6", "", "no ball"},
                                        Heartbeat{"2026-05-02T09:00:01"},
                                        Welcome{},
                                        Ack{"5"},
                                        InHand{"Fern", 2},
                                        Refused{"6", "why \"so\"\n"}};
    for (const auto& message : messages) {
        std::string line = lineOf(message);
        CHECK(line.back() == '\n');
        line.pop_back();
        CHECK(line.find('\n') == std::string::npos);
        CHECK((messageFrom(line) == message));
    }
}

TEST_CASE("however the bytes are cut, the same is heard") {
    std::string text = hello + shot("a") + "junk\n" + shot("b") + std::string(70000, 'y') + "\n" + shot("a") +
                       lineOf(NoRead{"c", "", "late"}) + shot("d");
    Receipts wholeReceipts;
    Conversation whole(wholeReceipts);
    const Heard expected = whole.take(text);
    CHECK(shotsIn(expected) == 3);
    CHECK(rc::check("pieces", [&] {
        Receipts receipts;
        Conversation conversation(receipts);
        Heard heard;
        std::size_t at = 0;
        while (at < text.size()) {
            const auto size = *rc::gen::inRange<std::size_t>(1, 20000);
            Heard piece = conversation.take(std::string_view(text).substr(at, size));
            at += size;
            heard.reply += piece.reply;
            for (auto& message : piece.messages)
                heard.messages.push_back(std::move(message));
        }
        RC_ASSERT(heard.reply == expected.reply);
        RC_ASSERT((heard.messages == expected.messages));
    }));
}

TEST_CASE("what does not speak as a monitor is answered once and hung up on before any shot of it counts") {
    // The bytes that a web page makes a browser send, in one piece and cut anywhere.
    const std::string post = "POST / HTTP/1.1\r\nHost: 127.0.0.1:47853\r\nContent-Type: text/plain\r\n"
                             "Content-Length: 140\r\n\r\n" +
                             hello + shot("page");
    const std::string beginnings[] = {post, "\r\n" + post, "GET / HTTP/1.1\r\n\r\n" + hello + shot("x"),
                                      std::string("\x16\x03\x01\x02\n", 5) + hello + shot("x"),
                                      "nonsense\n" + hello + shot("x")};
    for (const auto& bytes : beginnings)
        for (const std::size_t piece : {std::size_t{1}, std::size_t{7}, bytes.size()}) {
            Receipts receipts;
            Conversation conversation(receipts);
            std::size_t shots = 0;
            std::string reply;
            bool gone = false;
            for (std::size_t at = 0; at < bytes.size() && !gone; at += piece) {
                const Heard heard = conversation.take(std::string_view(bytes).substr(at, piece));
                shots += shotsIn(heard);
                reply += heard.reply;
                gone = heard.hangUp;
            }
            CHECK(gone);
            CHECK(shots == 0);
            CHECK(std::ranges::count(reply, '\n') == 1);
        }
}

TEST_CASE("junk is answered a bounded number of times") {
    Receipts receipts;
    Conversation conversation(receipts);
    conversation.take(hello);
    std::string junk;
    for (int i = 0; i < 100000; ++i)
        junk += "x\n";
    const Heard heard = conversation.take(junk);
    CHECK(heard.hangUp);
    CHECK(heard.messages.size() == static_cast<std::size_t>(mostUnreadable));
    CHECK(heard.reply.size() < 4096);
    Conversation mute(receipts); // readable, and never a hello
    std::string shots;
    for (int i = 0; i < 1000; ++i)
        shots += shot("s" + std::to_string(i));
    const Heard answered = mute.take(shots);
    CHECK(answered.hangUp);
    CHECK(shotsIn(answered) == 0);
    CHECK(answered.reply.size() < 4096);
}

TEST_CASE("a device's name is cut to what can be shown") {
    Receipts receipts;
    const std::string name = "\x1b[31mA\xe2\x80\xae" + std::string(200, 'b') + "\n";
    const Heard heard = Conversation(receipts).take(lineOf(Hello{name, 1, {}, {}, ""}));
    CHECK(std::get<Hello>(heard.messages.at(0)).device == "[31mA" + std::string(35, 'b'));
    const std::string wide = [] {
        std::string text;
        for (int i = 0; i < 60; ++i)
            text += "\u00e5";
        return text;
    }();
    const Heard whole = Conversation(receipts).take(lineOf(Hello{wide, 1, {}, {}, ""}));
    CHECK(std::get<Hello>(whole.messages.at(0)).device.size() == 80); // forty characters, none in half
}

TEST_CASE("codes are the same or not, whatever their lengths") {
    CHECK(sameCode("271828", "271828"));
    CHECK(sameCode("", ""));
    for (const char* other : {"", "2", "271829", "2718280", "171828"})
        CHECK(!sameCode(other, "271828"));
    CHECK(!sameCode("271828", ""));
}
