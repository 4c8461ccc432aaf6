#include "logbook/error.h"

#include "core/record/text/text.h"

namespace knot::logbook {

namespace {

std::string saying(const Error& e) {
    const std::string untouched = " The file was not changed.";
    switch (e.kind) {
    case ErrorKind::cannotOpen:
        return e.file + " can't be opened (" + e.detail + "). Check the name and that you may read it.";
    case ErrorKind::notALogbook:
        return e.file + " is not a Knot Count logbook. Open a .knotbook, or import a shot file instead." + untouched;
    case ErrorKind::damaged:
        return e.file + " is damaged (" + e.detail + "). Restore it from a copy.";
    case ErrorKind::newer:
        return e.file + " was written by a newer Knot Count (format " + e.detail +
               "). Update this program to open it." + untouched;
    case ErrorKind::exists:
        return e.file + " already exists. Choose another name, or open it.";
    case ErrorKind::busy:
        return e.file + " is in use by another program. Close it there and try again.";
    case ErrorKind::inUse:
        return e.file + " is open in another Knot Count. Close it there first.";
    case ErrorKind::full:
        return "There is no space left to write " + e.file + ". Free some and try again.";
    case ErrorKind::readOnly:
        return e.file + " may not be written. Check its permissions, or save a copy elsewhere.";
    case ErrorKind::noSuchTest:
        return e.file + " holds no test " + e.detail + ".";
    case ErrorKind::gone:
        return e.file + " is no longer there.";
    case ErrorKind::replaced:
        return e.file + " is another file now than the one that was opened. Keep this test in a logbook of its own.";
    case ErrorKind::changedElsewhere:
        return "Another program changed this test in " + e.file + ". Keep it in a logbook of its own (Ctrl+S).";
    case ErrorKind::invalid:
        return "Not kept: " + e.detail;
    case ErrorKind::storage:
        return e.file + " could not be read or written (" + e.detail + ").";
    }
    return {};
}

} // namespace

std::string sentence(const Error& e) {
    return record::printable(saying(e));
}

} // namespace knot::logbook
