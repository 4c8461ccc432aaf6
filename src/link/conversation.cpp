#include "link/conversation.h"

namespace knot::link {
namespace {

const std::string* idOf(const Message& message) {
    if (const auto* shot = std::get_if<ShotRead>(&message))
        return &shot->id;
    if (const auto* noRead = std::get_if<NoRead>(&message))
        return &noRead->id;
    return nullptr;
}

} // namespace

bool Receipts::take(const std::string& id) {
    return !m_kept.contains(id) && m_waiting.insert(id).second;
}

void Receipts::keep(const std::string& id) {
    m_waiting.erase(id);
    m_kept.insert(id);
}

void Receipts::giveBack(const std::string& id) {
    m_waiting.erase(id);
}

void Receipts::forget() {
    m_waiting.clear();
    m_kept.clear();
}

Conversation::Conversation(Receipts& receipts, std::string code)
    : m_receipts(receipts)
    , m_code(std::move(code)) {}

Heard Conversation::take(std::string_view bytes) {
    Heard heard;
    for (const auto& line : m_lines.take(bytes)) {
        if (heard.hangUp)
            break;
        takeMessage(line ? messageFrom(*line) : Message(Unreadable{{}, "the line is longer than 64 KiB"}), heard);
    }
    return heard;
}

void Conversation::takeMessage(Message message, Heard& heard) {
    if (const auto* hello = std::get_if<Hello>(&message))
        return takeHello(*hello, heard);
    if (std::holds_alternative<Unreadable>(message)) {
        heard.reply += lineOf(message);
        heard.messages.push_back(std::move(message));
        return;
    }
    const std::string* id = idOf(message);
    if (!m_saidHello) {
        heard.reply += lineOf(Refused{id != nullptr ? *id : std::string(), "hello comes first"});
        return;
    }
    if (id == nullptr) {
        if (std::holds_alternative<Heartbeat>(message))
            heard.messages.push_back(std::move(message));
        return; // what only the application says, and types of later protocols
    }
    if (m_receipts.take(*id)) {
        heard.messages.push_back(std::move(message));
        return;
    }
    heard.repeated.push_back(*id);
    if (m_receipts.isKept(*id))
        heard.reply += lineOf(Ack{*id});
}

void Conversation::takeHello(const Hello& hello, Heard& heard) {
    if (hello.protocol != protocolVersion) {
        heard.refusal = "this program speaks protocol " + std::to_string(protocolVersion);
    } else if (!m_code.empty() && hello.code != m_code) {
        heard.refusal = "the pairing code is another";
    } else {
        m_saidHello = true;
        heard.reply += lineOf(Welcome{});
        heard.messages.emplace_back(hello);
    }
    heard.hangUp = !heard.refusal.empty();
    if (heard.hangUp)
        heard.reply += lineOf(Refused{{}, heard.refusal});
}

} // namespace knot::link
