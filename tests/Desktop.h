#pragma once
// The locale that tests run under, as a desktop sets it.

#include <clocale>
#include <cstdio>
#include <cstdlib>
#include <cstring>

namespace lintel {

/// Takes the desktop's locale, as every Qt program does at its start. False where the suite was to run with a decimal
/// comma and that locale is not there: a run that tests nothing is a failure.
inline bool takeDesktopLocale() {
    std::setlocale(LC_ALL, "");
    const bool comma = std::strcmp(std::localeconv()->decimal_point, ",") == 0;
    if (!std::getenv("LINTEL_DECIMAL_COMMA") || comma) return true;
    std::fputs("the locale with a decimal comma is not in force: see LOCPATH and LC_ALL\n", stderr);
    return false;
}

} // namespace lintel
