#include "core/figures/ScheduleForms.h"

#include "core/base/DataPath.h"
#include "core/base/Parse.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/Equipment.h"
#include "core/project/ProjectFile.h"

#include <map>
#include <mutex>
#include <stdexcept>

namespace lintel {
namespace {

constexpr double leastFree = 12; // mm

std::vector<ScheduleForm> shipped(const std::string& file) {
    auto read = loadProject(dataFolder() / "forms" / file);
    if (!read) throw std::runtime_error(read.error().text());
    std::vector<ScheduleForm> forms;
    for (ScheduleForm form : read->forms) {
        form.id = {};
        forms.push_back(std::move(form));
    }
    return forms;
}

/// Some books name ways of laying by a letter, others by words: the column is as wide as they are.
void widenMethods(std::vector<ScheduleForm>& forms, const RuleBook& book) {
    double widest = 0;
    for (const CableType& type : book.cables.types)
        for (const CableMethod& method : type.methods) widest = std::max(widest, textWidth(method.name, cellSize));
    for (ScheduleForm& form : forms)
        for (FormColumn& column : form.columns)
            if (column.wording == "{method}")
                column.width = std::max(column.width, std::min(20.0, widest * leastSqueeze + cellGap));
}

} // namespace

const std::vector<ScheduleForm>& shippedForms(const RuleBook& book) {
    // Sheets are drawn on several threads; what is in the map stays where it is.
    static std::mutex guard;
    static std::map<std::string, std::vector<ScheduleForm>> byBook;
    const std::lock_guard lock(guard);
    const auto [it, fresh] = byBook.try_emplace(book.id);
    if (fresh) {
        it->second = shipped(book.trade.board.forms);
        widenMethods(it->second, book);
    }
    return it->second;
}

const ScheduleForm& formOf(const Project& p, const RuleBook& book, const Board& b) {
    if (const ScheduleForm* own = p.forms.find(b.scheduleForm)) return *own;
    for (const ScheduleForm& f : p.forms)
        if (f.usual && f.of == b.form) return f;
    const std::vector<ScheduleForm>& ours = shippedForms(book);
    for (const ScheduleForm& f : ours)
        if (f.usual && f.of == b.form) return f;
    return ours.front();
}
const ScheduleForm& formOf(const SheetInput& in, const Board& b) { return formOf(in.project, in.book, b); }

std::vector<const ScheduleForm*> formsFor(const Project& p, const RuleBook& book, BoardForm kind) {
    std::vector<const ScheduleForm*> out;
    for (const ScheduleForm& f : p.forms)
        if (f.of == kind) out.push_back(&f);
    const std::size_t own = out.size();
    for (const ScheduleForm& f : shippedForms(book)) {
        bool taken = f.of != kind;
        for (std::size_t i = 0; i < own; ++i) taken = taken || sameWord(out[i]->name, f.name);
        if (!taken) out.push_back(&f);
    }
    return out;
}

std::string freePlaceWords(const ScheduleForm& form) { return form.space.empty() ? "Space" : form.space; }

std::string servesByForm(const ScheduleForm& form, const SheetInput& in, CircuitId circuit) {
    const bool named = in.project.circuits[circuit].use == CircuitUse::Spare && !form.spare.empty();
    return named ? form.spare : servesWords(in.project, in.results, circuit);
}

bool addsUp(const ScheduleForm& form) {
    return std::any_of(form.columns.begin(), form.columns.end(), [](const FormColumn& c) {
        if (c.wording == "{phase VA}") return true;
        return c.wording.size() > 2 && c.wording.front() == '{' && c.wording.back() == '}' &&
               kindOfFigure(c.wording.substr(1, c.wording.size() - 2));
    });
}
bool inOrderOfPlaces(const ScheduleForm& form, const Board& b) {
    return b.form == BoardForm::TwoColumn || (form.sortBy.empty() && form.groupBy.empty());
}

bool writtenInRows(const SheetInput& in, const Board& b) {
    if (b.form != BoardForm::SingleColumn) return b.form == BoardForm::Ways;
    return in.book.metric() || !inOrderOfPlaces(formOf(in, b), b);
}

std::vector<LaidColumn> layColumns(const ScheduleForm& form, const Board& board, double width) {
    static const Wording unread = *Wording::from("?");
    const int lines = factsOf(board.system).lines;
    std::vector<LaidColumn> out;
    double taken = 0;
    int free = 0;
    for (std::size_t i = 0; i < form.columns.size(); ++i) {
        const FormColumn& column = form.columns[i];
        const auto wording = Wording::from(column.wording);
        LaidColumn laid{i, wording ? *wording : unread, column.heading, column.align};
        const int parts = laid.wording.byLine() ? lines : 1;
        for (int line = 0; line < parts; ++line) {
            if (laid.wording.byLine()) laid.line = line, laid.heading = lineName(line, board);
            laid.to = column.width; // a width until all are known
            taken += column.width;
            free += column.width <= 0;
            out.push_back(laid);
        }
    }
    const double each = free > 0 ? std::max(leastFree, (width - taken) / free) : 0;
    const double scale = std::min(1.0, width / std::max(1.0, taken + free * each));
    double at = 0;
    for (LaidColumn& c : out) {
        const double w = (c.to > 0 ? c.to : each) * scale;
        c.from = at;
        at = c.to = at + w;
    }
    if (free == 0 && !out.empty()) out.back().to = width; // nothing is left over beside the table
    return out;
}

} // namespace lintel
