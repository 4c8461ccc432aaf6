#pragma once

#include "core/flight/impact.h"
#include "core/rack/difference.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <QListWidget>
#include <QStyledItemDelegate>

namespace knot::app {

/// What the rows of the Rack are drawn from.
struct RackShown {
    std::vector<record::Build> clubs;
    std::vector<flight::HeadKind> heads; ///< what they are, as far as it is known
    std::vector<QString> under;          ///< under each name: "my club", "out: too low"
    std::vector<bool> isOut;             ///< of each, whether it was struck off
    std::vector<QString> slips;          ///< what differs of each besides the factor
    std::vector<rack::Difference> sheet; ///< the same, to be marked where it is
    record::TestKind kind = record::TestKind::own;
    record::LengthUnit length = record::LengthUnit::mm;
    bool leftHanded = false;
    bool isSealed = false; ///< shapes and colours of tags stay with the tags
};

/// A club in a row: its name and what differs of it in words, itself to scale, and what it adds up to. Typed in place.
class ClubRows : public QListWidget {
    Q_OBJECT

public:
    ClubRows();
    void display(RackShown shown);
    const RackShown& shown() const { return m_shown; }
    /// As high as its rows, so that what stands below can follow.
    QSize sizeHint() const override;

signals:
    /// A club's line was typed anew.
    void lineTyped(int row, const QString& line);
    /// A part was pointed at on the drawing, or the right arrow asks for the first: the name of its field.
    void measureWanted(int row, const QString& field);

protected:
    void resizeEvent(QResizeEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    RackShown m_shown;
};

} // namespace knot::app
