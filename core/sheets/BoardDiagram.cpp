#include "core/sheets/BoardDiagram.h"

#include "core/base/Format.h"
#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Wording.h"
#include "core/figures/Words.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/BoardHead.h"
#include "core/sheets/BoardNotes.h"
#include "core/sheets/LoadSymbol.h"
#include "core/sheets/PageNumber.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

namespace lintel {
namespace {

constexpr double inset = 6, labelColumn = 25; ///< mm within the frame; of the headings of the rows
constexpr double leastColumn = 14.4, mostColumn = 23;
constexpr double headRoom = 31; ///< from the frame to the line below the board's facts
constexpr double incomerRoom = 33, sectionRoom = 25, circuitRoom = 21, loadRoom = 16; ///< at least
constexpr double tableGap = 7, keyRoom = 13;                                          ///< below the loads; of the key
constexpr double busPen = 1.2, wirePen = 0.35, symbolPen = 0.35, enclosurePen = 0.25;
constexpr double nameText = 2.8, nameStep = 3.4;
constexpr double starterText = 2.3, starterHalf = 1.8; ///< of its box
constexpr double starterRoom = 3;                      ///< that one below a residual-current device takes
constexpr double keyText = 2.5, noteText = 2.5, noteStep = 3.9, noteIndent = 6,
                 noteGap = 8;         ///< gap: between their two columns
constexpr double noteHead = 8;        ///< of their heading with its line
constexpr double leastNames = 24;     ///< mm of the row of names on a sheet whose notes ask for its room
constexpr double notesWord = 14;      ///< room of the word before notes that stand beside the key
constexpr std::size_t mostBeside = 3; ///< lines of notes there
constexpr std::size_t mostBelow = 8;  ///< lines of notes below a diagram; what takes more stands on sheets of its own

/// One row of the table.
struct RowKind {
    const char* heading;
    const char* wording;
    bool bold = false;
    bool upright = false; ///< its texts read upwards
};

std::vector<RowKind> rowKinds(const SheetInput& in) {
    const bool feet = in.project.basis.units == UnitSystem::Imperial;
    const char* length = feet ? "Length, ft" : "Length, m";
    if (in.book.metric())
        return {{"Way", "{place}", true},
                {"Line", "{line}"},
                {"Device", "{device}", true},
                {"RCD, mA", "{RCD}"},
                {"Cable, mm²", "{conductors}"},
                {length, "{length}"},
                {"Points", "{points}"},
                {"Serves", "{serves}[ ({ring})]", false, true},
                {"Load, VA", "{VA}"},
                {"Ib, A", "{amps}"},
                {"Iz, A", "{carries}"},
                {"Drop, %", "{drop total}"},
                {"Zs, Ω", "{Zs}", true},
                {"Limit, Ω", "{Zs limit}"},
                {"Note", "{notes}"}};
    return {{"Circuit", "{place}", true},
            {"Phase", "{line}"},
            {"Breaker", "{device}", true},
            {"Protection", "{protection}"},
            {"Wire", "[sets > 1: ({sets}) ]{count}[unit = AWG: #][unit = kcmil: ×]{size}[material = Al:  Al]"
                     "[, {neutral apart} N][, #{ground}G][, #{isolated}IG]"},
            {"Conduit", "{conduit}[conduit: ″]"},
            {length, "{length}"},
            {"Points", "{points}"},
            {"Serves", "{serves}", false, true},
            {"Load, VA", "{VA}"},
            {"Load, A", "{amps}"},
            {"Drop, %", "{drop total}"},
            {"kA at end", "{fault}"},
            {"Note", "{notes}"}};
}

/// A line of the notes; the first of each has its number.
struct NoteLine {
    std::string number, text;
};
/// The notes of a board in lines of so much room, mm.
std::vector<NoteLine> noteLines(const std::vector<BoardNote>& notes, double room) {
    const double width = room - noteIndent;
    std::vector<NoteLine> lines;
    for (std::size_t i = 0; i < notes.size(); ++i) {
        std::string number = std::to_string(i + 1);
        for (std::string& line : wrapText(notes[i].text, width, noteText)) {
            lines.push_back({number, std::move(line)});
            number.clear();
        }
    }
    return lines;
}
/// The same for two columns beside each other.
std::vector<NoteLine> noteLinesInTwo(const std::vector<BoardNote>& notes, double room) {
    return noteLines(notes, (room - noteGap) / 2);
}
/// Of a sheet so high that has notes alone.
std::size_t noteLinesOnSheet(double high) {
    return 2 * std::size_t(std::max(1.0, std::floor((high - headRoom - noteHead) / noteStep)));
}
/// Sheets that so many lines take behind those with circuits.
std::size_t noteSheets(std::size_t lines, double high) {
    const std::size_t holds = noteLinesOnSheet(high);
    return (lines + holds - 1) / holds;
}

/// Circuits beside one another in one section of the board, or in none.
struct Group {
    const Section* section = nullptr;
    std::size_t first = 0, end = 0; ///< of the board's circuits in order
};

/// What stands below each circuit, before it has a place.
struct Content {
    const SheetInput& in;
    const Board& b;
    std::vector<CircuitId> circuits; ///< as they are numbered on the board; those without a place last
    std::vector<Group> groups;
    struct Row {
        RowKind kind;
        std::vector<std::string> texts;
    };
    std::vector<Row> rows; ///< but those that say nothing of any circuit
    std::vector<HeadFact> head;
    std::vector<BoardNote> notes;

    Content(const SheetInput& input, const Board& board, std::vector<BoardNote> itsNotes)
        : in(input), b(board), head(boardHead(input, board)), notes(std::move(itsNotes)) {
        for (CircuitId c : in.results.on(b.id)) circuits.push_back(c);
        const auto slot = [&](CircuitId c) {
            const int at = in.project.circuits[c].slot;
            return at > 0 ? at : 1'000'000;
        };
        std::stable_sort(circuits.begin(), circuits.end(), [&](CircuitId x, CircuitId z) { return slot(x) < slot(z); });
        for (std::size_t i = 0; i < circuits.size(); ++i) {
            const Section* section = sectionOf(circuits[i]);
            if (groups.empty() || groups.back().section != section) groups.push_back({section, i, i});
            groups.back().end = i + 1;
        }
        const auto numbers = numbersOfNotes(notes);
        const auto notesOf = [&](CircuitId c) {
            const auto at = numbers.find(c);
            return at == numbers.end() ? std::string() : at->second;
        };
        for (const RowKind& kind : rowKinds(in)) {
            const auto wording = Wording::from(kind.wording);
            Row row{kind, {}};
            bool some = false;
            for (CircuitId c : circuits) {
                row.texts.push_back(wording->of(CircuitFacts(in, c, notesOf(c))));
                some = some || !row.texts.back().empty();
            }
            if (some) rows.push_back(std::move(row));
        }
    }
    const Section* sectionOf(CircuitId circuit) const {
        const Circuit& c = in.project.circuits[circuit];
        for (const Section& s : in.project.sections)
            if (s.holds(c)) return &s;
        return nullptr;
    }
    /// From the bus of the circuits to the foot of the enclosure.
    double roomOfCircuits() const {
        const bool both = std::any_of(circuits.begin(), circuits.end(), [&](CircuitId id) {
            const Circuit& k = in.project.circuits[id];
            return k.residual > 0 && k.starter != StarterKind::Unsaid;
        });
        return circuitRoom + (both ? starterRoom : 0);
    }
    bool sections() const {
        return std::any_of(groups.begin(), groups.end(), [](const Group& g) { return g.section; });
    }
};

/// A sign whose meaning is told below a diagram.
struct KeySign {
    enum Sign { Breaker, Fuse, Residual, Ring, Starter, Conductors, Fed };
    Sign sign;
    double room; ///< of the sign, before its words
    std::string words;
    StarterKind starter = StarterKind::Unsaid;
    double width() const { return room + 1.5 + textWidth(words, keyText) + 9; }
};
/// Those that stand at the circuits `from` to `end`.
std::vector<KeySign> keySigns(const Content& c, std::size_t from, std::size_t end) {
    const auto some = [&](const auto& test) {
        return std::any_of(c.circuits.begin() + std::ptrdiff_t(from), c.circuits.begin() + std::ptrdiff_t(end),
                           [&](CircuitId id) { return test(c.in.project.circuits[id], c.in.results.of(id)); });
    };
    const auto kind = [&](bool fuse) {
        return some([&](const Circuit& k, const CircuitResult& r) {
            return k.use != CircuitUse::Reserved && isFuse(r.kindOfDevice) == fuse;
        });
    };
    std::vector<KeySign> signs;
    if (kind(false)) signs.push_back({KeySign::Breaker, 4, "breaker"});
    if (kind(true)) signs.push_back({KeySign::Fuse, 3, "fuse"});
    const bool guarded = std::any_of(c.groups.begin(), c.groups.end(),
                                     [](const Group& g) { return g.section && g.section->residual > 0; });
    if (guarded || some([](const Circuit& k, const CircuitResult&) { return k.residual > 0; }))
        signs.push_back({KeySign::Residual, 5, "residual-current device, mA"});
    if (some([](const Circuit& k, const CircuitResult&) { return k.ring; }))
        signs.push_back({KeySign::Ring, 4, "ring"});
    for (const auto& [of, word] : EnumText<StarterKind>::words)
        if (of != StarterKind::Unsaid &&
            some([starter = of](const Circuit& k, const CircuitResult&) { return k.starter == starter; }))
            signs.push_back({KeySign::Starter, 7, starterWords(of, c.in.book), of});
    signs.push_back({KeySign::Conductors, 4, "conductors: lines and neutral"});
    if (some([](const Circuit&, const CircuitResult& r) { return r.feeder; }))
        signs.push_back({KeySign::Fed, 3, "a board is fed"});
    return signs;
}

/// How the circuits are shared out among sheets, and how high the rows of the table are.
struct Sheets {
    double columnWidth = 0, cellText = 2.5, cellStep = 3.1;
    std::size_t perSheet = 0, count = 0;
    std::vector<double> rowHeights;
    double air = 0; ///< that the sheet has more than is needed, given to the diagram's parts
    std::vector<NoteLine> notes;
    bool notesBeside = false;   ///< they stand beside the key of the last circuits
    std::size_t notesApart = 0; ///< sheets of their own; 0, and not beside: they stand below the last circuits

    /// `room`, `high`: of the sheet, mm; high 0: as high as it has to be.
    Sheets(const Content& c, double room, double high) : notes(noteLinesInTwo(c.notes, room)) {
        const std::size_t n = c.circuits.size();
        count = countOf(n, room);
        perSheet = count ? (n + count - 1) / count : 0;
        columnWidth = perSheet ? std::min(mostColumn, (room - labelColumn) / double(perSheet)) : 0;
        if (columnWidth > 17) cellText = 2.8, cellStep = 3.4;
        double left = high - headRoom - incomerRoom - (c.sections() ? sectionRoom : 0) - c.roomOfCircuits() - loadRoom -
                      tableGap - keyRoom;
        for (const Content::Row& row : c.rows) {
            rowHeights.push_back(heightOf(row));
            left -= rowHeights.back();
        }
        putBeside(c, room);
        if (!notesBeside && high > 0 && !putBelow(c, left)) notesApart = noteSheets(notes.size(), high);
        if (left <= 0) return;
        const double more = std::min(1.6, left * 0.6 / double(std::max<std::size_t>(1, rowHeights.size())));
        for (double& h : rowHeights) h += more;
        left -= more * double(rowHeights.size());
        air = std::min(10.0, left / 3);
    }
    /// A few notes stand beside the key, where that leaves them room.
    void putBeside(const Content& c, double room) {
        if (c.notes.empty() || c.notes.size() > mostBeside || count == 0) return;
        double left = room - notesWord;
        for (const KeySign& sign : keySigns(c, (count - 1) * perSheet, c.circuits.size())) left -= sign.width();
        if (left < 60) return;
        std::vector<NoteLine> lines = noteLines(c.notes, left);
        notesBeside = lines.size() <= mostBeside;
        if (notesBeside) notes = std::move(lines);
    }
    /// Whether the notes have room below the last circuits, for which names may give way; `left`: what there is, and
    /// what there is then.
    bool putBelow(const Content& c, double& left) {
        if (notes.empty()) return true;
        if (notes.size() > mostBelow) return false;
        double lacks = notesRoom() - left;
        std::vector<double> given(rowHeights.size(), 0);
        for (std::size_t i = 0; i < rowHeights.size() && lacks > 0; ++i) {
            if (!c.rows[i].kind.upright) continue;
            given[i] = std::clamp(lacks, 0.0, std::max(0.0, rowHeights[i] - leastNames));
            lacks -= given[i];
        }
        if (lacks > 0) return false;
        for (std::size_t i = 0; i < rowHeights.size(); ++i) {
            rowHeights[i] -= given[i];
            left += given[i];
        }
        left -= notesRoom();
        return true;
    }
    /// Of the notes below the last circuits, mm.
    double notesRoom() const { return notes.empty() ? 0 : noteHead + noteStep * double((notes.size() + 1) / 2); }
    /// Sheets that so many circuits take on sheets with so much room; nothing else has to be known for it.
    static std::size_t countOf(std::size_t circuits, double room) {
        const auto most = std::size_t(std::max(1.0, std::floor((room - labelColumn) / leastColumn)));
        return (circuits + most - 1) / most;
    }
    double heightOf(const Content::Row& row) const {
        if (row.kind.upright) return uprightHeight(row);
        std::size_t lines = 1;
        for (const std::string& text : row.texts)
            lines = std::max(lines, wrapText(text, columnWidth - 1.6, cellText, row.kind.bold).size());
        return 1.9 + cellStep * double(std::min<std::size_t>(lines, 4));
    }
    static double longestWord(const std::string& text) {
        double most = 0;
        for (std::size_t at = 0; at < text.size();) {
            const std::size_t end = std::min(text.find(' ', at), text.size());
            most = std::max(most, textWidth(text.substr(at, end - at), nameText));
            at = end + 1;
        }
        return most;
    }
    std::size_t uprightLines() const { return std::size_t((columnWidth - 2) / nameStep); }
    /// The least in which every name has room in the lines that a column is wide.
    double uprightHeight(const Content::Row& row) const {
        constexpr double least = 18, most = 54, step = 4;
        for (double high = least; high < most; high += step) {
            const bool fits = std::all_of(row.texts.begin(), row.texts.end(), [&](const std::string& text) {
                return longestWord(text) <= high - 3 && wrapText(text, high - 3, nameText).size() <= uprightLines();
            });
            if (fits) return high;
        }
        return most;
    }
};

class Painter {
public:
    struct Area {
        double left, top, right, bottom = 0;
        bool sheets = true; ///< what goes on does so on another sheet; else in another row
    };
    Painter(const Content& content, const Sheets& sheets, Drawing& drawing, Area area, const std::string& first,
            std::size_t page)
        : c(content), in(content.in), b(content.b), shared(sheets), d(drawing), f(area), firstNumber(first),
          sheet(page), metric(content.in.book.metric()) {}

    /// The height at which it ends.
    double paint() {
        left = f.left + inset;
        right = f.right - inset;
        from = sheet * shared.perSheet;
        end = std::min(c.circuits.size(), from + shared.perSheet);
        d.on(Layer::Boards);
        head(f.top);
        mainBus = f.top + headRoom + incomerRoom;
        circuitBus = mainBus + (c.sections() ? sectionRoom : 0);
        enclosureFoot = circuitBus + c.roomOfCircuits() + shared.air;
        loads = enclosureFoot + loadRoom + shared.air;
        enclosure(f.top + headRoom + 10);
        incomer(f.top + headRoom);
        for (const Group& g : c.groups) group(g);
        for (std::size_t i = from; i < end; ++i) circuit(i);
        d.on(Layer::Notes);
        const double foot = table(loads + tableGap);
        key(foot + 7);
        if (shared.notes.empty() || !notesHere()) return foot + keyRoom;
        return notes(foot + keyRoom, 0, shared.notes.size());
    }
    /// Whether the notes stand below the circuits of this sheet.
    bool notesHere() const { return shared.notesApart == 0 && !shared.notesBeside && end == c.circuits.size(); }
    /// A sheet of notes alone.
    void paintNotes() {
        left = f.left + inset;
        right = f.right - inset;
        d.on(Layer::Notes);
        head(f.top);
        const std::size_t holds = noteLinesOnSheet(f.bottom - f.top), first = (sheet - shared.count) * holds;
        notes(f.top + headRoom, first, std::min(first + holds, shared.notes.size()));
    }

private:
    const Content& c;
    const SheetInput& in;
    const Board& b;
    const Sheets& shared;
    Drawing& d;
    Area f;
    const std::string& firstNumber;
    std::size_t sheet;
    bool metric;
    double left = 0, right = 0, mainBus = 0, circuitBus = 0, enclosureFoot = 0, loads = 0;
    std::size_t from = 0, end = 0;

    double columnLeft(std::size_t i) const { return left + labelColumn + shared.columnWidth * double(i - from); }
    double columnAt(std::size_t i) const { return columnLeft(i) + shared.columnWidth / 2; }
    double tableRight() const { return columnLeft(end); }

    void head(double top) {
        const double nameRoom = right - left > 300 ? 56 : 38;
        name(top, nameRoom);
        const double x0 = left + nameRoom + 6, step = (right - x0) / 4;
        std::vector<HeadFact> facts = c.head;
        facts.insert(facts.begin() + 3, headFact(in, b, "drop"));
        facts.push_back(headFact(in, b, "space"));
        for (std::size_t i = 0; i < facts.size(); ++i) {
            const double x = x0 + step * double(i % 4), at = top + (i < 4 ? 6.5 : 17);
            d.text({x, at}, facts[i].label, 2.5, Align::Left, false, Ink::Quiet);
            const bool one = textWidth(facts[i].value, 3, true) <= step - 3;
            double y = at + 4.4;
            for (const std::string& line : linesAtMost(wrapText(facts[i].value, step - 3, one ? 3 : 2.7, true), 2)) {
                d.text({x, y}, line, one ? 3 : 2.7, Align::Left, true, Ink::Ink, step - 3);
                y += 3.2;
            }
        }
        d.line({left, top + headRoom - 4}, {right, top + headRoom - 4}, 0.35);
    }
    /// Large, or as small as a long one asks for; what the board is beneath it.
    void name(double top, double room) {
        double size = 9;
        while (size > 3.4 && wrapText(b.name, room, size, true).size() > (size > 6 ? 1 : 2)) size *= 0.85;
        double y = top + 4 + size;
        for (const std::string& line : linesAtMost(wrapText(b.name, room, size, true), 2)) {
            d.text({left, y}, line, size, Align::Left, true, Ink::Ink, room);
            y += size * 1.1;
        }
        y = std::max(y - size * 1.1 + 5, top + 18);
        for (const std::string& line : linesAtMost(wrapText(b.description, room, 2.8), 2)) {
            d.text({left, y}, line, 2.8, Align::Left, false, Ink::Ink, room);
            y += 3.6;
        }
    }
    void enclosure(double top) {
        d.marks.push_back(LineMark{{{left + labelColumn - 2, top},
                                    {tableRight() + 2, top},
                                    {tableRight() + 2, enclosureFoot},
                                    {left + labelColumn - 2, enclosureFoot}},
                                   enclosurePen,
                                   Ink::Ink,
                                   true,
                                   true});
        double y = top + 3;
        for (const std::string& line : linesAtMost(wrapText(b.name, labelColumn - 4, 2.8, true), 5)) {
            d.text({left, y}, line, 2.8, Align::Left, true, Ink::Ink, labelColumn - 4);
            y += 3.5;
        }
        d.text({left, y}, "enclosure", 2.5, Align::Left, false, Ink::Quiet);
        rowLabel(circuitBus + 9, "Device");
        rowLabel(enclosureFoot + 6, "Conductors");
        rowLabel(loads, "Load");
    }
    void rowLabel(double y, const char* words) { d.text({left, y}, words, 2.5, Align::Left, false, Ink::Quiet); }

    /// From what feeds the board through its main device to its bus; on a further sheet the bus alone.
    void incomer(double top) {
        const double start = left + labelColumn + 1, stop = tableRight() - 1;
        d.line({start, mainBus}, {stop, mainBus}, busPen);
        std::string lines;
        for (int i = 0; i < factsOf(b.system).lines; ++i) lines += (i ? " " : "") + lineName(i, b);
        if (factsOf(b.system).wires > factsOf(b.system).lines) lines += " N";
        const double beside = b.surge.empty() || sheet > 0 ? start : start + 8; // the line to surge protection
        d.text({beside, mainBus - 2}, fmt::format("{} · {} A bus", lines, number(b.bus)), 2.8, Align::Left, true);
        if (sheet > 0) {
            d.text({start, mainBus - 6}, fromWords(), 2.8);
            return more(stop);
        }
        const double x = (start + stop) / 2;
        const BoardResult& r = in.results.of(b.id);
        const double device = mainBus - 14;
        d.line({x, top + 1}, {x, b.main > 0 ? device - 4 : mainBus}, wirePen * 1.4);
        arrow({x, top + 4});
        if (b.main > 0) {
            mainDevice({x, device});
            d.line({x, device + 4}, {x, mainBus}, wirePen * 1.4);
        }
        surge();
        d.text({x + 4, top + 2.6}, r.parent ? "From " + c.head[3].value : "Not fed", 2.8, Align::Left, true);
        if (r.parent) d.text({x + 4, top + 6}, conductorWords(r.run, in.book), 2.8);
        if (r.parent && r.run.size >= 0) ticks({x, top + 7}, r.run.need.poles + r.run.neutrals);
        more(stop);
    }
    /// Surge protection from the bus to earth, at its left.
    void surge() {
        if (b.surge.empty()) return;
        const double x = left + labelColumn + 6, top = mainBus - 17;
        d.line({x, mainBus}, {x, top + 6}, wirePen);
        d.box(x - 1.6, top, 3.2, 6, symbolPen);
        d.marks.push_back(FillMark{{{x - 0.8, top + 3.4}, {x + 0.8, top + 3.4}, {x, top + 1.6}}, Ink::Ink});
        d.line({x, top}, {x, top - 2}, wirePen);
        for (int k = 0; k < 3; ++k) {
            const double half = 1.8 - 0.6 * k, y = top - 2 - 0.7 * k;
            d.line({x - half, y}, {x + half, y}, symbolPen);
        }
        d.text({x + 3, top + 2.4}, "Surge protection", 2.7, Align::Left, true);
        d.text({x + 3, top + 5.8}, b.surge, 2.7, Align::Left, false, Ink::Ink,
               std::max(12.0, (tableRight() - x) / 2 - 10));
    }
    void more(double stop) {
        if (end < c.circuits.size())
            d.text({stop, mainBus - 2}, f.sheets ? "goes on on " + pageName(sheet + 1) : "goes on below", 2.8,
                   Align::Right);
    }
    std::string fromWords() const { return "goes on from " + (f.sheets ? pageName(sheet - 1) : std::string("above")); }
    std::string pageName(std::size_t page) const {
        return firstNumber.empty() ? fmt::format("sheet {}", page + 1) : pageNumber(firstNumber, page);
    }
    void mainDevice(Point at) {
        if (metric)
            blade(at, Contact::Isolator);
        else
            breakerBox(at);
        d.text({at.x + 4, at.y - 1}, "Main " + in.book.word(TradeWord::MainDevice), 2.8, Align::Left, true);
        d.text({at.x + 4, at.y + 2.6}, number(b.main) + " A", 2.8);
    }

    /// Where the line of the group after this one comes down; the end of the table where there is none.
    double nextLine(const Group& g) const {
        for (const Group& other : c.groups)
            if (other.first == g.end && other.first < end)
                return (columnLeft(other.first) + columnLeft(std::min(other.end, end))) / 2;
        return tableRight() + 4;
    }
    /// The bar of a section with what stands before it, or of circuits between sections.
    void group(const Group& g) {
        const std::size_t first = std::max(g.first, from), last = std::min(g.end, end);
        if (first >= last || !c.sections()) return;
        const double start = columnLeft(first) + 2.5, stop = columnLeft(last) - 2.5, x = (start + stop) / 2;
        d.line({start, circuitBus}, {stop, circuitBus}, busPen * 0.8);
        const Section* s = g.section;
        if (g.first < from) {
            d.text({start, circuitBus - 2}, (s ? s->name : std::string()) + ", " + fromWords(), 2.5, Align::Left, true,
                   Ink::Ink, stop - start);
            return;
        }
        const double device = mainBus + 8, ring = device + 7;
        const bool cut = s && s->rating > 0;
        d.line({x, mainBus}, {x, cut ? device - 4 : circuitBus}, wirePen);
        if (!s) return;
        if (cut) {
            blade({x, device}, Contact::Isolator);
            d.line({x, device + 4}, {x, circuitBus}, wirePen);
        }
        std::vector<std::string> words{s->name};
        if (cut) words.push_back(fmt::format("{} A switch", number(s->rating)));
        if (s->residual > 0) {
            residualRing({x, ring});
            words.push_back(fmt::format("RCD {} mA, {}", number(s->residual), wordOf(s->residualType)));
        }
        if (s->metered) words.push_back("metered");
        // Up to the line of the next group, or to the end.
        const double room = std::max(6.0, nextLine(g) - 4 - (x + 4));
        std::vector<std::pair<std::string, bool>> lines;
        for (std::size_t i = 0; i < words.size(); ++i)
            for (std::string& line : wrapText(words[i], room, 2.6, i == 0)) lines.emplace_back(std::move(line), i == 0);
        constexpr std::size_t most = 6;
        while (lines.size() > most) { // what asks for more is set narrower in the last
            lines[lines.size() - 2].first += " " + lines.back().first;
            lines.pop_back();
        }
        double y = mainBus + 4.6;
        for (const auto& [line, bold] : lines) {
            d.text({x + 4, y}, line, 2.6, Align::Left, bold, Ink::Ink, room);
            y += 3.2;
        }
        d.hotspots.push_back({s->id, start, mainBus + 1, stop, circuitBus + 1});
    }

    void circuit(std::size_t i) {
        const Circuit& circuit = in.project.circuits[c.circuits[i]];
        const CircuitResult& r = in.results.of(circuit.id);
        const double x = columnAt(i), device = circuitBus + 8;
        const RunResult* run = in.results.run(circuit.id);
        const bool load = circuit.use == CircuitUse::Load;
        const bool bad = load && run && (run->size < 0 || run->tooSmall);
        const Ink ink = bad ? Ink::Stop : Ink::Ink;
        if (circuit.use == CircuitUse::Reserved) {
            d.line({x, circuitBus}, {x, circuitBus + 3}, wirePen, ink, true);
            return hotspot(i);
        }
        d.line({x, circuitBus}, {x, device - 4}, wirePen, ink);
        deviceOf(r.kindOfDevice, {x, device}, ink);
        d.text({x + 1.8, device - 1.4}, deviceWords(r, circuit.poles, in.book), 2.7, Align::Left, true, ink,
               shared.columnWidth / 2 + (metric ? 2 : 4.5) - 2);
        if (!load) {
            d.line({x, device + 4}, {x, enclosureFoot - 3}, wirePen, ink);
            d.marks.push_back(CircleMark{{x, enclosureFoot - 2.4}, 0.6, symbolPen, ink, false});
            return hotspot(i);
        }
        const double ring = device + 7.5;
        const double below = loads - (circuit.ring ? 8 : 0) - 3;
        const double boxed = ring + (circuit.residual > 0 ? 4.5 : 0); // its starter, through which no line goes
        const bool started = circuit.starter != StarterKind::Unsaid;
        d.line({x, device + 4}, {x, started ? boxed - starterHalf : below}, wirePen, ink);
        if (started) d.line({x, boxed + starterHalf}, {x, below}, wirePen, ink);
        if (circuit.residual > 0) {
            residualRing({x, ring});
            d.text({x + 2.8, ring + 0.9}, number(circuit.residual), 2.3, Align::Left, false, Ink::Ink,
                   shared.columnWidth / 2);
        }
        if (started) starter({x, boxed}, circuit.starter);
        if (run && run->size >= 0) ticks({x, enclosureFoot + 5}, run->need.poles + run->neutrals);
        if (circuit.ring) loop({x, loads - 11}, ink);
        loadSymbol(r, {x, loads}, ink);
        hotspot(i);
    }
    void hotspot(std::size_t i) {
        const double tableFoot = std::accumulate(shared.rowHeights.begin(), shared.rowHeights.end(), loads + tableGap);
        d.hotspots.push_back(
            {c.circuits[i], columnLeft(i), circuitBus + 1, columnLeft(i) + shared.columnWidth, tableFoot});
    }

    void deviceOf(DeviceKind kind, Point at, Ink ink) {
        if (isFuse(kind)) {
            d.line({at.x, at.y - 4}, {at.x, at.y + 4}, symbolPen, ink);
            d.box(at.x - 1, at.y - 2.4, 2, 4.8, symbolPen, ink);
        } else if (metric) {
            blade(at, Contact::Breaker, ink);
        } else {
            breakerBox(at, ink);
        }
    }
    void breakerBox(Point at, Ink ink = Ink::Ink) {
        d.line({at.x, at.y - 4}, {at.x, at.y + 4}, wirePen, ink);
        d.fill(at.x - 1.2, at.y - 1.2, 2.4, 2.4, Ink::Paper);
        d.box(at.x - 1.2, at.y - 1.2, 2.4, 2.4, symbolPen, ink);
    }
    /// A contact that opens: a cross for a breaker, a bar and a ring for a switch that isolates.
    enum class Contact { Breaker, Isolator };
    void blade(Point at, Contact contact, Ink ink = Ink::Ink) {
        const double top = at.y - 3;
        d.line({at.x, at.y - 4}, {at.x, top}, symbolPen, ink);
        if (contact == Contact::Breaker) {
            d.line({at.x - 0.9, top - 0.9}, {at.x + 0.9, top + 0.9}, symbolPen, ink);
            d.line({at.x - 0.9, top + 0.9}, {at.x + 0.9, top - 0.9}, symbolPen, ink);
        } else {
            d.line({at.x - 1.2, top}, {at.x + 1.2, top}, symbolPen, ink);
            d.marks.push_back(CircleMark{{at.x, top + 0.8}, 0.7, symbolPen, ink, false});
        }
        d.line({at.x - 2.6, at.y - 2.2}, {at.x, at.y + 2.6}, symbolPen * 1.3, ink);
        d.line({at.x, at.y + 2.6}, {at.x, at.y + 4}, symbolPen, ink);
    }
    /// Around the conductors of what is guarded by a residual-current device.
    void residualRing(Point at) {
        std::vector<Point> ring;
        for (int k = 0; k < 24; ++k) {
            const double a = 2 * 3.14159265358979 * k / 24;
            ring.push_back({at.x + 2.2 * std::cos(a), at.y + 1.1 * std::sin(a)});
        }
        d.marks.push_back(LineMark{std::move(ring), symbolPen, Ink::Ink, false, true});
    }
    /// A box with the letters of the starter.
    void starter(Point at, StarterKind kind) {
        const std::string sign = starterSign(kind, in.book);
        const double wide = std::max(5.0, textWidth(sign, starterText, true) + 1.2);
        d.box(at.x - wide / 2, at.y - starterHalf, wide, 2 * starterHalf, symbolPen);
        d.text({at.x, at.y + 0.8}, sign, starterText, Align::Centre, true);
    }
    /// A stroke for each conductor.
    void ticks(Point at, int many) {
        for (int k = 0; k < many; ++k) {
            const double y = at.y + (k - (many - 1) / 2.0) * 1.2;
            d.line({at.x - 1.5, y + 0.8}, {at.x + 1.5, y - 0.8}, 0.25);
        }
    }
    /// Two ways from a point down to one 8 mm below it.
    void loop(Point at, Ink ink = Ink::Ink) {
        std::vector<Point> way;
        for (Point p : {Point{0, 0}, {-1.4, 1.4}, {-1.4, 6.6}, {0, 8}, {1.4, 6.6}, {1.4, 1.4}}) way.push_back(at + p);
        d.marks.push_back(LineMark{std::move(way), wirePen, ink, false, true});
    }
    void arrow(Point tip) {
        d.marks.push_back(FillMark{{{tip.x - 1, tip.y - 2.6}, {tip.x + 1, tip.y - 2.6}, tip}, Ink::Ink});
    }
    void loadSymbol(const CircuitResult& r, Point at, Ink ink) {
        if (r.feeder && r.feeds.is<Transformer>()) {
            for (double dy : {-1.2, 1.2}) {
                d.marks.push_back(CircleMark{{at.x, at.y + dy}, 2, symbolPen, ink, false});
            }
            return;
        }
        if (r.feeder) {
            d.line({at.x, at.y - 3}, {at.x, at.y + 1}, wirePen, ink);
            arrow({at.x, at.y + 3});
            return;
        }
        drawLoadSymbol(d, r.kind, at, ink);
    }

    /// The height at which it ends.
    double table(double top) {
        double y = top;
        for (std::size_t k = 0; k < c.rows.size(); ++k) {
            row(c.rows[k], y, shared.rowHeights[k]);
            y += shared.rowHeights[k];
        }
        for (std::size_t i = from; i <= end; ++i)
            d.line({columnLeft(i), top}, {columnLeft(i), y}, begins(i) ? 0.35 : 0.13, begins(i) ? Ink::Ink : Ink::Rule);
        d.box(left, top, tableRight() - left, y - top, 0.5);
        return y;
    }
    /// What the signs mean, of those that stand on the sheet.
    void key(double y) {
        double x = left;
        for (const KeySign& sign : keySigns(c, from, end)) {
            drawSign(sign, {x + sign.room / 2, y});
            d.text({x + sign.room + 1.5, y + 1}, sign.words, keyText);
            x += sign.width();
        }
        if (shared.notes.empty()) return;
        if (shared.notesBeside && end == c.circuits.size()) return notesBesideKey(x, y);
        if (notesHere()) return;
        const std::size_t where = shared.notesApart > 0 ? shared.count : shared.count - 1;
        d.text({x, y + 1}, "Notes stand " + (f.sheets ? "on " + pageName(where) : std::string("below")), noteText,
               Align::Left, true);
    }
    void drawSign(const KeySign& sign, Point at) {
        switch (sign.sign) {
        case KeySign::Breaker:
            return deviceOf(DeviceKind::Breaker, at, Ink::Ink);
        case KeySign::Fuse:
            return deviceOf(DeviceKind::Fuse, at, Ink::Ink);
        case KeySign::Residual:
            return residualRing(at);
        case KeySign::Ring:
            return loop({at.x, at.y - 4});
        case KeySign::Starter:
            return starter(at, sign.starter);
        case KeySign::Conductors:
            d.line({at.x, at.y - 2.5}, {at.x, at.y + 2.5}, wirePen);
            return ticks(at, 2);
        case KeySign::Fed:
            return arrow({at.x, at.y + 1.3});
        }
    }
    void notesBesideKey(double x, double y) {
        d.text({x, y - 2}, "Notes", noteText, Align::Left, true);
        for (const NoteLine& line : shared.notes) {
            noteLine({x + notesWord, y - 2}, line);
            y += noteStep;
        }
    }
    void noteLine(Point at, const NoteLine& line) {
        if (!line.number.empty()) d.text(at, line.number, noteText, Align::Left, true);
        d.text({at.x + noteIndent, at.y}, line.text, noteText);
    }
    /// Lines of the notes in two columns, the left one first: the height at which they end.
    double notes(double top, std::size_t first, std::size_t last) {
        const std::size_t rows = (last - first + 1) / 2;
        d.text({left, top + 2.8}, first == 0 ? "Notes" : "Notes, continued", 2.8, Align::Left, true);
        for (std::size_t i = first; i < last; ++i) {
            const bool second = i - first >= rows;
            const double x = second ? (left + right + noteGap) / 2 : left;
            const double y = top + noteHead + noteStep * double((i - first) % rows);
            noteLine({x, y}, shared.notes[i]);
        }
        return top + noteHead + noteStep * double(rows);
    }
    /// Whether a new section begins at a circuit.
    bool begins(std::size_t i) const {
        return i == from || std::any_of(c.groups.begin(), c.groups.end(), [&](const Group& g) { return g.first == i; });
    }
    void row(const Content::Row& row, double top, double high) {
        if (row.kind.bold && &row == &c.rows.front()) d.fill(left, top, tableRight() - left, high, Ink::Band);
        d.line({left, top}, {tableRight(), top}, 0.13, Ink::Rule);
        d.text({left + 1.5, top + (row.kind.upright ? 5 : high / 2 + 0.9)}, row.kind.heading, 2.5, Align::Left, false,
               Ink::Ink, labelColumn - 3);
        for (std::size_t i = from; i < end; ++i) {
            if (row.kind.upright)
                upright(row.texts[i], columnAt(i), top, high);
            else
                cell(row.texts[i], columnAt(i), top, high, row.kind.bold);
        }
    }
    void cell(const std::string& text, double x, double top, double high, bool bold) {
        const double size = shared.cellText, step = shared.cellStep;
        const double room = shared.columnWidth - 1.6;
        const auto lines = linesAtMost(wrapText(text, room, size, bold), 4);
        double y = top + high / 2 + 0.95 - step * double(lines.size() - 1) / 2;
        for (const std::string& line : lines) {
            d.text({x, y}, line, size, Align::Centre, bold, Ink::Ink, room);
            y += step;
        }
    }
    void upright(const std::string& text, double x, double top, double high) {
        const auto lines = linesAtMost(wrapText(text, high - 3, nameText), shared.uprightLines());
        double at = x + 0.95 - nameStep * double(lines.size() - 1) / 2;
        for (const std::string& line : lines) {
            d.text({at, top + high - 1.5}, line, nameText, Align::Left, false, Ink::Ink, high - 3);
            d.lastText()->turn = -90;
            at += nameStep;
        }
    }
};

Drawing blank(const SheetInput& in) {
    Drawing d;
    d.paper = boardDiagramPaper(in.book);
    const PaperSize size = paperSize(d.paper);
    d.width = size.width;
    d.height = size.height;
    return d;
}

Sheets shareOut(const Content& content) {
    const SheetFrame f = footFrame(blank(content.in));
    return Sheets(content, f.right - f.left - 2 * inset, f.bottom - f.top);
}

bool hasDiagram(const Board& b) { return !passesOn(b.use) && b.slots > 0; }

} // namespace

bool issuesDiagram(const RuleBook& book, const Board& b) {
    return book.metric() || b.use == BoardUse::Switchboard || b.use == BoardUse::MotorControl;
}

const std::string& boardDiagramPaper(const RuleBook& book) { return book.trade.papers.small; }

bool hasBoardDiagram(const SheetInput& in, BoardId id) {
    return hasDiagram(in.project.boards[id]) && !in.results.on(id).empty();
}

std::size_t boardDiagramPages(const SheetInput& in, BoardId id) {
    const Board& b = in.project.boards[id];
    const SheetFrame f = footFrame(blank(in));
    const double room = f.right - f.left - 2 * inset;
    const std::size_t sheets = hasDiagram(b) ? Sheets::countOf(in.results.on(id).size(), room) : 0;
    if (sheets == 0) return 0;
    std::vector<BoardNote> notes = boardNotes(in, b);
    const std::size_t lines = noteLinesInTwo(notes, room).size();
    if (lines == 0) return sheets;
    if (lines > mostBelow) return sheets + noteSheets(lines, f.bottom - f.top);
    // Whether few have room rests on all that stands above them.
    return sheets + shareOut(Content(in, b, std::move(notes))).notesApart;
}

std::vector<Drawing> boardDiagram(const SheetInput& in, BoardId id, const std::string& number) {
    const Board& b = in.project.boards[id];
    if (!hasDiagram(b)) return {};
    const Content content(in, b, boardNotes(in, b));
    const Sheets sheets = shareOut(content);
    std::vector<Drawing> out;
    const std::size_t pages = sheets.count ? sheets.count + sheets.notesApart : 0;
    for (std::size_t page = 0; page < pages; ++page) {
        Drawing d = blank(in);
        d.title = sheetTitle(in.project, {SheetKind::Diagram, id}, b.name + ", diagram") +
                  (page == 0 ? "" : fmt::format(", sheet {}", page + 1));
        d.number = pageNumber(number, page);
        const SheetFrame f = footBlock(d, in, "None");
        Painter painter(content, sheets, d, {f.left, f.top, f.right, f.bottom}, number, page);
        if (page < sheets.count)
            painter.paint();
        else
            painter.paintNotes();
        out.push_back(std::move(d));
    }
    return out;
}

Drawing boardDiagramBare(const SheetInput& in, BoardId id, double width) {
    const Board& b = in.project.boards[id];
    Drawing d;
    d.title = b.name;
    d.width = width;
    d.height = 0;
    if (!hasDiagram(b)) return d;
    const Content content(in, b, boardNotes(in, b));
    const Sheets rows(content, width - 2 * inset, 0);
    for (std::size_t row = 0; row < rows.count; ++row)
        d.height = Painter(content, rows, d, {0, d.height, width, 0, false}, "", row).paint();
    return d;
}

} // namespace lintel
