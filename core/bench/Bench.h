#pragma once
// One-off sums without a project: a cable, a motor, a house. Each kind is one file: the fields it asks for, and a
// function from what was entered to an answer with its working. The window makes its form, the command line its help,
// from the fields.

#include "core/project/Operations.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Working.h"

#include <nlohmann/json.hpp>

#include <functional>
#include <optional>

namespace lintel {

/// One thing a kind asks for. Values are texts as a person types them; numbers in JSON are taken in the field's own
/// unit.
struct BenchField {
    enum class Type { Number, Length, Load, Choice, Flag, Text, Lines };
    std::string key{}, label{};
    Type type = Type::Number;
    std::string value{}; ///< the default
    std::string unit{};  ///< of a bare number
    double least = 0, most = 1e9;
    std::vector<std::string> choices{};
    /// Of a choice that may be another than those listed: what a typed text stands for, empty where it is none.
    std::function<std::string(const std::string&)> open{};
    std::string help{};
    bool seldom = false;             ///< shown with "more conditions"
    std::vector<std::string> only{}; ///< shown where the kind's first field has one of these values; empty: always
};

/// The choices of a field on one line, by commas, or by semicolons where one of them holds a comma.
std::string choicesOf(const BenchField& field);

/// One result: `text` for people, `value` for programs. Without a label it is for programs alone, without a key for
/// people.
struct BenchFigure {
    std::string key, label, text;
    nlohmann::ordered_json value;
};

/// What "make it a circuit" puts into an open project.
struct BenchCircuit {
    std::string name;
    Load load;
    int poles = 1;
    VoltageSystem system = VoltageSystem::Y208;
    std::optional<Metres> length;
    Run run;
};

struct BenchAnswer {
    std::vector<BenchFigure> figures;
    std::vector<std::string> columns; ///< of `rows`, where the answer is a list
    std::vector<std::vector<std::string>> rows;
    std::vector<std::string> cautions; ///< what a designer has to know beside the figures
    Working working;
    std::optional<BenchCircuit> circuit;

    void figure(std::string key, std::string label, std::string text, nlohmann::ordered_json value) {
        figures.push_back({std::move(key), std::move(label), std::move(text), std::move(value)});
    }
    nlohmann::ordered_json json() const;
    std::string text() const;
    /// The value of a figure; null where there is none of that key.
    nlohmann::ordered_json operator[](const std::string& key) const;
};

/// Which books a sum is for: those by terminals and raceways, those by cables, or all.
enum class BenchFor { Raceways, Cables, All };

struct BenchKind {
    const char* name;  ///< on the command line: "conductor"
    const char* title; ///< in the window: "Conductor and breaker"
    const char* about;
    std::vector<BenchField> (*fields)(const RuleBook&);
    BenchAnswer (*work)(const class BenchInputs&, const RuleBook&);
    BenchFor books = BenchFor::Raceways;
    bool suits(const RuleBook& book) const {
        return books == BenchFor::All || (books == BenchFor::Cables) == book.metric();
    }
};

/// All kinds, in the order of the window.
const std::vector<const BenchKind*>& benchKinds();
const BenchKind* benchKind(const std::string& name); ///< null: none of that name
/// That a sum does not go by a rule book.
Error unsuited(const BenchKind& kind, const RuleBook& book);
/// Works it out. Refuses unknown fields, values out of range and sums that have no answer, saying which and why.
Outcome<BenchAnswer> bench(const BenchKind& kind, const nlohmann::json& entered, const RuleBook& book);
/// Adds the circuit to a board of the project, in its first free place.
Outcome<CircuitId> makeCircuit(Project& project, BoardId board, const BenchCircuit& circuit);

} // namespace lintel
