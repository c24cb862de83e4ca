// XLSX in: libzip opens the package, pugixml its parts. Values only: a formula gives the value that was saved with it.
#include "core/base/Counted.h"
#include "core/base/Parse.h"
#include "core/base/Utf8.h"
#include "core/formats/Grid.h"

#include <cstring>
#include <fmt/format.h>
#include <fstream>
#include <map>
#include <memory>
#include <pugixml.hpp>
#include <zip.h>

namespace lintel {
namespace {

constexpr std::size_t mostPartBytes = 400u << 20; ///< a part that unpacks to more is no list

struct Package {
    zip_t* zip = nullptr;
    std::string name;
    ~Package() {
        if (zip) zip_discard(zip);
    }
    std::optional<Error> parse(const std::string& bytes, pugi::xml_document& doc, const std::string& part) const {
        const auto result =
            doc.load_buffer(bytes.data(), bytes.size(), pugi::parse_default | pugi::parse_ws_pcdata_single);
        if (result) return {};
        return Error{name, fmt::format("{} is not well-formed: {}", part, result.description()),
                     "Save it again, or as CSV."};
    }
    /// A part's bytes; empty with no error where it is not there.
    Outcome<std::string> part(const std::string& path, const std::function<bool(double)>& progress = {}) const {
        zip_stat_t stat;
        zip_stat_init(&stat);
        if (zip_stat(zip, path.c_str(), 0, &stat) != 0) return std::string();
        const double size = stat.valid & ZIP_STAT_SIZE ? double(stat.size) : 1;
        std::unique_ptr<zip_file_t, int (*)(zip_file_t*)> f(zip_fopen(zip, path.c_str(), 0), &zip_fclose);
        if (!f)
            return Error{name, "it is damaged, or locked with a password: " + path + " cannot be opened",
                         "Save it again without a password, or as CSV."};
        std::string out, buffer(1 << 18, '\0');
        for (;;) {
            const zip_int64_t n = zip_fread(f.get(), buffer.data(), buffer.size());
            if (n < 0)
                return Error{name, "it is damaged: " + path + " cannot be unpacked", "Save it again, or as CSV."};
            if (n == 0) break;
            out.append(buffer.data(), std::size_t(n));
            if (out.size() > mostPartBytes)
                return Error{name, fmt::format("{} unpacks to more than {} MB", path, mostPartBytes >> 20),
                             "This is not a list."};
            if (progress && !progress(std::min(1.0, double(out.size()) / std::max(1.0, size))))
                return Error{name, readingStopped, ""};
        }
        return out;
    }
};

/// The texts of a string with all its parts, as written.
std::string textOf(const pugi::xml_node& n) {
    std::string s;
    for (const pugi::xml_node& c : n.children()) {
        if (std::strcmp(c.name(), "t") == 0)
            s += c.text().get();
        else if (std::strcmp(c.name(), "r") == 0)
            s += c.child("t").text().get();
    }
    return s;
}

/// "BC12" → row 11, column 54.
bool placeOf(const char* ref, std::size_t& row, std::size_t& column) {
    std::size_t c = 0, r = 0;
    while (*ref >= 'A' && *ref <= 'Z') {
        c = c * 26 + std::size_t(*ref++ - 'A' + 1);
        if (c > 20000) return false;
    }
    while (*ref >= '0' && *ref <= '9') {
        r = r * 10 + std::size_t(*ref++ - '0');
        if (r > 2'000'000) return false;
    }
    if (!c || !r) return false;
    row = r - 1, column = c - 1;
    return true;
}

} // namespace

namespace {

/// Names of the sheets and where they are, and the texts that cells share.
class Workbook {
public:
    explicit Workbook(Package& opened) : package(opened) {}
    std::vector<std::pair<std::string, std::string>> sheets; ///< name, part
    std::vector<std::string> strings;

    std::optional<Error> open() {
        auto workbook = package.part("xl/workbook.xml");
        if (!workbook) return workbook.error();
        if (workbook->empty())
            return Error{package.name, "this is a zip, but not an XLSX workbook", "Choose a CSV or XLSX file."};
        pugi::xml_document book, links;
        if (auto bad = package.parse(*workbook, book, "its workbook")) return bad;
        auto rels = package.part("xl/_rels/workbook.xml.rels");
        if (!rels) return rels.error();
        if (auto bad = package.parse(*rels, links, "its list of parts")) return bad;
        std::map<std::string, std::string> targets;
        for (const auto& r : links.child("Relationships").children("Relationship")) {
            const std::string to = r.attribute("Target").value();
            targets[r.attribute("Id").value()] = to.rfind("/", 0) == 0 ? to.substr(1) : "xl/" + to;
        }
        for (const auto& s : book.child("workbook").child("sheets").children("sheet"))
            sheets.push_back({repairedUtf8(s.attribute("name").value()), targets[s.attribute("r:id").value()]});
        if (auto bad = readStrings()) return bad;
        if (sheets.empty()) return Error{package.name, "it has no sheets", ""};
        return {};
    }

private:
    Package& package;

    std::optional<Error> readStrings() {
        auto shared = package.part("xl/sharedStrings.xml");
        if (!shared) return shared.error();
        if (shared->empty()) return {};
        pugi::xml_document doc;
        if (auto bad = package.parse(*shared, doc, "its table of texts")) return bad;
        for (const auto& si : doc.child("sst").children("si")) strings.push_back(textOf(si));
        return {};
    }
};

/// Reads one sheet into the rows of a grid.
class SheetReader {
public:
    SheetReader(std::string called, const std::vector<std::string>& shared, Grid& into)
        : where(std::move(called)), strings(shared), grid(into) {}

    std::optional<Error> read(const pugi::xml_node& worksheet) {
        grid.rows.clear();
        grid.numbers.clear();
        grid.lines.clear();
        std::size_t next = 0;
        for (const auto& node : worksheet.child("sheetData").children("row")) {
            const std::size_t at =
                node.attribute("r") ? std::size_t(std::max(1, node.attribute("r").as_int()) - 1) : next;
            if (at >= 2'000'000 || grid.rows.size() >= mostListRows)
                return Error{where, fmt::format("it has more than {} rows", mostListRows), "Split the list."};
            next = at + 1;
            if (auto bad = readRow(node, at)) return bad;
        }
        for (const auto& m : worksheet.child("mergeCells").children("mergeCell")) merge(m.attribute("ref").value());
        tell();
        return {};
    }

private:
    const std::string where;
    const std::vector<std::string>& strings;
    Grid& grid;
    int formulas = 0, errors = 0, empties = 0, notUtf8 = 0, merged = 0;

    std::optional<Error> readRow(const pugi::xml_node& node, std::size_t at) {
        std::vector<std::string> cells;
        std::vector<bool> numeric;
        std::size_t next = 0;
        for (const auto& c : node.children("c")) {
            std::size_t r = at, column = next;
            if (c.attribute("r") && !placeOf(c.attribute("r").value(), r, column))
                return Error{where, fmt::format("there is no cell “{}”", c.attribute("r").value()),
                             "Save it again, or as CSV."};
            if (column >= mostListColumns) break;
            next = column + 1;
            bool number = false;
            std::string text = textIn(c, number);
            if (text.size() > mostCellBytes)
                return Error{fmt::format("{} {}", where, c.attribute("r").value()),
                             "the cell holds more than a spreadsheet can", "This is not a list."};
            if (text.empty()) continue;
            cells.resize(std::max(cells.size(), column + 1));
            if (!isUtf8(text)) {
                text = repairedUtf8(text);
                ++notUtf8;
            }
            if (number) {
                numeric.resize(std::max(numeric.size(), column + 1));
                numeric[column] = true;
            }
            cells[column] = std::move(text);
        }
        fillUpTo(at);
        grid.rows.push_back(std::move(cells));
        grid.numbers.push_back(std::move(numeric));
        grid.lines.push_back(int(at) + 1);
        return {};
    }
    /// What a cell says; `number`: it holds one.
    std::string textIn(const pugi::xml_node& c, bool& number) {
        const std::string type = c.attribute("t").value();
        const std::string value = c.child("v").text().get();
        if (c.child("f")) {
            ++formulas;
            empties += value.empty();
        }
        if (type == "s") {
            const double i = plainNumber(value).value_or(-1);
            return i >= 0 && i < double(strings.size()) ? strings[std::size_t(i)] : std::string();
        }
        if (type == "inlineStr") return textOf(c.child("is"));
        if (type == "b") return value == "1" ? "yes" : "no";
        errors += type == "e";
        if (!type.empty() && type != "n") return value;
        const auto v = plainNumber(value); // 7.4999999999999997E-1 is what 0.75 was saved as
        number = v.has_value();
        return v ? fmt::format("{:.12g}", *v) : value;
    }
    /// Empty rows between, as they stand.
    void fillUpTo(std::size_t at) {
        while (!grid.rows.empty() && grid.lines.back() < int(at) && grid.rows.size() < mostListRows &&
               int(at) - grid.lines.back() < 200) {
            grid.rows.push_back({});
            grid.numbers.push_back({});
            grid.lines.push_back(grid.lines.back() + 1);
        }
    }
    std::vector<std::string>* rowAt(std::size_t r) {
        const auto it = std::lower_bound(grid.lines.begin(), grid.lines.end(), int(r) + 1);
        return it != grid.lines.end() && *it == int(r) + 1 ? &grid.rows[std::size_t(it - grid.lines.begin())] : nullptr;
    }
    /// Down a column the text stands for each row; across, for the first column alone.
    void merge(const std::string& ref) {
        const auto colon = ref.find(':');
        std::size_t r0 = 0, c0 = 0, r1 = 0, c1 = 0;
        if (colon == std::string::npos || !placeOf(ref.c_str(), r0, c0) || !placeOf(ref.c_str() + colon + 1, r1, c1) ||
            c1 >= mostListColumns)
            return;
        ++merged;
        const auto* first = rowAt(r0);
        if (!first || first->size() <= c0 || r0 == r1) return;
        const std::string text = (*first)[c0];
        const bool numeric = grid.isNumber(std::size_t(first - grid.rows.data()), c0);
        for (std::size_t r = r0; r <= r1 && r < r0 + mostListRows; ++r) {
            auto* row = rowAt(r);
            if (!row) continue;
            const auto index = std::size_t(row - grid.rows.data());
            row->resize(std::max(row->size(), c0 + 1));
            grid.put(index, c0, text);
            if (!numeric) continue;
            auto& flags = grid.numbers[index];
            flags.resize(std::max(flags.size(), c0 + 1));
            flags[c0] = true;
        }
    }
    void tell() {
        grid.notes.clear();
        if (formulas)
            grid.notes.push_back(counted(formulas, "formula: the value saved with it is taken",
                                         "formulas: the values saved with them are taken") +
                                 (empties ? ", " + counted(empties, "has none", "have none") : ""));
        if (merged)
            grid.notes.push_back(counted(merged, "merged cell") +
                                 ": the text of one that goes down stands in each of its rows");
        if (notUtf8)
            grid.notes.push_back(counted(notUtf8, "cell holds", "cells hold") +
                                 " signs that are not UTF-8: they stand as \uFFFD");
        if (errors) grid.notes.push_back(counted(errors, "cell holds", "cells hold") + " an error of the spreadsheet");
    }
};

} // namespace

Outcome<Grid> readXlsx(const std::filesystem::path& path, const GridOptions& options) {
    Package package;
    package.name = path.filename().string();
    int code = 0;
    package.zip = zip_open(path.c_str(), ZIP_RDONLY, &code);
    if (!package.zip) {
        zip_error_t e;
        zip_error_init_with_code(&e, code);
        const Error error{package.name, std::string("it cannot be opened: ") + zip_error_strerror(&e),
                          "Save it again, or as CSV."};
        zip_error_fini(&e);
        return error;
    }
    Workbook book(package);
    if (auto bad = book.open()) return *bad;
    Grid grid;
    for (const auto& [name, part] : book.sheets) grid.sheets.push_back(name);
    if (!options.sheet.empty() && std::find(grid.sheets.begin(), grid.sheets.end(), options.sheet) == grid.sheets.end())
        return Error{package.name, "there is no sheet “" + options.sheet + "”",
                     "It has: " + fmt::format("{}", fmt::join(grid.sheets, ", ")) + "."};
    for (const auto& [name, part] : book.sheets) {
        if (!options.sheet.empty() && name != options.sheet) continue;
        auto bytes = package.part(part, options.progress);
        if (!bytes) return bytes.error();
        pugi::xml_document doc;
        if (auto bad = package.parse(*bytes, doc, "sheet " + name)) return *bad;
        SheetReader sheet(package.name + ", " + name, book.strings, grid);
        if (auto bad = sheet.read(doc.child("worksheet"))) return *bad;
        grid.sheet = name;
        if (!grid.rows.empty()) break; // the first that is not empty
    }
    if (grid.rows.empty()) return Error{package.name, "its sheets are empty", "Choose the file that holds the list."};
    return grid;
}

Outcome<Grid> readGrid(const std::filesystem::path& file, const GridOptions& options) {
    std::ifstream in(file, std::ios::binary);
    char head[8] = {};
    in.read(head, 8);
    if (std::memcmp(head, "PK\x03\x04", 4) == 0) return readXlsx(file, options);
    if (std::memcmp(head, "\xD0\xCF\x11\xE0", 4) == 0)
        return Error{file.filename().string(),
                     "this is a workbook of the old binary kind, or one locked with a password",
                     "Save it as XLSX without a password, or as CSV."};
    return readCsv(file, options);
}

} // namespace lintel
