#pragma once

#include <cstddef>
#include <cstdint>

namespace knot::record {

/// A place in one kind of list. It indexes as the number that it is, but is made from one only
/// where somebody says so, and never from a place in another kind of list: a club can't be taken
/// for a stint. Places are good while their list stands; what is pointed at later has an id.
template<typename List> class Position {
public:
    constexpr Position() = default;
    constexpr explicit Position(std::size_t index)
        : m_index(index) {}
    template<typename Other> Position(Position<Other>) = delete;

    constexpr operator std::size_t() const { return m_index; }
    constexpr Position& operator++() {
        ++m_index;
        return *this;
    }
    friend constexpr bool operator==(Position, Position) = default;
    template<typename Other> friend bool operator==(Position, Position<Other>) = delete;

private:
    std::size_t m_index = 0;
};

/// Among the builds of a test.
using BuildAt = Position<struct InBuilds>;
/// No club at all: of one that is gone.
inline constexpr BuildAt nowhere{static_cast<std::size_t>(-1)};
/// Among the players of a test.
using PlayerAt = Position<struct InPlayers>;
/// Among the turns of a plan.
using PlannedAt = Position<struct InPlan>;
/// Among the turns that were struck (Structure::turns).
using TurnAt = Position<struct InTurns>;
/// Among the rounds that were struck (Structure::rounds).
using RoundAt = Position<struct InRounds>;
/// Among the shots of a test, in the order struck.
using ShotAt = Position<struct InShots>;

/// Names a shot of its test for good, from 1 in the order in which shots arrived; `none` before that.
enum class ShotId : std::int64_t { none = 0 };

} // namespace knot::record
