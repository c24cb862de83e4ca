// A wording of a schedule form that cannot be read prints as "?" on every row: the designer has to know before it does.

#include "core/check/Check.h"
#include "core/figures/ScheduleForms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const ScheduleForm& form : in.project.forms)
        for (const FormColumn& column : form.columns) {
            const auto wording = Wording::from(column.wording);
            if (wording) continue;
            into.push_back({&self, Severity::Check, form.id,
                            fmt::format("Schedule form {}: column “{}” is worded “{}”: {}", form.name, column.heading,
                                        column.wording, wording.error().what),
                            ""});
        }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const FormId id = s.about.as<ScheduleForm>();
    if (!in.project.forms.find(id) || in.project.forms[id].columns.size() < 2) return {};
    return {{"Remove the columns that cannot be read", [id](Project& p) {
                 std::erase_if(p.forms.change(id)->columns,
                               [](const FormColumn& c) { return !Wording::from(c.wording); });
                 if (p.forms[id].columns.empty()) p.forms.change(id)->columns.push_back({"Serves", "{serves}", 0, {}});
             }}};
}

} // namespace

extern const CheckRule formWordingRule;
const CheckRule formWordingRule{.id = "form-wording", .remedies = remedies, .find = find};

} // namespace lintel
