#define CATCH_CONFIG_RUNNER
#include "app/style/fonts.h"
#include "app/style/palette.h"

#include <QApplication>
#include <catch2/catch.hpp>

static void registerResources() {
    Q_INIT_RESOURCE(fonts);
    Q_INIT_RESOURCE(style);
}

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setOrganizationName("Knot Count tests");
    QApplication::setApplicationName("Knot Count tests");
    registerResources();
    knot::app::installFonts();
    knot::app::applyTheme(knot::app::Theme::light);
    return Catch::Session().run(argc, argv);
}
