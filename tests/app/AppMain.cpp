// Runs the tests of the window inside one application, without a screen.

#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "app/frame/Application.h"
#include "tests/Desktop.h"

#include <QTemporaryDir>

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QTemporaryDir state; // settings, recent files and journals of the tests stay out of the user's
    if (qEnvironmentVariableIsEmpty("LINTEL_STATE")) qputenv("LINTEL_STATE", state.path().toUtf8());
    lintel::Application app(argc, argv); // takes the desktop's locale
    if (!lintel::takeDesktopLocale()) return 1;
    QApplication::setApplicationName("lintel-test");
    QApplication::setStyle("Fusion");
    return Catch::Session().run(argc, argv);
}
