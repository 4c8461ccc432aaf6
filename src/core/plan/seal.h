#pragma once

#include "core/record/test.h"
#include "core/record/text/digest.h"

#include <array>
#include <string>
#include <variant>
#include <vector>

namespace knot::plan {

/// Which build each tag hides: a place in the sealed builds for every tag.
using Assignment = std::vector<std::size_t>;

/// Words for tags, in the order in which they are given out: one's own, then the usual twelve, after which they are
/// numbered. No two alike.
std::vector<std::string> tagWords(std::size_t count, const std::vector<std::string>& own = {});

/// Why a test can't be sealed as it stands, as a sentence; empty when it can. A sandwich and unequal
/// change times would show by the order which tag is which.
std::string whyNotSealed(const record::Test& test);

/// Locks away which tag hides which build. The assignment comes from the operating system's random
/// source; what is published is the SHA-256 of the sealed text, which begins with 16 random bytes, so
/// that the assignment can't be found by trying. The text and `attachment` (whatever else must stay
/// hidden) are encrypted with a key that Argon2id makes from the ten words (`newKeyWords`), which are kept
/// nowhere. The builds of the test become tags and move to `sealedBuilds`; shots must not have been
/// struck. Nothing when the machine has not the 64 MiB that the key takes.
std::optional<record::Test> sealed(record::Test test, const std::string& words, const std::string& at,
                                   const std::string& attachment);

/// Tags in place of the clubs without a key: whoever puts them on with eyes shut knows no more than the program, and
/// the clubs say it in the end (`revealedByHand`). Shots must not have been struck.
record::Test inBag(record::Test test, const std::string& at);

enum class SealFault { wrongKey, damaged, noMemory };

struct Opened {
    std::string text; ///< the sealed text, whose SHA-256 was published
    std::string attachment;
    std::vector<std::pair<std::string, std::string>> tags; ///< tag and name of its build
};

/// Opens a seal with its ten words, or the PIN of earlier versions. A wrong key can't be told from a forged box; a text
/// that does not have the published hash, or is not a sealed text, is `damaged`. `noMemory` where the 64 MiB for the
/// key can't be had.
std::variant<Opened, SealFault> openSeal(const record::Seal& seal, const std::string& typed);

/// The test with its builds in place of the tags, each with its tag beside its name. The names of
/// `opened` must be those of `sealedBuilds`. `inBox` are the clubs as the box has them: where their parts were others
/// when they were sealed an amendment says so.
std::optional<record::Test> revealed(record::Test test, const Opened& opened, const std::string& at,
                                     const std::vector<record::Build>& inBox = {});

/// The same without the key, from what the tags on the clubs themselves say: for each tag in its order
/// the name of its club, each club once; of a test that came as an export, whose clubs the box alone
/// knows, any names. That nothing was switched can't be checked then; so it is meant of a bag, and what was named
/// stays.
std::optional<record::Test> revealedByHand(record::Test test, const std::vector<std::string>& clubs,
                                           const std::string& at);

/// A test that was revealed by hand, with the key found later: what was named is compared with what was
/// sealed and put right where it differs, and an amendment says which. Nothing where the sealed clubs are
/// not those of the test.
std::optional<record::Test> comparedWithSeal(record::Test test, const Opened& opened, const std::string& at);

/// Whether the published hash, the sealed text and today's clubs agree.
struct Agreement {
    enum class State {
        notSealed,
        closed,
        byHand,  ///< no text to compare
        bySight, ///< from the bag: the clubs are those that were named
        forged,  ///< the text has not the published hash, or is none
        changed, ///< a club has another name or other parts than were sealed, or named
        agrees
    } state = State::notSealed;
    /// A sealed club that is another one since, by its tag.
    struct Since {
        std::string tag, sealedAs;
        std::string called;       ///< its name today; empty where none has the tag
        bool wasSwitched = false; ///< that is the name of another sealed club
    };
    std::vector<Since> since;
    bool wasSwitched() const;
};
Agreement agreementOf(const record::Test& test);
inline const char* key(Agreement::State state) {
    return std::array{
        "not_sealed", "closed", "by_hand", "by_sight", "forged", "changed", "agrees"}[static_cast<std::size_t>(state)];
}

/// The clubs as they were declared, in the order of the sheet, whatever the seal hides: sealed ones while it is closed;
/// after the reveal today's in the places of those that they were sealed as.
std::vector<record::Build> declaredBuilds(const record::Test& test);

using record::sha256;

/// A test as it may be judged: while the seal is closed all tags are alike, so every pair is compared
/// and none is the baseline. A type of its own, so that nothing is judged around the seal.
class SealedView {
public:
    record::Test take() && { return std::move(m_test); }

private:
    friend SealedView asSealed(record::Test test);
    explicit SealedView(record::Test test)
        : m_test(std::move(test)) {}
    record::Test m_test;
};
SealedView asSealed(record::Test test);

} // namespace knot::plan
