#pragma once

#include "link/message.h"

#include <string>
#include <string_view>
#include <unordered_set>
#include <vector>

namespace knot::link {

/// The ids of shots that were taken, over all connections of a sitting: on disk, or on their way.
class Receipts {
public:
    bool isKept(const std::string& id) const { return m_kept.contains(id); }
    /// False when the id was taken before.
    bool take(const std::string& id);
    void keep(const std::string& id);
    /// It was not taken after all: it may come again.
    void giveBack(const std::string& id);
    void forget();

private:
    std::unordered_set<std::string> m_kept, m_waiting;
};

/// What a piece of bytes meant: what to do, what to answer at once, and whether to hang up.
struct Heard {
    std::vector<Message> messages;     ///< Hello, ShotRead, NoRead, Heartbeat, Unreadable
    std::vector<std::string> repeated; ///< ids of shots that came again
    std::string reply;
    bool hangUp = false;
    std::string refusal; ///< why, where it hangs up
};

/// The application's side of one connection: bytes in, messages and replies out; no clock and no
/// socket. A monitor says hello first; one that names another protocol, or not the pairing code where
/// one is set, is answered and hung up on. A shot is acknowledged by the caller once it is on disk;
/// one that is on disk already is acknowledged here and not given again.
class Conversation {
public:
    explicit Conversation(Receipts& receipts, std::string code = {});
    Heard take(std::string_view bytes);
    bool saidHello() const { return m_saidHello; }

private:
    void takeMessage(Message message, Heard& heard);
    void takeHello(const Hello& hello, Heard& heard);

    Receipts& m_receipts;
    std::string m_code;
    Lines m_lines;
    bool m_saidHello = false;
};

} // namespace knot::link
