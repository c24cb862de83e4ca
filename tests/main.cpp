// Runs the tests of the core. They take the desktop's locale, as the window does.

#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "tests/Desktop.h"

int main(int argc, char** argv) {
    if (!lintel::takeDesktopLocale()) return 1;
    return Catch::Session().run(argc, argv);
}
