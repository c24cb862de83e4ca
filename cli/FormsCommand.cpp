// lintel-cli forms: the schedule forms of a project, those of a company's file, and which board is drawn by which.

#include "cli/Commands.h"
#include "core/figures/FormEdits.h"
#include "core/project/Equipment.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <iostream>

namespace lintel {
namespace {

void print(const Solved& s) {
    std::vector<const ScheduleForm*> forms;
    for (BoardForm kind : {BoardForm::TwoColumn, BoardForm::SingleColumn, BoardForm::Ways})
        for (const ScheduleForm* f : formsFor(s.project, s.book, kind)) forms.push_back(f);
    for (const ScheduleForm* f : forms) {
        std::string users;
        for (const Board& b : s.project.boards)
            if (!passesOn(b.use) && &formOf(s.project, s.book, b) == f) users += (users.empty() ? "" : ", ") + b.name;
        std::cout << fmt::format("{}   {}{}{}\n", f->name, wordOf(f->of), f->id ? "" : ", as it ships",
                                 users.empty() ? "" : "   " + users);
        for (const FormColumn& c : f->columns)
            std::cout << fmt::format("    {:18} {:7} {:10} {}\n", c.heading.empty() ? "(each line)" : c.heading,
                                     wordOf(c.align), c.width > 0 ? fmt::format("{:.1f} mm", c.width) : "auto",
                                     c.wording);
        for (const FormFact& fact : f->head)
            if (!fact.fact.empty())
                std::cout << fmt::format("    title strip: {}{}\n", fact.fact,
                                         fact.label.empty() ? "" : ", as " + fact.label);
        if (!f->sortBy.empty())
            std::cout << fmt::format("    rows in order of {}{}\n", f->sortBy, f->backwards ? ", reversed" : "");
        if (!f->groupBy.empty()) std::cout << fmt::format("    rows together by {}\n", f->groupBy);
    }
}

Outcome<BoardId> boardNamed(const Project& p, const std::string& name) {
    for (const Board& b : p.boards)
        if (b.name == name) return b.id;
    return Error{name, "there is no board of that name", ""};
}

} // namespace

int runForms(const FormsOrder& o) {
    if (o.figures) {
        for (const CircuitFigure& f : circuitFigures())
            std::cout << fmt::format("{:31} {:13} {}\n", f.key, f.group, f.about);
        return 0;
    }
    if (o.file.empty()) return fail({"forms", "which project?", "Give a .lintel file, or --figures."});
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    Project& p = (*s)->project;
    const RuleBook& book = (*s)->book;
    bool changed = false;
    if (!o.take.empty()) {
        auto read = loadProject(o.take);
        if (!read) return fail(read.error());
        if (read->forms.empty() && read->listForms.empty()) return fail({o.take, "it holds no forms", ""});
        std::cout << fmt::format("{} forms taken\n", takeForms(p, *read));
        changed = true;
    }
    if (!o.use.empty()) {
        if (o.boards.empty())
            return fail({o.use, "for which boards?", "Give --board NAME, or --board all for all boards of a kind."});
        for (const std::string& name : o.boards) {
            std::vector<BoardId> boards;
            if (name == "all") {
                for (const Board& b : p.boards)
                    for (const ScheduleForm* f : formsFor(p, book, b.form))
                        if (f->name == o.use && boards.empty()) boards.push_back(b.id);
                if (boards.empty()) return fail({o.use, "no board of this project can have that form", ""});
            } else {
                auto one = boardNamed(p, name);
                if (!one) return fail(one.error());
                boards.push_back(*one);
            }
            for (BoardId b : boards)
                if (auto bad = chooseForm(p, book, b, o.use, name == "all")) return fail(*bad);
        }
        changed = true;
    }
    if (!o.write.empty()) {
        const Project file = formsFile(p, book);
        if (auto bad = saveProject(file, o.write)) return fail(*bad);
        std::cout << fmt::format("{} forms written\n", file.forms.size() + file.listForms.size());
    }
    if (changed) {
        if (auto bad = saveProject(p, o.out.empty() ? o.file : o.out)) return fail(*bad);
    } else if (o.write.empty()) {
        print(**s);
    }
    return 0;
}

} // namespace lintel
