#pragma once

class QApplication;

namespace knot::app {

/// Runs the program: reads the command line, opens what it names, shows the window. Returns the
/// exit code. With `--shot FILE.png` it renders a page to a picture and ends.
int start(QApplication& application);

} // namespace knot::app
