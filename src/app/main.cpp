#include "app/start.h"

#include <QApplication>

#include <cstdio>
#include <cstring>

namespace {

// A picture needs no screen, so `--shot` also works on a machine without one.
bool wantsPicture(int argc, char** argv) {
    for (int i = 1; i < argc; ++i)
        if (std::strncmp(argv[i], "--shot", 6) == 0)
            return true;
    return false;
}

} // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM") && !qEnvironmentVariableIsSet("DISPLAY") &&
        !qEnvironmentVariableIsSet("WAYLAND_DISPLAY")) {
        if (!wantsPicture(argc, argv)) {
            std::fputs("knotcount: there is no display to open a window on; start it in a desktop session, or use "
                       "--shot FILE.png for a picture.\n",
                       stderr);
            return 2;
        }
        qputenv("QT_QPA_PLATFORM", "offscreen");
    }
    QApplication application(argc, argv);
    return knot::app::start(application);
}
