#include "core/project/Sections.h"
#include "core/base/Parse.h"
#include "core/base/Utf8.h"

#include "core/base/Format.h"

#include <fmt/format.h>
#include <regex>

namespace lintel {

std::string sectionsText(const Project& p, BoardId id) {
    const Board* b = p.boards.find(id);
    const int per = b && b->form == BoardForm::Ways ? 3 : 1;
    std::string out;
    for (const Section& s : p.sections) {
        if (s.board != id) continue;
        out += fmt::format("{}{} {}–{}", out.empty() ? "" : "; ", s.name, (s.from - 1) / per + 1, (s.to - 1) / per + 1);
        if (s.rating > 0) out += fmt::format(" {} A", s.rating);
        if (s.residual > 0)
            out += fmt::format(" {} mA{}", s.residual,
                               s.residualType == ResidualType::A ? "" : fmt::format(" {}", wordOf(s.residualType)));
        if (s.metered) out += " metered";
    }
    return out;
}

std::optional<Error> setSections(Project& p, BoardId id, const std::string& text) {
    const Board& b = p.boards[id];
    const int per = b.form == BoardForm::Ways ? 3 : 1, last = b.slots / per;
    const char* help = "Write them as: Section A 1–6 63 A 30 mA; Section B 7–12 metered";
    static const std::regex shape(
        R"(^\s*(\S.*?)\s+(\d{1,4})\s*(?:–|-)\s*(\d{1,4})((?:\s+\d+(?:\.\d+)?\s*m?A(?:\s+d\.c\.)?|\s+type\s+(?:AC|A|F|B)(?:\s+and)?|\s+metered)*)\s*$)"),
        figure(R"((\d+(?:\.\d+)?)\s*(mA\s+d\.c\.|mA|A)|type\s+(AC|A|F|B)|metered)");
    std::vector<Section> sections;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t to = std::min(text.find(';', from), text.size());
        const std::string part = text.substr(from, to - from);
        from = to + 1;
        if (part.find_first_not_of(" \t") == std::string::npos) continue;
        std::smatch m;
        if (part.size() > 300 || !std::regex_match(part, m, shape))
            return Error{b.name, "\"" + std::string(cutUtf8(part, 80)) + "\" is not a section", help};
        Section s;
        s.board = id;
        s.name = m[1].str();
        const int first = std::stoi(m[2].str()), end = std::stoi(m[3].str());
        if (first < 1 || end < first || end > last)
            return Error{b.name,
                         fmt::format("{} would go from {} to {}, and the board has 1 to {}", s.name, first, end, last),
                         help};
        s.from = (first - 1) * per + 1, s.to = end * per;
        for (const Section& o : sections)
            if (s.from <= o.to && o.from <= s.to) return Error{b.name, s.name + " and " + o.name + " overlap", help};
        const std::string rest = m[4].str();
        for (std::sregex_iterator it(rest.begin(), rest.end(), figure), none; it != none; ++it) {
            if ((*it)[2].length() > 2)
                s.residualType = ResidualType::AWithDirect;
            else if ((*it)[3].matched)
                s.residualType = *fromWord<ResidualType>("type " + (*it)[3].str());
            else if ((*it)[2] == "mA")
                s.residual = plainNumber((*it)[1].str()).value_or(0);
            else if ((*it)[2] == "A")
                s.rating = plainNumber((*it)[1].str()).value_or(0);
            else
                s.metered = true;
        }
        sections.push_back(s);
    }
    std::vector<SectionId> old;
    for (const Section& s : p.sections)
        if (s.board == id) old.push_back(s.id);
    for (SectionId s : old) p.sections.remove(s);
    for (const Section& s : sections) p.sections.add(s);
    return std::nullopt;
}

} // namespace lintel
