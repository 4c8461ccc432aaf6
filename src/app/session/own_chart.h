#pragma once

#include "core/reach/chart.h"

#include <optional>

namespace knot::app {

class Book;

/// A chart of what is wanted that stands in for the one that ships, as it is kept with the logbook; nothing where there
/// is none.
std::optional<reach::Chart> ownChart(Book& book);
/// Nothing: the one that ships again.
void setOwnChart(Book& book, const std::optional<reach::Chart>& chart);

} // namespace knot::app
