#include "core/sheets/Drawing.h"

namespace lintel {

std::string Drawing::words() const {
    std::string out;
    for (const Mark& m : marks)
        if (const auto* t = std::get_if<TextMark>(&m)) out += t->text + "\n";
    return out;
}

} // namespace lintel
