#pragma once
// A name of letters, digits, "-" and "_" only, which every system takes in a file's name.

#include "core/base/Parse.h"
#include "core/base/Utf8.h"

#include <string>

namespace lintel {

/// Of at most `bytes` bytes; every other sign is "_".
inline std::string plainName(const std::string& name, std::size_t bytes) {
    std::string plain(cutUtf8(name, bytes));
    for (char& c : plain)
        if (!isLetter(c) && !isDigit(c) && c != '-' && c != '_') c = '_';
    return plain;
}

} // namespace lintel
