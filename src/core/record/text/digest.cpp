#include "core/record/text/digest.h"

#include <sodium.h>

#include <boost/uuid/name_generator_sha1.hpp>
#include <boost/uuid/uuid_io.hpp>

#include <array>

namespace knot::record {

std::string sha256(const std::string& text) {
    std::array<unsigned char, crypto_hash_sha256_BYTES> hash{};
    crypto_hash_sha256(hash.data(), reinterpret_cast<const unsigned char*>(text.data()), text.size());
    std::string figures(2 * hash.size() + 1, '\0');
    sodium_bin2hex(figures.data(), figures.size(), hash.data(), hash.size());
    figures.pop_back();
    return figures;
}

std::string idMadeOf(const std::string& text) {
    // A namespace of our own, so that nobody else's text gives the same.
    constexpr boost::uuids::uuid ours = {
        {0x6b, 0x6e, 0x6f, 0x74, 0x63, 0x4f, 0x8e, 0x21, 0x9d, 0x51, 0x0a, 0x7c, 0x42, 0xd3, 0xe6, 0x18}};
    return boost::uuids::to_string(boost::uuids::name_generator_sha1(ours)(text));
}

} // namespace knot::record
