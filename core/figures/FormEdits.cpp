#include "core/figures/FormEdits.h"

#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/project/Equipment.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double inch = 25.4;

const ScheduleForm* named(const Project& p, const std::string& name) {
    for (const ScheduleForm& f : p.forms)
        if (sameWord(f.name, name)) return &f;
    return nullptr;
}

/// Makes a form the usual one of its kind, and no other.
void makeUsual(Project& p, FormId id) {
    const BoardForm kind = p.forms[id].of;
    std::vector<FormId> others;
    for (const ScheduleForm& f : p.forms)
        if (f.of == kind && f.usual && f.id != id) others.push_back(f.id);
    for (FormId other : others) p.forms.change(other)->usual = false;
    p.forms.change(id)->usual = true;
}

} // namespace

std::vector<BoardId> boardsOfForm(const Project& p, const RuleBook& book, BoardId board) {
    std::vector<BoardId> out;
    const ScheduleForm* form = &formOf(p, book, p.boards[board]);
    for (const Board& b : p.boards)
        if (!passesOn(b.use) && &formOf(p, book, b) == form) out.push_back(b.id);
    return out;
}

std::string freeFormName(const Project& p, const RuleBook& book, const std::string& like) {
    const auto taken = [&](const std::string& name) {
        for (const ScheduleForm& f : shippedForms(book))
            if (sameWord(f.name, name)) return true;
        return named(p, name) != nullptr;
    };
    if (!taken(like)) return like;
    for (int i = 2;; ++i)
        if (const std::string name = fmt::format("{} {}", like, i); !taken(name)) return name;
}

FormId formToChange(Project& p, const RuleBook& book, BoardId board, bool only) {
    const ScheduleForm form = formOf(p, book, p.boards[board]);
    const std::vector<BoardId> users = boardsOfForm(p, book, board);
    if (form.id && (!only || users.size() < 2)) return form.id;
    ScheduleForm copy = form;
    copy.id = {};
    if (only) {
        copy.usual = false;
        copy.name = freeFormName(p, book, form.name + ", " + p.boards[board].name);
        const FormId made = p.forms.add(copy);
        p.boards.change(board)->scheduleForm = made;
        return made;
    }
    const FormId made = p.forms.add(copy); // takes the place of the one that ships, under its name
    if (copy.usual) makeUsual(p, made);
    return made;
}

std::optional<Error> chooseForm(Project& p, const RuleBook& book, BoardId board, const std::string& name, bool all) {
    const BoardForm kind = p.boards[board].form;
    const ScheduleForm* wanted = nullptr;
    for (const ScheduleForm* f : formsFor(p, book, kind))
        if (sameWord(f->name, name)) wanted = f;
    if (!wanted) {
        std::string names;
        for (const ScheduleForm* f : formsFor(p, book, kind)) names += (names.empty() ? "" : ", ") + f->name;
        return Error{name, "there is no such form for this kind of board", "There are: " + names + "."};
    }
    if (!all && wanted == &formOf(p, book, p.boards[board])) return std::nullopt; // it is that already
    FormId id = wanted->id;
    if (!id) {
        ScheduleForm copy = *wanted;
        copy.usual = false;
        id = p.forms.add(copy);
    }
    if (!all) {
        p.boards.change(board)->scheduleForm = id;
        return std::nullopt;
    }
    makeUsual(p, id);
    std::vector<BoardId> own;
    for (const Board& b : p.boards)
        if (b.form == kind && b.scheduleForm) own.push_back(b.id);
    for (BoardId b : own) p.boards.change(b)->scheduleForm = {};
    return std::nullopt;
}

int takeForms(Project& p, const Project& file) {
    int n = 0;
    for (const ScheduleForm& form : file.forms) {
        ScheduleForm taken = form;
        const ScheduleForm* known = named(p, form.name);
        taken.id = known ? known->id : FormId{};
        FormId id = taken.id;
        if (known)
            *p.forms.change(id) = taken;
        else
            id = p.forms.add(taken);
        if (form.usual) makeUsual(p, id);
        ++n;
    }
    for (const ListForm& form : file.listForms) {
        ListForm taken = form;
        taken.id = {};
        for (const ListForm& own : p.listForms)
            if (own.list == form.list) taken.id = own.id;
        if (taken.id)
            *p.listForms.change(taken.id) = taken;
        else
            p.listForms.add(taken);
        ++n;
    }
    return n;
}

Project formsFile(const Project& p, const RuleBook& book) {
    Project file;
    file.basis.title = p.basis.company.empty() ? "Schedule forms" : p.basis.company + ", schedule forms";
    file.basis.ruleBook = p.basis.ruleBook;
    file.forms = p.forms;
    file.listForms = p.listForms;
    for (const ScheduleForm& f : shippedForms(book)) {
        if (named(p, f.name)) continue;
        ScheduleForm copy = f;
        for (const ScheduleForm& own : p.forms) copy.usual = copy.usual && !(own.usual && own.of == f.of);
        file.forms.add(copy);
    }
    return file;
}

std::optional<Error> setColumnWording(FormColumn& column, const std::string& text) {
    const auto wording = Wording::from(text);
    if (!wording) return wording.error();
    column.wording = text;
    return std::nullopt;
}

std::string columnWidthText(const FormColumn& c, UnitSystem units) {
    if (c.width <= 0) return "auto";
    return units == UnitSystem::Imperial ? fmt::format("{:.2f} in", c.width / inch) : number(c.width, 1) + " mm";
}

std::optional<Error> setColumnWidth(FormColumn& column, const std::string& typed, UnitSystem units) {
    const std::string text = trimmed(typed);
    if (text.empty() || sameWord(text, "auto")) {
        column.width = 0;
        return std::nullopt;
    }
    const bool imperial = units == UnitSystem::Imperial;
    const std::string help = imperial ? "Type 1.02 in, 26 mm, or auto." : "Type 26 mm, 1.02 in, or auto.";
    const auto read = readTyped(text, imperial ? "in" : "mm");
    if (!read) return read.error();
    const double mm = *read * (imperial ? inch : 1);
    if (!(mm >= 3 && mm <= 400)) return Error{text, "a column is 3 to 400 mm wide", help};
    column.width = mm;
    return std::nullopt;
}

void addColumn(ScheduleForm& form, std::size_t at, const CircuitFigure& figure) {
    FormColumn column{figure.heading, fmt::format("{{{}}}", figure.key), 14, figure.align};
    if (column.heading.empty()) column.heading = figure.key;
    if (figure.key == std::string("phase VA")) column.heading.clear(); // each has the name of its line
    form.columns.insert(form.columns.begin() + long(std::min(at, form.columns.size())), column);
}

void addOwnColumn(ScheduleForm& form, std::size_t at, const std::string& heading) {
    const FormColumn column{heading, "{own " + heading + "}", 20, ColumnAlign::Left};
    form.columns.insert(form.columns.begin() + long(std::min(at, form.columns.size())), column);
}

} // namespace lintel
