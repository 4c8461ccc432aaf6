#pragma once

#include "app/bay_page/situation.h"

#include <QScrollArea>

namespace knot::app {

class StripView;

/// The laps of a planned test on cords: what is struck, what is in hand, what is to come.
class CourseStrip : public QScrollArea {
    Q_OBJECT

public:
    CourseStrip();
    /// Hides itself where nothing is planned.
    void refresh(const Situation& now, const bay::Tally& tally);

private:
    StripView* m_strip;
};

} // namespace knot::app
