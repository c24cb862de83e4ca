// Runs the tests of the core. They take the desktop's locale, as the window does. What is searched at random begins at
// the same seed every time, so that a result says something about the change; `./dev properties` goes on from others.

#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "tests/Desktop.h"

#include <cstdlib>

int main(int argc, char** argv) {
    setenv("RC_PARAMS", "seed=20261202", /* overwrite */ 0);
    if (!lintel::takeDesktopLocale()) return 1;
    return Catch::Session().run(argc, argv);
}
