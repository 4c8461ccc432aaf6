#pragma once

#include "app/shell/pages.h"

#include <functional>

class QMenu;

namespace knot::app {

/// The start page and the stages of a test in a menu, by Alt and their number.
void addStages(QMenu* menu, const std::function<void(PageId)>& goTo);

} // namespace knot::app
