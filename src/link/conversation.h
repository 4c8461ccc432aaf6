#pragma once

#include "link/message.h"

#include <functional>
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

/// How many lines that are no message a connection may send before it is hung up on.
inline constexpr int mostUnreadable = 20;
/// The longest name of a device that is shown, in characters.
inline constexpr std::size_t longestDevice = 40;

/// Whether a pairing code is the right one; `later` while another wrong one came just now.
enum class Admission { yes, no, later };
using Admits = std::function<Admission(const std::string& code)>;

/// The same text, compared in a time that does not tell how much of it is right.
bool sameCode(std::string_view a, std::string_view b);

/// The application's side of one connection: bytes in, messages and replies out; no clock and no
/// socket. A monitor says hello first; what begins with a line that is no message is no monitor and is
/// hung up on, and so is one that names another protocol, not the pairing code where one is asked for,
/// or sends twenty lines that are no messages. A shot is acknowledged by the caller once it is on disk;
/// one that is on disk already is acknowledged here and not given again.
class Conversation {
public:
    explicit Conversation(Receipts& receipts, Admits admits = {});
    Heard take(std::string_view bytes);
    bool saidHello() const { return m_saidHello; }

private:
    void takeMessage(Message message, Heard& heard);
    void takeHello(Hello hello, Heard& heard);
    void takeUnreadable(Message message, Heard& heard);
    static void hangUp(Heard& heard, const std::string& why);

    Receipts& m_receipts;
    Admits m_admits;
    int m_unreadable = 0;
    Lines m_lines;
    bool m_saidHello = false;
};

} // namespace knot::link
