// lintel-cli: see CommandLine.cpp.

#include "cli/Commands.h"

int main(int argc, char** argv) { return lintel::runCommandLine(argc, argv); }
