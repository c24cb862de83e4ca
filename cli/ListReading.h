#pragma once
// How a list on the command line is said to be read, the same for loads and feeders.

#include "cli/Commands.h"
#include "core/base/EnumText.h"
#include "core/base/Parse.h"
#include "core/formats/Grid.h"
#include "core/project/TypedLoads.h"

#include <algorithm>

namespace lintel {

/// The table of a list, by the options of the order.
inline Outcome<Grid> gridOf(const LoadsOrder& order) {
    GridOptions options;
    if (!order.delimiter.empty()) options.delimiter = order.delimiter == "tab" ? '\t' : order.delimiter[0];
    options.encoding = order.encoding;
    options.sheet = order.sheet;
    return readGrid(order.list, options);
}

/// "tag,name,-,load": by column; words of fields, or - for one to pass over.
template <class Field> std::optional<Error> readColumns(const std::string& text, std::vector<Field>& columns) {
    columns.clear();
    std::string word;
    for (char c : text + ",") {
        if (c != ',') {
            word += c;
            continue;
        }
        const std::string w = trimmed(word);
        word.clear();
        bool known = w == "-" || w.empty();
        Field field = Field::None;
        for (const auto& [f, name] : EnumText<Field>::words)
            if (sameWord(w, name)) {
                field = f;
                known = true;
            }
        if (!known) {
            std::string all;
            for (const auto& [f, name] : EnumText<Field>::words)
                if (f != Field::None) all += (all.empty() ? "" : ", ") + lowered(name);
            return Error{"--columns", "a column cannot mean “" + w + "”",
                         "It can mean: " + all + ", or - for nothing."};
        }
        columns.push_back(field);
    }
    return {};
}

/// Columns, row of headings, decimal sign and unit, where the order says them.
template <class Settings>
std::optional<Error> readSettings(const LoadsOrder& order, const Grid& grid, Settings& settings) {
    if (!order.columns.empty())
        if (auto bad = readColumns(order.columns, settings.columns)) return bad;
    if (!order.header.empty())
        settings.headerRow =
            order.header == "none" ? -1 : int(std::clamp(plainNumber(order.header).value_or(0), 0.0, 1e6)) - 1;
    if (settings.headerRow >= int(grid.rows.size()))
        return Error{"--header", "the list has no row " + order.header, ""};
    if (!order.decimal.empty()) settings.decimal = order.decimal == "comma" || order.decimal == "," ? ',' : '.';
    if (order.unit.empty()) return {};
    const auto unit = loadUnitFrom(order.unit);
    if (!unit) return Error{"--unit", "there is no unit “" + order.unit + "”", "VA, kVA, W, kW, A, hp"};
    settings.unit = *unit;
    return {};
}

} // namespace lintel
