#include "files/seal_json.h"

#include "core/plan/seal.h"

#include <array>

namespace knot::files {
namespace {

// Text members of a seal, which are left out when empty.
constexpr std::array<std::pair<const char*, std::string record::Seal::*>, 8> sealMembers = {
    {{"commitment", &record::Seal::commitment},
     {"box", &record::Seal::box},
     {"nonce", &record::Seal::nonce},
     {"key_salt", &record::Seal::keySalt},
     {"key_kind", &record::Seal::keyKind},
     {"sealed_at", &record::Seal::sealedAt},
     {"revealed_at", &record::Seal::revealedAt},
     {"sealed_text", &record::Seal::sealedText}}};

} // namespace

nlohmann::ordered_json sealJson(const record::Test& test) {
    nlohmann::ordered_json out = nlohmann::ordered_json::object();
    for (const auto& [name, member] : sealMembers)
        if (!(test.seal.*member).empty())
            out[name] = test.seal.*member;
    if (const auto state = plan::agreementOf(test).state; state != plan::Agreement::State::notSealed)
        out["agreement"] = plan::key(state);
    return out;
}

record::Seal sealFrom(const nlohmann::json& in) {
    record::Seal seal;
    for (const auto& [name, member] : sealMembers)
        seal.*member = in.value(name, "");
    return seal;
}

} // namespace knot::files
