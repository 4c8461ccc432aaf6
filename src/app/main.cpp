#include "app/start.h"

#include <QApplication>
#include <QFileInfo>

#include <sys/resource.h>

#include <cstdio>
#include <string>
#include <string_view>

namespace {

// A picture needs no screen, and neither do words or a report: these also work on a machine without one.
bool needsNoScreen(int argc, char** argv) {
    for (int i = 1; i < argc; ++i)
        for (const char* word : {"--shot", "--report", "--help", "--version", "-h", "-v"})
            if (const std::string_view argument = argv[i];
                argument == word || argument.starts_with(std::string(word) + '='))
                return true;
    return false;
}

// A display that is named and can't be reached would end the program in Qt, without a word of ours.
QString whyNoDisplay() {
    const QByteArray platform = qgetenv("QT_QPA_PLATFORM");
    const QByteArray display = qgetenv("DISPLAY");
    const bool byX = platform.isEmpty() ? !qEnvironmentVariableIsSet("WAYLAND_DISPLAY") : platform.startsWith("xcb");
    if (!byX || display.isEmpty())
        return {};
    // "HOST:NUMBER.SCREEN"; on this computer a socket of that number.
    const QByteArray host = display.left(display.lastIndexOf(':'));
    const QByteArray number = display.mid(display.lastIndexOf(':') + 1).split('.').first();
    bool sound = false;
    number.toInt(&sound);
    const bool here = host.isEmpty() || host == "unix";
    if (sound && (!here || QFileInfo::exists(QStringLiteral("/tmp/.X11-unix/X") + QString::fromLatin1(number))))
        return {};
    return QStringLiteral("the display %1 can't be reached. Set DISPLAY to the one of your desktop session, or use "
                          "--shot FILE.png for a picture.")
        .arg(QString::fromLocal8Bit(display));
}

} // namespace

int main(int argc, char** argv) {
    const bool noDisplay = !qEnvironmentVariableIsSet("QT_QPA_PLATFORM") && !qEnvironmentVariableIsSet("DISPLAY") &&
                           !qEnvironmentVariableIsSet("WAYLAND_DISPLAY");
    if (needsNoScreen(argc, argv) && (noDisplay || !whyNoDisplay().isEmpty())) {
        qputenv("QT_QPA_PLATFORM", "offscreen");
    } else if (noDisplay) {
        std::fputs("knotcount: there is no display to open a window on; start it in a desktop session, or use "
                   "--shot FILE.png for a picture.\n",
                   stderr);
        return 2;
    }
    if (const QString whyNot = whyNoDisplay(); !whyNot.isEmpty()) {
        std::fprintf(stderr, "knotcount: %s\n", qPrintable(whyNot));
        return 2;
    }
    // Nothing that is typed or sealed may end in a file that a crash leaves behind.
    const rlimit none{0, 0};
    ::setrlimit(RLIMIT_CORE, &none);
    QApplication application(argc, argv);
    return knot::app::start(application);
}
