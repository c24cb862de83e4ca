// CSV in and out: libcsv takes the lines apart, iconv the encodings; finding out which ones is ours.
#include "core/base/Counted.h"
#include "core/base/Parse.h"
#include "core/base/PlainNumbers.h"
#include "core/base/Utf8.h"
#include "core/formats/Grid.h"
#include "core/project/ProjectFile.h"

#include <cerrno>
#include <cstring>
#include <csv.h>
#include <fmt/format.h>
#include <fstream>
#include <iconv.h>
#include <map>
#include <set>
#include <tuple>
#include <xlsxwriter.h>

namespace lintel {
namespace {

constexpr std::size_t chunk = 1 << 18;

/// Bytes of an encoding to UTF-8, a piece at a time; what cannot be read becomes the replacement sign and is counted.
class Decoder {
public:
    explicit Decoder(const std::string& encoding) : plain(encoding == "UTF-8") {
        if (!plain) converter = iconv_open("UTF-8", encoding.c_str());
    }
    ~Decoder() {
        if (!plain && converter != iconv_t(-1)) iconv_close(converter);
    }
    Decoder(const Decoder&) = delete;
    bool works() const { return plain || converter != iconv_t(-1); }
    std::string feed(std::string_view bytes, bool last) {
        if (plain) return std::string(bytes);
        rest += bytes;
        std::string out;
        char* from = rest.data();
        std::size_t left = rest.size();
        char buffer[8192];
        while (left > 0) {
            char* to = buffer;
            std::size_t room = sizeof buffer;
            const std::size_t done = iconv(converter, &from, &left, &to, &room);
            out.append(buffer, std::size_t(to - buffer));
            if (done != std::size_t(-1)) break;
            if (errno == E2BIG) continue;
            if (errno == EINVAL && !last) break; // the rest of a sign comes with the next piece
            out += "\uFFFD";
            ++lost;
            ++from, --left;
        }
        rest.erase(0, rest.size() - left);
        return out;
    }
    int lost = 0;

private:
    bool plain;
    iconv_t converter = iconv_t(-1);
    std::string rest;
};

struct Start {
    std::string encoding;
    std::size_t skip = 0;
};
Start encodingOf(std::string_view s, bool whole) {
    if (s.substr(0, 3) == "\xEF\xBB\xBF") return {"UTF-8", 3};
    if (s.substr(0, 2) == "\xFF\xFE") return {"UTF-16LE", 2};
    if (s.substr(0, 2) == "\xFE\xFF") return {"UTF-16BE", 2};
    // Text of the west in two bytes a sign has a zero in every other one.
    std::size_t even = 0, odd = 0;
    for (std::size_t i = 0; i < std::min<std::size_t>(s.size(), 4000); ++i) (i % 2 ? odd : even) += s[i] == 0;
    const std::size_t n = std::min<std::size_t>(s.size(), 4000) / 2;
    if (n > 2 && odd > n * 6 / 10 && even < n / 10) return {"UTF-16LE", 0};
    if (n > 2 && even > n * 6 / 10 && odd < n / 10) return {"UTF-16BE", 0};
    return {isUtf8(s, !whole) ? "UTF-8" : "Windows-1252", 0};
}

/// The sign that parts the most lines into the same number of cells, quotes aside.
char delimiterOf(const std::string& s) {
    char best = ',';
    double most = 0;
    for (char d : {',', ';', '\t', '|'}) {
        std::map<int, int> counts;
        int here = 0, lines = 0;
        bool quoted = false;
        for (char c : s) {
            if (c == '"')
                quoted = !quoted;
            else if (quoted)
                continue;
            else if (c == d)
                ++here;
            else if (c == '\n') {
                if (here) ++counts[here];
                ++lines, here = 0;
            }
        }
        if (here) ++counts[here], ++lines;
        double score = 0;
        for (const auto& [cells, n] : counts) score = std::max(score, n * (1 + 0.05 * std::min(cells, 20)));
        if (score > most) most = score, best = d;
    }
    return best;
}

struct Taker {
    Grid grid{};
    std::vector<std::string> row{};
    std::optional<Error> error{};
    int line = 1;
    std::string file{};

    static void cell(void* data, std::size_t n, void* self) {
        auto& t = *static_cast<Taker*>(self);
        if (t.error) return;
        if (n > mostCellBytes)
            return void(t.error = Error{fmt::format("{}, row {}", t.file, t.grid.rows.size() + 1),
                                        fmt::format("a cell has more than {} signs", mostCellBytes),
                                        "Is a quotation mark left open? Or is it no list at all?"});
        if (t.row.size() >= mostListColumns)
            return void(t.error = Error{fmt::format("{}, row {}", t.file, t.grid.rows.size() + 1),
                                        fmt::format("it has more than {} columns", mostListColumns),
                                        "Choose the right delimiter."});
        t.row.emplace_back(static_cast<const char*>(data), n);
        for (char& c : t.row.back())
            if (c == '\0') c = ' ';
    }
    static void end(int, void* self) {
        auto& t = *static_cast<Taker*>(self);
        if (t.error) return;
        if (t.grid.rows.size() >= mostListRows)
            return void(t.error =
                            Error{t.file, fmt::format("it has more than {} rows", mostListRows), "Split the list."});
        t.grid.rows.push_back(std::move(t.row));
        t.grid.lines.push_back(int(t.grid.rows.size()));
        t.row.clear();
    }
};

/// A name that a sheet of a workbook may have.
std::string sheetName(const std::string& title) {
    std::string name;
    for (char c : printable(title))
        name += std::string_view("[]:*?/\\'\n\r\t").find(c) == std::string_view::npos ? c : ' ';
    name = trimmed(cutUtf8(name, 31));
    return name.empty() ? "List" : name;
}

/// Names that differ for sheets whose titles do not, once they are cut to what a workbook takes.
class SheetNames {
public:
    std::string next(const std::string& title) {
        std::string name = sheetName(title);
        for (int n = 2; !taken.insert(lowered(name)).second; ++n) {
            const std::string mark = " " + std::to_string(n);
            name = std::string(cutUtf8(sheetName(title), 31 - mark.size())) + mark;
        }
        return name;
    }

private:
    std::set<std::string> taken;
};

/// Formats of a workbook, made when they are first needed.
class Formats {
public:
    explicit Formats(lxw_workbook* of) : book(of) {}
    lxw_format* of(bool heading, bool strong, int decimals) {
        if (!heading && !strong && decimals < 0) return nullptr;
        lxw_format*& format = made[{heading, strong, decimals}];
        if (format) return format;
        format = workbook_add_format(book);
        if (heading || strong) format_set_bold(format);
        if (heading) {
            format_set_bottom(format, LXW_BORDER_THIN);
            format_set_text_wrap(format);
            format_set_align(format, LXW_ALIGN_VERTICAL_BOTTOM);
        }
        if (decimals >= 0)
            format_set_num_format(format, decimals == 0 ? "#,##0"
                                                        : ("#,##0." + std::string(std::size_t(decimals), '0')).c_str());
        return format;
    }

private:
    lxw_workbook* book;
    std::map<std::tuple<bool, bool, int>, lxw_format*> made;
};

/// "A", "AB": how a spreadsheet calls a column.
std::string columnName(std::size_t column) {
    std::string name;
    for (std::size_t n = column + 1; n > 0; n = (n - 1) / 26) name.insert(name.begin(), char('A' + (n - 1) % 26));
    return name;
}

std::string sumFormula(const GridCell& cell, std::size_t column) {
    std::string ranges;
    const std::string name = columnName(column);
    for (const auto& [from, to] : cell.sumOf)
        ranges += fmt::format("{}{}{}:{}{}", ranges.empty() ? "" : ",", name, from + 1, name, to + 1);
    return "=SUM(" + ranges + ")";
}

void fillSheet(lxw_worksheet* sheet, Formats& formats, const NamedGrid& grid) {
    constexpr std::size_t leastWidth = 6, mostWidth = 48;
    std::vector<std::size_t> widths;
    for (std::size_t r = 0; r < grid.rows.size(); ++r)
        for (std::size_t c = 0; c < grid.rows[r].size(); ++c) {
            const GridCell& cell = grid.rows[r][c];
            const std::string s(cutUtf8(printable(cell.text), mostCellBytes));
            if (widths.size() <= c) widths.resize(c + 1, leastWidth);
            const std::size_t wide = r == 0 ? s.size() / 2 : s.size(); // headings go on in a second line
            widths[c] = std::max(widths[c], std::min(mostWidth, wide + 2));
            lxw_format* format = formats.of(r == 0, cell.strong, cell.number ? cell.decimals : -1);
            const auto row = lxw_row_t(r);
            const auto column = lxw_col_t(c);
            if (cell.number && !cell.sumOf.empty())
                worksheet_write_formula_num(sheet, row, column, sumFormula(cell, c).c_str(), format, *cell.number);
            else if (cell.number)
                worksheet_write_number(sheet, row, column, *cell.number, format);
            else if (!s.empty())
                worksheet_write_string(sheet, row, column, s.c_str(), format);
        }
    for (std::size_t c = 0; c < widths.size(); ++c)
        if (!grid.hidden.empty() && c < grid.rows[0].size() && grid.rows[0][c].text == grid.hidden) {
            lxw_row_col_options hidden{};
            hidden.hidden = LXW_TRUE;
            worksheet_set_column_opt(sheet, lxw_col_t(c), lxw_col_t(c), double(widths[c]), nullptr, &hidden);
        } else {
            worksheet_set_column(sheet, lxw_col_t(c), lxw_col_t(c), double(widths[c]), nullptr);
        }
    worksheet_freeze_panes(sheet, 1, 0);
    worksheet_repeat_rows(sheet, 0, 0);
    worksheet_set_landscape(sheet);
    worksheet_fit_to_pages(sheet, 1, 0); // as wide as a page, as long as it needs
    if (grid.rows.size() > 1 && !widths.empty())
        worksheet_print_area(sheet, 0, 0, lxw_row_t(grid.rows.size() - 1), lxw_col_t(widths.size() - 1));
    // "&" begins a code there; a header takes 255 letters.
    const auto plain = [](const std::string& text) {
        std::string out;
        for (char c : cutUtf8(printable(text), 80)) out += c == '&' ? "&&" : std::string(1, c);
        return out;
    };
    worksheet_set_header(sheet, ("&L" + plain(grid.job) + "&R" + plain(grid.title)).c_str());
    worksheet_set_footer(sheet, "&RPage &P of &N");
}

/// A table of texts as cells: what is written as a number is one.
NamedGrid cellsOf(const std::string& title, const std::vector<std::vector<std::string>>& rows) {
    NamedGrid grid;
    grid.title = title;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        std::vector<GridCell> cells;
        for (const std::string& s : rows[r]) {
            GridCell cell{s};
            const auto v = r ? plainNumber(s) : std::nullopt;
            if (v && s.find_first_not_of("0123456789.-") == std::string::npos &&
                (s.size() < 2 || s[0] != '0' || s[1] == '.'))
                cell.number = v;
            cells.push_back(std::move(cell));
        }
        grid.rows.push_back(std::move(cells));
    }
    return grid;
}

std::optional<Error> writeWorkbook(const std::vector<NamedGrid>& grids, const std::filesystem::path& file) {
    const PlainNumbers plain; // the library writes numbers by the locale, and a workbook must not
    const auto cannot = [&](const std::string& why) {
        return Error{textOfPath(file), "the file cannot be written" + why,
                     "Choose another folder, or make room on the disk."};
    };
    lxw_workbook_options options{};
    lxw_workbook* book = workbook_new_opt(file.c_str(), &options);
    if (!book) return cannot("");
    Formats formats(book);
    SheetNames names;
    for (const NamedGrid& g : grids)
        if (lxw_worksheet* sheet = workbook_add_worksheet(book, names.next(g.title).c_str()))
            fillSheet(sheet, formats, g);
        else
            return cannot("");
    if (const lxw_error bad = workbook_close(book)) return cannot(std::string(": ") + lxw_strerror(bad));
    return std::nullopt;
}

} // namespace

std::size_t Grid::columns() const {
    std::size_t n = 0;
    for (const auto& r : rows) n = std::max(n, r.size());
    return n;
}

void Grid::put(std::size_t row, std::size_t column, std::string text) {
    auto& cells = rows[row];
    if (cells.size() <= column) cells.resize(column + 1);
    cells[column] = std::move(text);
    if (isNumber(row, column)) numbers[row][column] = false;
}

bool looksLikeFormula(const std::string& text) {
    const std::string t = trimmed(text);
    return !t.empty() && std::string_view("=+-@").find(t[0]) != std::string_view::npos && !numberFrom(t);
}

namespace {
/// Whether a text needs `textSign` before it to come back as it is: also one that has such a sign of its own.
bool needsSign(const std::string& text) {
    const auto from = text.find_first_not_of(textSign);
    return from != std::string::npos && looksLikeFormula(text.substr(from));
}
} // namespace

Outcome<Grid> readCsv(const std::filesystem::path& path, const GridOptions& options) {
    const std::string name = path.filename().string();
    std::error_code ec;
    if (std::filesystem::is_directory(path, ec)) return Error{name, "this is a folder, not a file", ""};
    std::ifstream in(path, std::ios::binary);
    if (!in) return Error{name, std::string("the file cannot be opened: ") + std::strerror(errno), ""};
    const double size = double(std::max<std::uintmax_t>(1, std::filesystem::file_size(path, ec)));
    std::string first(chunk, '\0');
    in.read(first.data(), std::streamsize(first.size()));
    first.resize(std::size_t(in.gcount()));
    if (first.empty()) return Error{name, "the file is empty", "Choose the file that holds the list."};
    Start start = encodingOf(first, in.eof());
    if (!options.encoding.empty()) start.encoding = options.encoding; // a mark at the front is passed over all the same
    const auto decode = [&](const std::string& encoding) -> Outcome<Grid> {
        in.clear();
        in.seekg(std::streamoff(start.skip));
        Decoder decoder(encoding);
        if (!decoder.works())
            return Error{name, "there is no encoding “" + encoding + "”",
                         "UTF-8, Windows-1252, ISO-8859-15, UTF-16LE …"};
        Taker t;
        t.file = name;
        csv_parser parser;
        if (csv_init(&parser, CSV_APPEND_NULL) != 0) return Error{name, "there is not enough memory to read it", ""};
        struct Free {
            csv_parser* p;
            ~Free() { csv_free(p); }
        } freeing{&parser};
        std::string buffer(chunk, '\0');
        bool begun = false;
        std::size_t sinceLine = 0;
        double read = 0;
        for (bool last = false; !last && !t.error;) {
            in.read(buffer.data(), std::streamsize(buffer.size()));
            const std::size_t got = std::size_t(in.gcount());
            last = got < buffer.size();
            read += double(got);
            const std::string text = decoder.feed(std::string_view(buffer).substr(0, got), last);
            if (!begun) {
                t.grid.delimiter = options.delimiter ? options.delimiter : delimiterOf(text.substr(0, 65536));
                csv_set_delim(&parser, static_cast<unsigned char>(t.grid.delimiter));
                begun = true;
            }
            for (std::size_t at = 0;
                 at < text.size();) { // a line without end is no list, and is not to fill the memory
                const auto brk = text.find('\n', at);
                sinceLine += (brk == std::string::npos ? text.size() : brk) - at;
                if (sinceLine > mostLineBytes)
                    return Error{fmt::format("{}, line {}", name, t.grid.rows.size() + 1),
                                 "the line is longer than 1 MB",
                                 "This is not a list, or its lines do not end; save it as CSV or XLSX again."};
                if (brk == std::string::npos) break;
                sinceLine = 0, at = brk + 1;
            }
            if (csv_parse(&parser, text.data(), text.size(), Taker::cell, Taker::end, &t) != text.size() && !t.error)
                return Error{name, std::string("it cannot be read: ") + csv_strerror(csv_error(&parser)), ""};
            if (options.progress && !options.progress(std::min(1.0, read / size)))
                return Error{name, readingStopped, ""};
        }
        csv_fini(&parser, Taker::cell, Taker::end, &t);
        if (t.error) return *t.error;
        t.grid.encoding = encoding;
        if (decoder.lost)
            t.grid.notes.push_back(
                fmt::format("{} signs cannot be read as {}: choose another encoding", decoder.lost, encoding));
        return t.grid;
    };
    auto grid = decode(start.encoding);
    if (grid && start.encoding == "UTF-8" &&
        options.encoding.empty()) // what seemed to be UTF-8 at the front may turn out not to be
        for (const auto& row : grid->rows)
            for (const auto& cell : row)
                if (!isUtf8(cell)) return decode("Windows-1252");
    if (grid && !options.encoding.empty() && start.encoding == "UTF-8") {
        int bad = 0;
        for (auto& row : grid->rows)
            for (auto& cell : row)
                if (!isUtf8(cell)) {
                    ++bad;
                    for (char& c : cell)
                        if (static_cast<unsigned char>(c) >= 0x80) c = '?';
                }
        if (bad)
            grid->notes.push_back(counted(bad, "cell is not UTF-8: choose another encoding",
                                          "cells are not UTF-8: choose another encoding"));
    }
    if (grid)
        for (auto& row : grid->rows)
            for (auto& cell : row)
                if (!cell.empty() && cell[0] == textSign && needsSign(cell.substr(1))) cell.erase(0, 1);
    return grid;
}

std::optional<Error> writeGrid(const std::vector<std::vector<std::string>>& rows, const std::filesystem::path& file,
                               const std::string& title, char delimiter, const std::string& hidden) {
    if (lowered(file.extension().string()) != ".xlsx") {
        std::string out;
        const std::string quoted = std::string("\"\n\r") + delimiter;
        for (const auto& row : rows) {
            for (std::size_t i = 0; i < row.size(); ++i) {
                if (i) out += delimiter;
                const std::string text =
                    (needsSign(row[i]) ? std::string(1, textSign) : std::string()) + printable(row[i]);
                if (text.find_first_of(quoted) == std::string::npos &&
                    (text.empty() || (text.front() != ' ' && text.back() != ' '))) {
                    out += text;
                    continue;
                }
                std::string cell(csv_write(nullptr, 0, text.data(), text.size()), '\0');
                csv_write(cell.data(), cell.size(), text.data(), text.size());
                out += cell;
            }
            out += "\r\n"; // RFC 4180
        }
        return writeTextAtomically("\xEF\xBB\xBF" + out, file); // with the mark, so that spreadsheets take it for UTF-8
    }
    NamedGrid grid = cellsOf(title, rows);
    grid.hidden = hidden;
    return replaceFile(file, [&](const std::filesystem::path& temp) { return writeWorkbook({grid}, temp); });
}

std::optional<Error> writeGrids(const std::vector<NamedGrid>& grids, const std::filesystem::path& file) {
    return replaceFile(file, [&](const std::filesystem::path& temp) { return writeWorkbook(grids, temp); });
}

} // namespace lintel
