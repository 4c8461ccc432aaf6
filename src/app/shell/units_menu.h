#pragma once

class QMenu;

namespace knot::app {

class Book;

/// The units that everything is shown in, as choices of a menu: distances, speeds, lengths of clubs.
void addUnits(QMenu* menu, Book& book);

} // namespace knot::app
