#pragma once
// Libraries in C read and write numbers by the desktop's locale: "0,5" in half of Europe, where a file must say "0.5".

#include <clocale>
#include <locale.h>

namespace lintel {

/// While one lives, numbers of this thread have a decimal point, whatever the desktop says. Put one around every call
/// into a library that reads or writes numbers as text. Our own code uses std::from_chars and fmt, which ask no locale.
class PlainNumbers {
public:
    PlainNumbers() : previous(uselocale(plain())) {}
    ~PlainNumbers() { uselocale(previous); }
    PlainNumbers(const PlainNumbers&) = delete;
    PlainNumbers& operator=(const PlainNumbers&) = delete;

private:
    static locale_t plain() {
        static const locale_t c = newlocale(LC_ALL_MASK, "C", locale_t(nullptr));
        return c;
    }
    locale_t previous;
};

} // namespace lintel
