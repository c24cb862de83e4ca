#include "core/review/ReviewLists.h"

#include "core/review/Review.h"

namespace lintel {

List remarkList(const SheetInput& in) {
    List list{"remarks",
              "Remarks",
              {{"No.", "", Align::Right},
               {"About"},
               {"Remark", "", Align::Left, 110},
               {"By"},
               {"Date"},
               {"Answer", "", Align::Left, 90},
               {"By"},
               {"State"}},
              {},
              {}};
    for (const Remark& r : in.project.remarks)
        list.add(r.about, {numberCell(r.id.value),
                           {aboutWords(in.project, r)},
                           {r.text},
                           {r.by},
                           {r.date},
                           {r.answer},
                           {r.answeredBy},
                           {r.closed ? "closed" : "open", {}, r.closed ? Ink::Ink : Ink::Check}});
    return list;
}

List tickList(const SheetInput& in) {
    List list{"ticks",
              "What was looked at",
              {{"Of"}, {"Figure"}, {"Value", "", Align::Left, 110}, {"State"}, {"By"}, {"Date"}},
              {},
              {}};
    const auto items = reviewItems({in.project, in.book, in.results});
    for (const ReviewItem& i : items) {
        if (i.state == TickState::NotYet) continue;
        const bool off = i.state == TickState::FellOff;
        list.add(i.about, {{i.thing},
                           {i.figure},
                           {i.value},
                           {off ? "changed, was " + i.was : "seen", {}, off ? Ink::Check : Ink::Ink},
                           {i.by},
                           {i.date}});
    }
    const ReviewCount n = reviewCount(items, in.project);
    if (!list.rows.empty())
        list.notes.push_back(std::to_string(n.ticked) + " of " + std::to_string(n.all) + " figures are ticked, " +
                             std::to_string(n.fellOff) + " have changed since.");
    return list;
}

} // namespace lintel
