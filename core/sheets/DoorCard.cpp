#include "core/sheets/DoorCard.h"

#include "core/base/Format.h"
#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/CircuitFigures.h"
#include "core/figures/ScheduleForms.h"
#include "core/figures/Words.h"
#include "core/project/Equipment.h"
#include "core/project/Operations.h"
#include "core/sheets/BoardPlace.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

/// One line of a card: places, and what they serve.
struct Entry {
    std::string places, words;
    bool quiet = false; ///< no load
    Ref thing{};
    int rows = 1; ///< places that it takes beside those of the other column
};

/// The places of a column in order; a circuit once, at its first.
std::vector<Entry> entriesOf(const SheetInput& in, const Board& b, int first, int step) {
    std::vector<Entry> out;
    const ScheduleForm& form = formOf(in, b); // what its schedule calls a spare and a free place
    const auto map = slotMap(in.project, b, in.results.on(b.id));
    for (int slot = first; slot <= b.slots; slot += step) {
        const Circuit* c = in.project.circuits.find(map[std::size_t(slot)]);
        if (c && c->slot != slot) continue; // a further pole
        if (c) {
            out.push_back({placesWords(b, *c), servesByForm(form, in, c->id), c->use != CircuitUse::Load, c->id,
                           step > 1 ? c->poles : 1});
            continue;
        }
        Circuit empty;
        empty.slot = slot;
        out.push_back({placesWords(b, empty), freePlaceWords(form), true});
    }
    return out;
}

struct Card {
    const SheetInput& in;
    const Board& b;
    Drawing d;
    double margin, scale; ///< of the letters: an A5 card is read from nearer

    Card(const SheetInput& input, const Board& board) : in(input), b(board) {
        d.title = b.name;
        d.paper = in.book.trade.papers.doorCard;
        const PaperSize size = paperSize(d.paper);
        d.width = size.width, d.height = size.height;
        const bool small = size.width < 180;
        margin = small ? 8 : 12;
        scale = small ? 0.8 : 1;
    }
    double top() const { return margin + 27 * scale; }
    double foot() const { return d.height - margin - 7 * scale; }

    void head(std::size_t page, std::size_t pages) {
        const Basis& basis = in.project.basis;
        const double wide = d.width - 2 * margin;
        d.text({margin, margin + 9 * scale}, b.name, 11 * scale, Align::Left, true, Ink::Ink, wide * 0.6);
        d.text({d.width - margin, margin + 5 * scale},
               in.book.word(TradeWord::DoorCard) + (pages > 1 ? fmt::format(", {} of {}", page + 1, pages) : ""),
               4 * scale, Align::Right, true, Ink::Ink, wide * 0.38);
        std::string what = systemWords(b.system);
        if (b.main > 0) what += fmt::format(" · main {} A", number(b.main));
        const NodeResult& r = in.results.of(b.id);
        if (r.parent) what += " · fed from " + nameOf(in.project, r.via ? Ref(r.via) : r.parent);
        d.text({margin, margin + 15 * scale}, b.description.empty() ? boardPlace(in.project, b) : b.description,
               3.6 * scale, Align::Left, false, Ink::Ink, wide);
        d.text({margin, margin + 20.5 * scale}, what, 3.4 * scale, Align::Left, false, Ink::Ink, wide);
        d.line({margin, top() - 3 * scale}, {d.width - margin, top() - 3 * scale}, 0.7);
        const double base = d.height - margin - 1;
        d.line({margin, foot() + 1}, {d.width - margin, foot() + 1}, 0.35);
        d.text({margin, base}, basis.title + (basis.jobNumber.empty() ? "" : " · " + basis.jobNumber), 2.8 * scale,
               Align::Left, false, Ink::Quiet, wide * 0.6);
        d.text({d.width - margin, base},
               "issue " + basis.issue + (basis.issueDate.empty() ? "" : ", " + basis.issueDate), 2.8 * scale,
               Align::Right, false, Ink::Quiet, wide * 0.38);
    }
    double rowHeight() const { return 6.2 * scale; }
    std::vector<std::string> linesOf(const Entry& e, double width) const {
        return wrapText(e.words, width - placesRoom() - 2, size());
    }
    double size() const { return 3.6 * scale; }
    double placesRoom() const { return 19 * scale; }
    double heightOf(const Entry& e, double width) const {
        return std::max(rowHeight() * e.rows, 2.2 * scale + 4.4 * scale * double(linesOf(e, width).size()));
    }
    void entry(const Entry& e, double x, double y, double width) {
        const double h = heightOf(e, width);
        const auto lines = linesOf(e, width);
        double base = y + h / 2 + 1.3 * scale - 2.2 * scale * double(lines.size() - 1);
        d.text({x + placesRoom() - 3, y + h / 2 + 1.3 * scale}, e.places, size(), Align::Right, true, Ink::Ink,
               placesRoom() - 3);
        for (const std::string& line : lines) {
            d.text({x + placesRoom(), base}, line, size(), Align::Left, false, e.quiet ? Ink::Quiet : Ink::Ink);
            if (e.quiet) d.lastText()->italic = true;
            base += 4.4 * scale;
        }
        d.line({x, y + h}, {x + width, y + h}, 0.13, Ink::Rule);
        if (e.thing) d.hotspots.push_back({e.thing, x, y, x + width, y + h});
    }
};

} // namespace

std::vector<Drawing> doorCards(const SheetInput& in, BoardId id) {
    const Board& b = in.project.boards[id];
    if (passesOn(b.use) || b.slots < 1) return {};
    // Two columns as they stand in the board; a single column goes on from the left to the right.
    std::vector<std::vector<Entry>> columns;
    if (b.form == BoardForm::TwoColumn)
        columns = {entriesOf(in, b, 1, 2), entriesOf(in, b, 2, 2)};
    else
        columns = {entriesOf(in, b, 1, 1)};
    const bool runsOn = columns.size() == 1;
    std::vector<std::size_t> next(columns.size(), 0);
    std::vector<Card> cards;
    const auto left = [&] {
        for (std::size_t k = 0; k < columns.size(); ++k)
            if (next[k] < columns[k].size()) return true;
        return false;
    };
    while (left()) {
        Card& card = cards.emplace_back(in, b);
        const double gap = 6 * card.scale, width = (card.d.width - 2 * card.margin - gap) / 2;
        for (std::size_t half = 0; half < 2; ++half) {
            const std::size_t k = runsOn ? 0 : half;
            double y = card.top();
            while (next[k] < columns[k].size()) {
                const Entry& e = columns[k][next[k]];
                const double h = card.heightOf(e, width);
                if (y + h > card.foot() && y > card.top()) break;
                card.entry(e, card.margin + double(half) * (width + gap), y, width);
                y += h;
                ++next[k];
            }
        }
    }
    std::vector<Drawing> out;
    for (std::size_t i = 0; i < cards.size(); ++i) {
        cards[i].head(i, cards.size());
        out.push_back(std::move(cards[i].d));
    }
    return out;
}

std::vector<Drawing> allDoorCards(const SheetInput& in) {
    std::vector<const Board*> boards;
    for (const Board& b : in.project.boards) boards.push_back(&b);
    std::stable_sort(boards.begin(), boards.end(), [](const Board* x, const Board* z) { return x->name < z->name; });
    std::vector<Drawing> out;
    for (const Board* b : boards)
        for (Drawing& d : doorCards(in, b->id)) out.push_back(std::move(d));
    return out;
}

} // namespace lintel
