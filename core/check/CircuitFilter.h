#pragma once
// Finding circuits across the building by what one types: "kitchen", "board:LK-1 kind:lighting", "va>1500 poles:1
// pinned", "drop>3", "breaker:auto". All parts must hold; a minus before one turns it round.

#include "core/check/Check.h"

namespace lintel {

class CircuitFilter {
public:
    /// Parts are parted by blanks; "…" in quotes may hold some. An error names the part that means nothing.
    static Outcome<CircuitFilter> from(const std::string& text);
    bool matches(const CheckInput& in, const Circuit& circuit) const;
    bool empty() const { return parts.empty(); }
    /// The words that may stand before a sign, for the hint.
    static std::string help();

private:
    enum class Sign { Has, Is, More, Less };
    struct Part {
        std::string key, value;
        Sign sign = Sign::Has;
        double number = 0;
        bool not_ = false;
    };
    std::vector<Part> parts;
};

} // namespace lintel
