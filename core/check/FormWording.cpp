// What a schedule form asks for and there is not prints as "?", or orders nothing: the designer has to know before it
// does.

#include "core/check/Check.h"
#include "core/figures/ScheduleForms.h"
#include "core/sheets/BoardHead.h"

#include <fmt/format.h>

namespace lintel {
namespace {

bool knownFigure(const std::string& key) { return key.empty() || Wording::from("{" + key + "}"); }

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const ScheduleForm& form : in.project.forms) {
        const auto say = [&](const std::string& text) {
            into.push_back({&self, Severity::Check, form.id, fmt::format("Schedule form {}: {}", form.name, text), ""});
        };
        for (const FormColumn& column : form.columns)
            if (const auto wording = Wording::from(column.wording); !wording)
                say(fmt::format("column “{}” is worded “{}”: {}", column.heading, column.wording,
                                wording.error().what));
        for (const std::string& key : {form.sortBy, form.groupBy})
            if (!knownFigure(key)) say(fmt::format("its rows go by “{}”, and there is no such figure", key));
        for (const FormFact& fact : form.head)
            if (!knownBoardFact(fact.fact))
                say(fmt::format("its title strip asks for “{}”, and there is no such fact", fact.fact));
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const FormId id = s.about.as<ScheduleForm>();
    const ScheduleForm* form = in.project.forms.find(id);
    if (!form) return {};
    std::vector<Remedy> all;
    const auto unread = [](const FormColumn& c) { return !Wording::from(c.wording); };
    if (form->columns.size() > 1 && std::any_of(form->columns.begin(), form->columns.end(), unread))
        all.push_back({"Remove the columns that cannot be read", [id, unread](Project& p) {
                           std::erase_if(p.forms.change(id)->columns, unread);
                           if (p.forms[id].columns.empty())
                               p.forms.change(id)->columns.push_back({"Serves", "{serves}", 0, {}});
                       }});
    if (!knownFigure(form->sortBy) || !knownFigure(form->groupBy))
        all.push_back({"Put its rows as their places are numbered", [id](Project& p) {
                           ScheduleForm& f = *p.forms.change(id);
                           if (!knownFigure(f.sortBy)) f.sortBy.clear(), f.backwards = false;
                           if (!knownFigure(f.groupBy)) f.groupBy.clear();
                       }});
    if (std::any_of(form->head.begin(), form->head.end(), [](const FormFact& f) { return !knownBoardFact(f.fact); }))
        all.push_back({"Leave the places of those facts free", [id](Project& p) {
                           for (FormFact& f : p.forms.change(id)->head)
                               if (!knownBoardFact(f.fact)) f = {};
                       }});
    return all;
}

} // namespace

extern const CheckRule formWordingRule;
const CheckRule formWordingRule{.id = "form-wording", .remedies = remedies, .find = find};

} // namespace lintel
