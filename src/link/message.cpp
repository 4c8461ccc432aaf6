#include "link/message.h"

#include "core/record/typed/number_in.h"

#include <nlohmann/json.hpp>

#include <cmath>

namespace knot::link {
namespace {

using nlohmann::json;
using nlohmann::ordered_json;

struct Refusal {
    std::string why;
};

std::string textIn(const json& in, const char* name) {
    const auto at = in.find(name);
    if (at == in.end() || at->is_null())
        return {};
    if (!at->is_string())
        throw Refusal{std::string(name) + " is not text"};
    return at->get<std::string>();
}

std::optional<double> numberIn(const json& in, const char* name) {
    const auto at = in.find(name);
    if (at == in.end() || at->is_null())
        return std::nullopt;
    if (!at->is_number())
        throw Refusal{std::string(name) + " is not a number"};
    return at->get<double>();
}

std::string idIn(const json& in) {
    std::string id = textIn(in, "id");
    if (id.empty())
        throw Refusal{"id is missing"};
    if (id.size() > longestId)
        throw Refusal{"id is longer than " + std::to_string(longestId) + " bytes"};
    return id;
}

Message helloFrom(const json& in) {
    Hello hello{.device = textIn(in, "device"), .reads = {}, .code = textIn(in, "code"), .at = textIn(in, "at")};
    const auto protocol = numberIn(in, "protocol").value_or(protocolVersion);
    if (protocol != std::floor(protocol) || std::fabs(protocol) > 1e6)
        throw Refusal{"protocol is not a whole number"};
    hello.protocol = static_cast<int>(protocol);
    if (const auto reads = in.find("reads"); reads != in.end() && !reads->is_null()) {
        if (!reads->is_array())
            throw Refusal{"reads is not a list"};
        for (const auto& metric : *reads) {
            if (!metric.is_string())
                throw Refusal{"reads names something that is not text"};
            hello.reads.push_back(metric.get<std::string>());
        }
    }
    return hello;
}

Message shotFrom(const json& in) {
    ShotRead shot{.id = idIn(in), .at = textIn(in, "at"), .readings = {}, .quality = numberIn(in, "quality")};
    if (shot.quality && !(*shot.quality >= 0 && *shot.quality <= 1))
        throw Refusal{"quality is not from 0 to 1"};
    const auto metrics = in.find("metrics");
    if (metrics == in.end() || !metrics->is_object())
        throw Refusal{"metrics is not an object"};
    for (const auto& [key, value] : metrics->items()) {
        const auto metric = record::metricFromKey(key);
        if (!metric || value.is_null())
            continue;
        if (!value.is_number())
            throw Refusal{key + " is not a number"};
        const double read = value.get<double>();
        if (!(std::fabs(read) <= largestReading))
            throw Refusal{key + " is no measurement of a golf shot"};
        shot.readings.measure(*metric, read);
    }
    return shot;
}

Message inHandFrom(const json& in) {
    const double place = numberIn(in, "place").value_or(0);
    if (!(place >= 0 && place <= 1000))
        throw Refusal{"place is not among the clubs"};
    return InHand{textIn(in, "build"), static_cast<std::size_t>(place)};
}

Message typed(const std::string& type, const json& in) {
    if (type == "shot")
        return shotFrom(in);
    if (type == "no_read")
        return NoRead{idIn(in), textIn(in, "at"), textIn(in, "reason")};
    if (type == "heartbeat")
        return Heartbeat{textIn(in, "at")};
    if (type == "hello")
        return helloFrom(in);
    if (type == "welcome")
        return Welcome{};
    if (type == "ack")
        return Ack{idIn(in)};
    if (type == "in_hand")
        return inHandFrom(in);
    if (type == "error")
        return Refused{textIn(in, "id"), textIn(in, "reason")};
    return Unknown{type};
}

// A refusal names the line's id where it can, so that the monitor knows which one it was.
std::string idOrNothing(const json& in) {
    const auto at = in.find("id");
    return at != in.end() && at->is_string() && at->get_ref<const std::string&>().size() <= longestId
               ? at->get<std::string>()
               : std::string();
}

ordered_json jsonOf(const Hello& hello) {
    ordered_json out{{"type", "hello"}, {"device", hello.device}, {"protocol", hello.protocol}};
    out["reads"] = hello.reads;
    if (!hello.code.empty())
        out["code"] = hello.code;
    if (!hello.at.empty())
        out["at"] = hello.at;
    return out;
}
ordered_json jsonOf(const ShotRead& shot) {
    ordered_json out{{"type", "shot"}, {"id", shot.id}};
    if (!shot.at.empty())
        out["at"] = shot.at;
    out["metrics"] = ordered_json::object();
    for (const auto metric : record::allMetrics())
        if (const auto value = shot.readings.at(metric))
            out["metrics"][record::info(metric).key] = *value;
    if (shot.quality)
        out["quality"] = *shot.quality;
    return out;
}
ordered_json jsonOf(const NoRead& noRead) {
    ordered_json out{{"type", "no_read"}, {"id", noRead.id}};
    if (!noRead.at.empty())
        out["at"] = noRead.at;
    out["reason"] = noRead.reason;
    return out;
}
ordered_json jsonOf(const Heartbeat& heartbeat) {
    ordered_json out{{"type", "heartbeat"}};
    if (!heartbeat.at.empty())
        out["at"] = heartbeat.at;
    return out;
}
ordered_json jsonOf(const Welcome&) {
    return {{"type", "welcome"}, {"protocol", protocolVersion}};
}
ordered_json jsonOf(const Ack& ack) {
    return {{"type", "ack"}, {"id", ack.id}};
}
ordered_json jsonOf(const InHand& inHand) {
    return {{"type", "in_hand"}, {"build", inHand.build}, {"place", inHand.place}};
}
ordered_json refusalJson(const std::string& id, const std::string& reason) {
    ordered_json out{{"type", "error"}};
    if (!id.empty())
        out["id"] = id;
    out["reason"] = reason;
    return out;
}
ordered_json jsonOf(const Refused& refused) {
    return refusalJson(refused.id, refused.reason);
}
ordered_json jsonOf(const Unreadable& unreadable) {
    return refusalJson(unreadable.id, unreadable.why);
}
ordered_json jsonOf(const Unknown& unknown) {
    return {{"type", unknown.type}};
}

} // namespace

Message messageFrom(std::string_view line) {
    const json in = json::parse(line, nullptr, false);
    if (in.is_discarded())
        return Unreadable{{}, "the line is not JSON in UTF-8"};
    if (!in.is_object())
        return Unreadable{{}, "the line is not a JSON object"};
    try {
        const std::string type = textIn(in, "type");
        if (type.empty())
            throw Refusal{"type is missing"};
        return typed(type, in);
    } catch (const Refusal& refusal) {
        return Unreadable{idOrNothing(in), refusal.why};
    }
}

std::string lineOf(const Message& message) {
    return std::visit(
        [](const auto& m) { return jsonOf(m).dump(-1, ' ', false, json::error_handler_t::replace) + '\n'; }, message);
}

std::vector<std::optional<std::string>> Lines::take(std::string_view bytes) {
    std::vector<std::optional<std::string>> lines;
    while (!bytes.empty()) {
        const auto end = bytes.find('\n');
        const std::string_view piece = bytes.substr(0, end);
        if (m_tooLong || m_partial.size() + piece.size() > longestLine) {
            m_tooLong = true;
            m_partial.clear();
        } else {
            m_partial += piece;
        }
        if (end == std::string_view::npos)
            break;
        bytes.remove_prefix(end + 1);
        if (m_tooLong)
            lines.emplace_back();
        else {
            if (m_partial.ends_with('\r'))
                m_partial.pop_back();
            if (!m_partial.empty())
                lines.emplace_back(std::move(m_partial));
        }
        m_partial.clear();
        m_tooLong = false;
    }
    return lines;
}

} // namespace knot::link
