#pragma once

#include "core/record/test.h"

#include <cstddef>
#include <string>
#include <unordered_map>
#include <vector>

namespace knot::bay {

using record::PlannedAt;

/// What the shots of a test add up to in the bay, kept up as they come, so that a shot costs the same
/// in a long test as in a short one. Counts after `update` are those of reckoning anew.
class Tally {
public:
    /// Of a test without shots, sittings and plan.
    Tally() = default;
    /// Of all shots of a test.
    explicit Tally(const record::Test& test);

    /// Shots from this one on were changed, added or taken away; those before are as they were. What the
    /// test's plan and sheet say of filling a stint must not have changed.
    void update(const record::Test& test, std::size_t from);

    /// How many shots fill each planned stint; set-aside ones too where they are not hit again.
    const std::vector<int>& filled() const { return m_filled; }
    /// Shots of a planned stint in the sitting in hand, but for warm-up.
    int struck(PlannedAt turn) const { return m_struck[turn]; }
    /// Shots of the player in hand in the sitting in hand, all of them, and those of the warm-up.
    std::size_t swings() const { return m_swings; }
    std::size_t warmUp() const { return m_warmUp; }
    /// Shots that carry this label of a stint, and how many labels there are.
    bool hasStint(const std::string& turn) const { return m_stints.contains(turn); }
    std::size_t stints() const { return m_stints.size(); }
    /// The label that the next shot gets where it begins a stint and nothing is planned.
    std::string nextLabel() const { return std::to_string(m_stints.size() + 1); }
    /// An id that no shot has, nor one that was taken away.
    record::ShotId nextId() const { return record::ShotId{m_mostId + 1}; }

private:
    struct Share { ///< what one shot adds
        std::string turn;
        int planned = -1;
        bool fills = false, struck = false, inSitting = false, warmUp = false;
    };
    Share shareOf(const record::Test& test, const record::Shot& shot) const;
    void add(const Share& share, int sign);

    std::vector<Share> m_shares;
    std::vector<int> m_filled, m_struck;
    std::size_t m_swings = 0, m_warmUp = 0;
    std::unordered_map<std::string, int> m_stints;
    std::int64_t m_mostId = 0;
    std::string m_sitting; ///< the label that counts as in hand
    std::string m_player;  ///< who counts as in hand; empty where there is one player at most
};

/// Who hits now, where a test has several players; empty where it has not.
std::string playerInHand(const record::Test& test);

using record::plannedTurn;
using record::turnLabel;

/// A shot with at least one reading beside where it met the face.
bool isRead(const record::Shot& shot);

} // namespace knot::bay
