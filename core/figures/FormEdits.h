#pragma once
// Changes to schedule forms of a project. A form that ships is copied into the project before it is changed.

#include "core/figures/ScheduleForms.h"

namespace lintel {

/// Boards with circuits that are drawn by the same form as this one, itself among them.
std::vector<BoardId> boardsOfForm(const Project& project, const RuleBook& book, BoardId board);

/// The form of a board as a thing of the project that may be changed: for all boards that are drawn by it, or, where
/// `only`, a copy for this board alone.
FormId formToChange(Project& project, const RuleBook& book, BoardId board, bool only);
/// Draws the board by a form of `formsFor`, by its name; or all boards of its kind. An Error where there is no such
/// form.
std::optional<Error> chooseForm(Project& project, const RuleBook& book, BoardId board, const std::string& name,
                                bool all);
/// A name that no other form has.
std::string freeFormName(const Project& project, const RuleBook& book, const std::string& like);

/// Takes all forms of a file (a project that holds forms): schedule forms by name and list forms by their list; new
/// ones are added, others take over what it says. What is usual there becomes usual here. Gives how many.
int takeForms(Project& project, const Project& file);
/// A project that holds the forms of schedules and lists and nothing else: the company's file.
Project formsFile(const Project& project, const RuleBook& book);

/// What a person types for one property of a column; an Error says what may be typed, and nothing changes.
std::optional<Error> setColumnWording(FormColumn& column, const std::string& text);
/// "1.02 in", "26 mm", "auto" or nothing: what the others leave. A bare number in inches or millimetres, as the
/// project.
std::optional<Error> setColumnWidth(FormColumn& column, const std::string& text, UnitSystem units);
std::string columnWidthText(const FormColumn& column, UnitSystem units);
/// A new column that shows one figure, beside column `at`.
void addColumn(ScheduleForm& form, std::size_t at, const CircuitFigure& figure);
/// The same of the designer's own texts under a heading.
void addOwnColumn(ScheduleForm& form, std::size_t at, const std::string& heading);

} // namespace lintel
