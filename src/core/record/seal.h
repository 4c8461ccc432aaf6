#pragma once

#include <string>
#include <vector>

namespace knot::record {

/// Which tag is which build, locked away (docs/formats.md, "Seal"), or known to the clubs alone that carry the tags:
/// the bag, which has no key and publishes nothing. Texts are hexadecimal.
struct Seal {
    std::string commitment; ///< SHA-256 of the sealed text, which begins with its salt
    std::string box;        ///< the sealed text, encrypted
    std::string nonce;
    std::string keySalt;              ///< of the key that is made from the words, or the PIN
    std::string keyKind;              ///< "words", "bag"; a PIN in seals of earlier versions
    std::string sealedAt, revealedAt; ///< ISO 8601
    std::string sealedText;           ///< after the reveal, for anyone to check; of a bag what was named then
    bool isBag() const { return commitment.empty() && keyKind == "bag"; }
    /// The clubs are called by tags, or were.
    bool wasMade() const { return !commitment.empty() || isBag(); }
    /// Opened without its key, by what the clubs themselves say: the key may still be compared.
    bool isByHand() const { return !commitment.empty() && !revealedAt.empty() && sealedText.empty(); }
    bool isClosed() const { return wasMade() && revealedAt.empty(); }
    bool operator==(const Seal&) const = default;
};

} // namespace knot::record
