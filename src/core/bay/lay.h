#pragma once

#include "core/record/test.h"

#include <optional>
#include <vector>

namespace knot::bay {

/// A device's file laid on the planned order: its shots in the order they came, with gaps where the
/// plan's shot was struck and not read, and with shots that are not of the test left out.
class Laying {
public:
    /// One line: a shot of the file, or a gap.
    struct Line {
        std::optional<std::size_t> shot; ///< a place in the file; nothing: a missed read
        bool leftOut = false;            ///< a warm-up or a try, not of the test
        std::optional<std::size_t> slot; ///< a place among the planned shots
    };
    /// One planned shot.
    struct Slot {
        record::PlannedAt turn;
        int shot = 1; ///< within its stint
    };

    /// Lays the shots by their times where all have one, else one after another.
    Laying(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns, std::vector<record::Shot> shots);

    const std::vector<Line>& lines() const { return m_lines; }
    const std::vector<Slot>& places() const { return m_slots; }
    const std::vector<record::Shot>& shots() const { return m_shots; }

    /// Everything from this line on moves one planned shot down, or up again where a gap stands here.
    void addGap(std::size_t line);
    void removeGap(std::size_t line);
    /// A shot is left out, or taken in again.
    void toggle(std::size_t line);

    /// Shots with a planned place, gaps, and shots beyond the plan.
    struct Totals {
        std::size_t planned = 0, laid = 0, gaps = 0, leftOut = 0, beyond = 0, empty = 0;
    };
    Totals totals() const;

    /// The test with the laid shots as its own, in a sitting of this label; gaps become shots without
    /// a reading, shots left out before the first laid one warm-up, and later ones are left away.
    /// What was struck before stays.
    record::Test applied(record::Test test, const std::string& sitting) const;

private:
    void number();

    std::vector<Slot> m_slots;
    std::vector<record::Shot> m_shots;
    std::vector<Line> m_lines;
};

} // namespace knot::bay
