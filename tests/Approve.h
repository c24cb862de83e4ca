#pragma once
// Texts that were looked at and approved: tests/approval/FOLDER holds them, a difference is told line by line, and
// `./dev approve` takes over what is meant.

#include "core/check/Check.h"
#include "core/project/Edit.h"
#include "tests/SourceTree.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

namespace lintel {

inline std::string contentOf(const std::filesystem::path& file) {
    std::ifstream in(file, std::ios::binary);
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

/// The first lines in which two texts differ.
inline std::string firstDifferences(const std::string& was, const std::string& is) {
    std::istringstream a(was), b(is);
    std::string x, y, out;
    int shown = 0;
    for (int line = 1; shown < 8; ++line) {
        const bool hasX = bool(std::getline(a, x)), hasY = bool(std::getline(b, y));
        if (!hasX && !hasY) break;
        if (hasX && hasY && x == y) continue;
        // A long line from a little before the place where it differs.
        const auto differs = std::size_t(std::mismatch(x.begin(), x.end(), y.begin(), y.end()).first - x.begin());
        const std::size_t from = differs > 60 ? differs - 60 : 0;
        const auto part = [&](bool has, const std::string& s) {
            return !has ? std::string("nothing") : from < s.size() ? s.substr(from, 160) : std::string();
        };
        out += fmt::format("{}: was {}\n{}: is  {}\n", line, part(hasX, x), line, part(hasY, y));
        ++shown;
    }
    return out;
}

inline void approve(const std::string& demo, const std::map<std::string, std::string>& texts) {
    const std::filesystem::path approved = sourceTree() / "tests" / "approval" / demo;
    const std::filesystem::path received = std::filesystem::temp_directory_path() / "lintel-received" / demo;
    const bool take = std::getenv("LINTEL_APPROVE") != nullptr;
    std::filesystem::remove_all(received);
    if (take) {
        std::filesystem::remove_all(approved);
        std::filesystem::create_directories(approved);
    }
    std::set<std::string> known;
    for (const auto& [name, text] : texts) {
        known.insert(name);
        if (take) std::ofstream(approved / name, std::ios::binary) << text;
        const std::string before = contentOf(approved / name);
        if (before == text) continue;
        std::filesystem::create_directories(received);
        std::ofstream(received / name, std::ios::binary) << text;
        FAIL_CHECK(
            demo << ", " << name << " differs from what was approved (the whole in " << received.string() << "):\n"
                 << firstDifferences(before, text) << "Look at it; if it is meant, `./dev approve` takes it over.");
    }
    for (const auto& entry : std::filesystem::directory_iterator(approved)) {
        INFO(entry.path().string() << " is approved and is not made any more");
        CHECK(known.count(entry.path().filename().string()) == 1);
    }
}

/// Each snag with what is cited, and each of its remedies with what it changes, field by field.
inline std::string remediesText(const CheckInput& in) {
    std::string out;
    for (const Snag& s : findSnags(in.project, in.book, in.results)) {
        out += fmt::format("{}: {} [{}]\n", wordOf(s.severity), s.text, s.cited);
        for (const Remedy& remedy : remediesFor(in, s)) {
            Project done = in.project;
            remedy.apply(done);
            out += fmt::format("    {}\n", remedy.label);
            const auto edit = nlohmann::ordered_json::parse(writeEdit(difference(in.project, done, "")));
            for (const auto& change : edit["changes"]) {
                const auto &before = change["before"], &after = change["after"];
                const auto& known = before.is_null() ? after : before;
                out += fmt::format("        {} {}{}:", change["in"].get<std::string>(), known.value("id", ""),
                                   before.is_null()  ? " made"
                                   : after.is_null() ? " removed"
                                                     : "");
                if (!after.is_null())
                    for (const auto& [field, value] : after.items())
                        if (!before.contains(field) || before[field] != value)
                            out += fmt::format(" {} {}", field, value.dump());
                if (!before.is_null() && !after.is_null())
                    for (const auto& [field, value] : before.items())
                        if (!after.contains(field)) out += fmt::format(" no {}", field);
                out += "\n";
            }
        }
    }
    return out;
}

} // namespace lintel
