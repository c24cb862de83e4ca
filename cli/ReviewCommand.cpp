// lintel-cli review: how far a check has come, what has changed since it was ticked, and the remarks.

#include "cli/Commands.h"
#include "core/review/Review.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

const char* wordOfState(TickState s) {
    return s == TickState::Ticked ? "ticked" : s == TickState::FellOff ? "fell off" : "not yet";
}

} // namespace

int runReview(const ReviewCommand& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const Project& p = (*s)->project;
    const auto items = reviewItems((*s)->input());
    const ReviewCount n = reviewCount(items, p);
    if (o.json) {
        nlohmann::ordered_json figures = nlohmann::ordered_json::array(), remarks = nlohmann::ordered_json::array();
        for (const ReviewItem& i : items) {
            nlohmann::ordered_json one{{"of", i.thing},
                                       {"figure", i.figure},
                                       {"value", i.value},
                                       {"nearness", i.nearness},
                                       {"state", wordOfState(i.state)}};
            if (i.about) one["id"] = i.about.text();
            if (!i.by.empty()) one["by"] = i.by;
            if (!i.date.empty()) one["date"] = i.date;
            if (!i.was.empty()) one["was"] = i.was;
            figures.push_back(std::move(one));
        }
        for (const Remark& r : p.remarks)
            remarks.push_back({{"number", r.id.value},
                               {"about", aboutWords(p, r)},
                               {"text", r.text},
                               {"by", r.by},
                               {"date", r.date},
                               {"answer", r.answer},
                               {"answered_by", r.answeredBy},
                               {"answered_on", r.answeredOn},
                               {"closed", r.closed}});
        std::cout << nlohmann::ordered_json{{"figures", figures}, {"remarks", remarks}}.dump(1) << "\n";
        return 0;
    }
    std::cout << fmt::format("{} of {} figures ticked, {} fell off; {} of {} remarks open\n", n.ticked, n.all,
                             n.fellOff, n.open, n.remarks);
    for (const ReviewItem& i : items)
        if (i.state == TickState::FellOff)
            std::cout << fmt::format("fell off   {}, {}: {}, it was {} ({}, {})\n", i.thing, i.figure, i.value, i.was,
                                     i.by, i.date);
    for (const Remark& r : p.remarks) {
        std::cout << fmt::format("{:8} {} {}: {} ({}, {})\n", r.closed ? "closed" : "open", r.id.value,
                                 aboutWords(p, r), r.text, r.by, r.date);
        if (!r.answer.empty())
            std::cout << fmt::format("           {} ({}, {})\n", r.answer, r.answeredBy, r.answeredOn);
    }
    return 0;
}

} // namespace lintel
