#include "core/rules/Trade.h"

#include "core/drawing/Paper.h"
#include "core/rules/ReadJson.h"

#include <algorithm>

namespace lintel {

using namespace bookjson;

Trade Trade::read(const json& book, const std::string& name) {
    Trade t;
    const std::string where = name + ", trade";
    const json& j = at(book, "trade", name);
    for (const auto& [word, key] : EnumText<TradeWord>::words)
        t.words[std::size_t(word)] = text(at(j, "words", where), key, where + ", words");
    const json& papers = at(j, "papers", where);
    const auto known = [&](const std::string& paper) {
        if (!isPaper(paper)) refuse(where + ", papers", "there is no paper \"" + paper + "\"");
        return paper;
    };
    const auto paper = [&](const char* key) { return known(text(papers, key, where + ", papers")); };
    t.papers = {paper("drawing"),
                paper("small"),
                paper("text"),
                paper("schedule"),
                paper("longSchedule"),
                paper("doorCard"),
                {}};
    for (const json& p : at(papers, "riser", where))
        t.papers.riser.push_back(known(text(p, where + ", papers, riser")));
    if (t.papers.riser.empty()) refuse(where, "there is no paper for the riser");
    const json& b = at(j, "board", where);
    const std::string system = text(b, "system", where);
    const auto volts = systemFrom(system);
    if (!volts) refuse(where, "there is no voltage system \"" + system + "\"");
    t.board.system = *volts;
    t.board.name = text(b, "name", where);
    const auto form = fromWord<BoardForm>(text(b, "form", where));
    if (!form) refuse(where, "there is no form of boards \"" + text(b, "form", where) + "\"");
    t.board.form = *form;
    t.board.forms = text(b, "forms", where);
    for (const json& n : at(b, "places", where)) {
        const double places = number(n, where + ", places");
        if (places < 1 || places > 1200 || (!t.board.places.empty() && places <= t.board.places.back()))
            refuse(where, "the places of boards must rise, from 1 to 1200");
        t.board.places.push_back(int(places));
    }
    if (t.board.places.empty()) refuse(where, "boards have no places");
    for (const json& n : at(b, "buses", where)) {
        const double amps = number(n, where + ", buses");
        if (amps < 1 || amps > 10'000 || (!t.board.buses.empty() && amps <= t.board.buses.back()))
            refuse(where, "the buses of boards must rise, from 1 to 10 000 A");
        t.board.buses.push_back(amps);
    }
    if (t.board.buses.empty()) refuse(where, "boards have no buses");
    return t;
}

std::optional<double> Trade::UsualBoard::busFor(double amps) const {
    const auto at = std::lower_bound(buses.begin(), buses.end(), amps - 1e-6);
    return at == buses.end() ? std::nullopt : std::optional(*at);
}

} // namespace lintel
