#pragma once

#include "app/bay_page/situation.h"
#include "app/picture/landing.h"
#include "core/record/units.h"

#include <QWidget>

namespace knot::app {

/// Where the last shots of the sitting came down, small, from above; the newest one ringed. Hidden where the sheet does
/// not let averages be seen: a landing tells as much.
class LandingSketch : public QWidget {
    Q_OBJECT

public:
    explicit LandingSketch(QWidget* parent = nullptr);
    void refresh(const Situation& now, const record::DisplayUnits& units);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    picture::LandingData m_data;
    std::vector<std::size_t> m_clubs; ///< beside the clouds: whose knots they are
    std::optional<std::size_t> m_newest;
};

} // namespace knot::app
