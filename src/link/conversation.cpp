#include "link/conversation.h"

#include "core/record/text/text.h"

namespace knot::link {
namespace {

const std::string* idOf(const Message& message) {
    if (const auto* shot = std::get_if<ShotRead>(&message))
        return &shot->id;
    if (const auto* noRead = std::get_if<NoRead>(&message))
        return &noRead->id;
    return nullptr;
}

// A name as it may be shown: whole characters, none that steer anything, no more than a line takes.
std::string shownName(const std::string& name) {
    std::string shown = record::printable(name);
    std::size_t characters = 0;
    for (std::size_t i = 0; i < shown.size(); ++i) {
        if (shown[i] == '\n' || shown[i] == '\t')
            shown[i] = ' ';
        const bool begins = (static_cast<unsigned char>(shown[i]) & 0xc0U) != 0x80U;
        if (begins && ++characters > longestDevice)
            return shown.substr(0, i);
    }
    return shown;
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

bool sameCode(std::string_view a, std::string_view b) {
    unsigned char differs = a.size() == b.size() ? 0 : 1;
    for (std::size_t i = 0; i < a.size(); ++i)
        differs |= static_cast<unsigned char>(a[i] ^ (b.empty() ? 0 : b[i % b.size()]));
    return differs == 0;
}

Conversation::Conversation(Receipts& receipts, Admits admits)
    : m_receipts(receipts)
    , m_admits(std::move(admits)) {}

void Conversation::hangUp(Heard& heard, const std::string& why) {
    heard.refusal = why;
    heard.hangUp = true;
    heard.reply += lineOf(Refused{{}, why});
}

void Conversation::takeUnreadable(Message message, Heard& heard) {
    if (!m_saidHello)
        return hangUp(heard, "it does not speak as a monitor does");
    heard.reply += lineOf(message);
    heard.messages.push_back(std::move(message));
    if (++m_unreadable >= mostUnreadable)
        hangUp(heard, "too many of its lines can't be read");
}

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
    if (std::holds_alternative<Unreadable>(message))
        return takeUnreadable(std::move(message), heard);
    const std::string* id = idOf(message);
    if (!m_saidHello) {
        heard.reply += lineOf(Refused{id != nullptr ? *id : std::string(), "hello comes first"});
        if (++m_unreadable >= mostUnreadable)
            hangUp(heard, "it never said hello");
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

void Conversation::takeHello(Hello hello, Heard& heard) {
    if (hello.protocol != protocolVersion)
        return hangUp(heard, "this program speaks protocol " + std::to_string(protocolVersion));
    const Admission admission = m_admits ? m_admits(hello.code) : Admission::yes;
    if (admission == Admission::later)
        return hangUp(heard, "a wrong code came just now; try again in a second");
    if (admission == Admission::no)
        return hangUp(heard, "the pairing code is another");
    m_saidHello = true;
    hello.device = shownName(hello.device);
    heard.reply += lineOf(Welcome{});
    heard.messages.emplace_back(std::move(hello));
}

} // namespace knot::link
