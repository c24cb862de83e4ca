#include "core/report/ReportTables.h"

namespace lintel {

List assumptionTable(const ListScope& scope, const std::vector<Assumption>& assumptions) {
    List list{"assumptions",
              "Assumed, given, held and own values",
              {{"Mark"}, {"What"}, {"Where"}, {"It counts as"}, {"It would be"}, {"Why"}, {"Set by"}, {"Seen"}},
              {},
              {}};
    AssumptionKind before{};
    for (const Assumption& a : assumptions) {
        if (a.about && !scope.has(a.about)) continue;
        if (list.rows.empty() || a.kind != before) list.group(std::string(titleOf(a.kind)) + ": " + meaningOf(a.kind));
        before = a.kind;
        ListCell otherwise{a.otherwise};
        if (a.hides) otherwise.ink = Ink::Check;
        list.add(a.about, {{a.mark}, {a.what}, {a.where}, {a.entered}, otherwise, {a.why}, {a.setBy}, {seenWords(a)}});
    }
    return list;
}

List snagTable(const SheetInput& in, const ListScope& scope, const std::vector<Snag>& snags) {
    List list{"snags", "Stops, checks and notes", {{"About"}, {"What", "", Align::Left, 150}, {"Rule"}}, {}, {}};
    Severity before{};
    for (const Snag& s : snags) {
        if (s.about && !scope.has(s.about)) continue;
        if (list.rows.empty() || s.severity != before)
            list.group(s.severity == Severity::Stop    ? "Stops: nobody may build from this"
                       : s.severity == Severity::Check ? "Checks: to be decided"
                                                       : "Notes");
        before = s.severity;
        list.add(s.about, {{nameOf(in.project, s.about), {}, s.severity == Severity::Stop ? Ink::Stop : Ink::Ink},
                           {s.text},
                           {s.cited}});
    }
    return list;
}

} // namespace lintel
