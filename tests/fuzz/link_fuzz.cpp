// Whatever comes over the monitor link: no crash, no shot without an id, answers that are lines.
#include "link/conversation.h"

#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace knot::link;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    Receipts receipts;
    Conversation conversation(receipts);
    // The first byte cuts the rest in two pieces; the pieces must mean what the whole means.
    const std::size_t cut = size == 0 ? 0 : data[0] % size;
    std::string reply;
    for (const auto piece : {text.substr(0, cut), text.substr(cut)}) {
        const Heard heard = conversation.take(piece);
        reply += heard.reply;
        for (const auto& message : heard.messages) {
            if (const auto* shot = std::get_if<ShotRead>(&message))
                if (shot->id.empty() || shot->id.size() > longestId)
                    std::abort();
            // What was understood is written as one line and understood the same.
            std::string line = lineOf(message);
            if (line.find('\n') != line.size() - 1)
                std::abort();
            line.pop_back();
            if (!std::holds_alternative<Unreadable>(message) && messageFrom(line).index() != message.index())
                std::abort();
        }
        if (heard.hangUp)
            break;
    }
    if (!reply.empty() && reply.back() != '\n')
        std::abort();
    return 0;
}
