// What people will see of the demos, as approved texts: results, snags and every sheet. A change that was not intended
// shows as a difference here; one that was is taken over by `./dev approve` after it has been looked at.

#include "core/base/Parse.h"
#include "core/check/Assumptions.h"
#include "core/exchange/ResultsText.h"
#include "core/level/Level.h"
#include "core/project/ProjectFile.h"
#include "tests/Approve.h"
#include "tests/Variations.h"

#include <charconv>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <set>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

/// Numbers to five figures: what another compiler rounds otherwise in the last place is no change.
nlohmann::ordered_json rounded(nlohmann::ordered_json j) {
    if (j.is_number_float()) {
        const std::string digits = fmt::format("{:.5g}", j.get<double>());
        double value = 0;
        std::from_chars(digits.data(), digits.data() + digits.size(), value); // whatever the locale
        return value;
    }
    if (j.is_structured())
        for (auto& part : j) part = rounded(part);
    return j;
}

/// One thing a line, so that a difference names what changed.
std::string linesOf(const nlohmann::ordered_json& results) {
    std::string out;
    for (const auto& [key, value] : results.items()) {
        if (!value.is_array()) {
            out += key + " " + rounded(value).dump() + "\n";
            continue;
        }
        for (const auto& thing : value) out += key + " " + rounded(thing).dump() + "\n";
    }
    return out;
}

double lengthOf(const std::vector<Point>& points, bool closed) {
    double sum = 0;
    for (std::size_t i = 1; i < points.size(); ++i) sum += distance(points[i - 1], points[i]);
    if (closed && points.size() > 1) sum += distance(points.back(), points.front());
    return sum;
}

/// Every text where it stands, in mm; of lines and areas how many there are of each pen and how long they are together.
std::string textOf(const Drawing& d) {
    std::string out = fmt::format("{} {} {} {:.1f} x {:.1f}\n", d.number, d.title, d.paper, d.width, d.height);
    std::map<std::string, std::pair<int, double>> geometry;
    const auto count = [&](const std::string& kind, Ink ink, double width, double length) {
        auto& [many, sum] = geometry[fmt::format("{} ink {} pen {:.2f}", kind, int(ink), width)];
        ++many;
        sum += length;
    };
    for (const Mark& mark : d.marks) {
        if (const auto* t = std::get_if<TextMark>(&mark)) {
            out += fmt::format("{:.0f} {:.0f} {:.1f}{}{} {}\n", t->at.x, t->at.y, t->size, t->bold ? "b" : "",
                               t->align == Align::Left    ? ""
                               : t->align == Align::Right ? ">"
                                                          : "|",
                               t->turn == 0 ? t->text : fmt::format("turned {:.0f} {}", t->turn, t->text));
        } else if (const auto* l = std::get_if<LineMark>(&mark)) {
            count(l->dashed ? "dashed line" : "line", l->ink, l->width, lengthOf(l->points, l->closed));
        } else if (const auto* f = std::get_if<FillMark>(&mark)) {
            count("fill", f->ink, 0, lengthOf(f->points, true));
        } else if (const auto* c = std::get_if<CircleMark>(&mark)) {
            count(c->filled ? "dot" : "circle", c->ink, c->width, c->radius);
        } else if (const auto* v = std::get_if<CurveMark>(&mark)) {
            count("curve", v->ink, v->width, distance(v->a, v->c));
        } else if (const auto* m = std::get_if<LinesMark>(&mark)) {
            count("hair lines", m->ink, m->width, double(m->ends.size()));
        } else {
            count("picture", Ink::Ink, 0, 0);
        }
    }
    for (const auto& [kind, sum] : geometry) out += fmt::format("{}: {}, {:.0f} mm\n", kind, sum.first, sum.second);
    return out;
}

/// What a working is like, whatever its numbers: its steps and the rules they rest on.
std::string shapeOf(const Working& w) {
    std::string shape;
    for (const WorkingStep& s : w.steps) {
        for (char c : s.what + "|" + s.cited + (s.governs ? "*" : "") + "\n")
            if (!isDigit(c)) shape += c;
    }
    return shape;
}

/// The workings of everything that feeds, and of one circuit of each kind of working.
std::string workingsOf(const Project& p, const RuleBook& book, const Results& r) {
    std::string out;
    std::set<std::string> shapes;
    const auto tell = [&](Ref thing, bool always) {
        const Working w = explain(p, book, r, thing);
        if (shapes.insert(shapeOf(w)).second || always) out += w.text() + "\n";
    };
    for (Ref node : r.order) tell(node, true);
    for (const Circuit& c : p.circuits) tell(c.id, false);
    return out;
}

/// With all the effort there is, and with so little that the search ends early.
std::string levellingOf(const Project& p, const Results& r, long most = levelEffort) {
    std::string out;
    for (const Board& b : p.boards)
        for (long effort : {most, 2000L, 100L}) {
            const LevelChoices choices = levelBoard(p, r, b.id, effort);
            out += fmt::format("{} effort {} bound {:.0f}:", b.name, effort, choices.bound);
            for (const Arrangement& a : choices.byMoves)
                out += fmt::format(" {} moves {:.0f}{}", a.places.size(), a.spread, a.proven ? "!" : "");
            out += "\n";
        }
    for (Ref node : r.order) {
        const TurningChoices turning = levelByTurning(p, r, node);
        out += fmt::format("{} together, bound {:.0f}:", nameOf(p, node), turning.bound);
        for (const Turning& t : turning.byBoards)
            out += fmt::format(" {} turned {:.0f}{}", t.turns.size(), t.spread, t.proven ? "!" : "");
        out += "\n";
    }
    return out;
}

void approveDemo(const std::string& demo) {
    const Project p = *loadProject(dataFolder() / "demos" / (demo + ".lintel"));
    const RuleBook& book = bookOf(p.basis.ruleBook);
    const Results r = solve(p, book);
    std::map<std::string, std::string> texts;
    texts["results.txt"] = resultsText({p, book, r});
    texts["results-json.txt"] = linesOf(resultsJson({p, book, r}, false));
    texts["workings.txt"] = workingsOf(p, book, r);
    texts["remedies.txt"] = remediesText({p, book, r});
    texts["levelling.txt"] = levellingOf(p, r);
    const SheetInput in{p, book, r};
    for (const SheetEntry& sheet : issueSet(in)) texts["sheet-" + sheet.file + ".txt"] = textOf(sheet.draw());
    approve(demo, texts);
}

/// A text in sixteen signs (FNV-1a).
std::string signOf(const std::string& text) {
    std::uint64_t sign = 0xcbf29ce484222325;
    for (char c : text) sign = (sign ^ std::uint8_t(c)) * 0x100000001b3;
    return fmt::format("{:016x}", sign);
}

/// How many snags of each rule there are in some projects, and a sign for each kind of text of all of them. Where that
/// is not what was approved the texts themselves go into a folder.
std::string toldOf(const std::string& name, const std::vector<Project>& projects, const std::string& approved,
                   const fs::path& folder) {
    std::map<std::string, int> snags;
    std::map<std::string, std::string> texts;
    for (const Project& p : projects) {
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        for (const Snag& s : findSnags(p, book, r)) ++snags[s.rule->id];
        texts["figures"] += linesOf(resultsJson({p, book, r}, false));
        texts["workings"] += workingsOf(p, book, r);
        texts["remedies"] += remediesText({p, book, r});
        texts["levelling"] += levellingOf(p, r, 20000);
    }
    std::string line = name + ":";
    for (const auto& [rule, n] : snags) line += fmt::format(" {} {}", n, rule);
    for (const auto& [part, text] : texts) line += fmt::format(" | {} {}", part, signOf(text));
    line += "\n";
    if (approved.find(line) == std::string::npos)
        for (const auto& [part, text] : texts)
            std::ofstream(folder / fmt::format("{} {}.txt", signOf(text), part), std::ios::binary) << text;
    return line;
}

} // namespace

TEST_CASE("results, snags and sheets of Saltmarket Hall are as approved") { approveDemo("saltmarket-hall"); }
TEST_CASE("results, snags and sheets of Brindle Pier are as approved") { approveDemo("brindle-pier"); }

// Facts of six projects entered otherwise, eight times each, of two hundred small boards, and of two hundred and forty
// small distributions with what can stand in a feed. The line of a variation
// tells what is wrong in it; its figures, workings, remedies and levelling stand there as a sign each, and whole in the
// folder that is named where they differ.
TEST_CASE("variations of the demos and starters are as approved") {
    std::vector<std::pair<std::string, Project>> bases;
    TextsKnown texts;
    for (const char* name : {"demos/saltmarket-hall", "demos/brindle-pier", "starters/us-shop", "starters/uk-shop"}) {
        bases.push_back({name, *loadProject(dataFolder() / (std::string(name) + ".lintel"))});
        texts.learn(bases.back().second);
    }
    for (std::uint32_t seed : {1, 2}) {
        bases.push_back({fmt::format("building {}", seed), randomBuilding(seed, 9)});
        equip(bases.back().second, seed);
    }
    const fs::path whole = fs::temp_directory_path() / "lintel-received" / "variations-whole";
    fs::remove_all(whole);
    fs::create_directories(whole);
    const fs::path folder = sourceTree() / "tests" / "approval" / "variations";
    const std::string approved =
        contentOf(folder / "projects.txt") + contentOf(folder / "boards.txt") + contentOf(folder / "distributions.txt");
    std::string lines;
    for (const auto& [name, base] : bases)
        for (std::uint32_t seed = 1; seed <= 8; ++seed)
            lines += toldOf(fmt::format("{} {}", name, seed),
                            {varied(base, seed, base.circuits.size() > 80 ? 60 : 150, texts)}, approved, whole);
    std::string boards;
    for (std::uint32_t seed = 1; seed <= 200; seed += 10) {
        std::vector<Project> ten;
        for (std::uint32_t k = seed; k < seed + 10; ++k) ten.push_back(varied(smallBoard(k), k, 40, texts));
        boards += toldOf(fmt::format("boards {} to {}", seed, seed + 9), ten, approved, whole);
    }
    std::string distributions;
    for (std::uint32_t seed = 1; seed <= 240; seed += 10) {
        std::vector<Project> ten;
        for (std::uint32_t k = seed; k < seed + 10; ++k) ten.push_back(varied(smallDistribution(k), k, 12, texts));
        distributions += toldOf(fmt::format("distributions {} to {}", seed, seed + 9), ten, approved, whole);
    }
    approve("variations", {{"projects.txt", lines}, {"boards.txt", boards}, {"distributions.txt", distributions}});
}
