#include "core/base/NaturalOrder.h"

#include "core/base/Parse.h"

namespace lintel {

bool numberBefore(const std::string& a, const std::string& b) {
    std::size_t i = 0;
    std::size_t k = 0;
    while (i < a.size() && k < b.size()) {
        if (isDigit(a[i]) && isDigit(b[k])) {
            const auto digits = [](const std::string& s, std::size_t& at) {
                while (at < s.size() && s[at] == '0') ++at;
                const std::size_t from = at;
                while (at < s.size() && isDigit(s[at])) ++at;
                return s.substr(from, at - from);
            };
            const std::string x = digits(a, i);
            const std::string y = digits(b, k);
            if (x.size() != y.size()) return x.size() < y.size();
            if (x != y) return x < y;
            continue;
        }
        if (a[i] != b[k]) return a[i] < b[k];
        ++i;
        ++k;
    }
    return a.size() - i < b.size() - k;
}

} // namespace lintel
