#include "core/project/OwnTexts.h"

#include "core/base/Parse.h"

namespace lintel {

std::string ownTextsLine(const std::map<std::string, std::string>& texts) {
    std::string out;
    for (const auto& [heading, text] : texts) out += (out.empty() ? "" : "; ") + heading + ": " + text;
    return out;
}

std::optional<Error> setOwnTexts(std::map<std::string, std::string>& texts, const std::string& line) {
    std::map<std::string, std::string> read;
    for (std::size_t from = 0; from <= line.size();) {
        const auto end = std::min(line.find(';', from), line.size());
        const std::string part = trimmed(line.substr(from, end - from));
        from = end + 1;
        if (part.empty()) continue;
        const auto colon = part.find(':');
        const std::string heading = trimmed(part.substr(0, colon));
        if (colon == std::string::npos || heading.empty() || heading.find_first_of("{}[]") != std::string::npos)
            return Error{part, "this is not a heading with its text", "Type Tag: K-4; Panel: left."};
        const std::string text = trimmed(part.substr(colon + 1));
        if (read.count(heading)) return Error{part, "“" + heading + "” stands there twice", "Give each heading once."};
        if (!text.empty()) read[heading] = text;
    }
    texts = std::move(read);
    return std::nullopt;
}

} // namespace lintel
