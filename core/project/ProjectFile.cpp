#include "core/project/ProjectFile.h"

#include "core/base/JsonPieces.h"
#include "core/base/Parallel.h"
#include "core/project/Fields.h"
#include "core/project/Validation.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <set>
#include <unordered_map>

namespace lintel {

using nlohmann::json;
using nlohmann::ordered_json;

namespace {

// ---- values ----
template <class T> ordered_json valueJson(const T& x) { return x; }
template <WordedEnum E> ordered_json valueJson(const E& e) { return wordOf(e); }
template <class T> ordered_json valueJson(const Id<T>& id) { return textOf(id); }
ordered_json valueJson(const Ref& r) { return r.text(); }
ordered_json valueJson(const VoltageSystem& s) { return wordOf(s); }
ordered_json valueJson(const Point& p) { return ordered_json::array({p.x, p.y}); }
ordered_json valueJson(const std::vector<Point>& ps) {
    ordered_json a = ordered_json::array();
    for (Point p : ps) a.push_back(valueJson(p));
    return a;
}
template <class T> ordered_json valueJson(const std::optional<T>& o) { return o ? valueJson(*o) : ordered_json(); }
template <class T> ordered_json listJson(const std::vector<T>& list);
ordered_json valueJson(const std::vector<RecipePart>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<Serving>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<Revision>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<TakeOffRule>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<FormColumn>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<FormFact>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<ListFormColumn>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<IssuedSheet>& list) { return listJson(list); }
ordered_json valueJson(const std::vector<TakenOn>& list) { return listJson(list); }

struct Writer {
    ordered_json out = ordered_json::object();
    template <class T> void operator()(const char* key, const T& value) { out[key] = valueJson(value); }
};
template <class T> ordered_json listJson(const std::vector<T>& list) {
    ordered_json a = ordered_json::array();
    for (const T& x : list) {
        Writer w;
        fields(w, const_cast<T&>(x));
        a.push_back(w.out);
    }
    return a;
}

/// The fields of a kind of thing, in the order in which `fields` names them, with what they are when nothing was
/// entered.
template <class T> struct KnownFields {
    T fresh{};
    std::vector<const void*> values;
    std::unordered_map<std::string_view, std::size_t> places; ///< by name
    KnownFields() { fields(*this, fresh); }
    template <class V> void operator()(const char* key, const V& value) {
        places.emplace(key, values.size());
        values.push_back(&value);
    }
    static const KnownFields& get() {
        static const KnownFields known;
        return known;
    }
};
/// Writes the id and what is not as it is when nothing was entered. Most fields are, and cost a comparison.
struct ChangedWriter {
    const std::vector<const void*>& fresh; ///< of the same kind of thing: its fields come in the same order
    std::size_t at = 0;
    ordered_json out = ordered_json::object();
    template <class V> void operator()(const char* key, const V& value) {
        const V& before = *static_cast<const V*>(fresh[at++]);
        if (!(before == value) || std::string_view(key) == "id") out.emplace(key, valueJson(value));
    }
};

struct Reader {
    std::string where;
    std::vector<const json*> values; ///< of the fields in their order; null: the object does not have it
    std::size_t at = 0;
    std::optional<Error> error{};

    /// Reads an object into a thing; what it holds beside goes to `other(key, value)`.
    template <class T, class Other> void readObject(const json& in, T& thing, Other other) {
        const auto& places = KnownFields<T>::get().places;
        values.assign(places.size(), nullptr);
        for (auto it = in.begin(); it != in.end(); ++it)
            if (const auto place = places.find(it.key()); place != places.end())
                values[place->second] = &it.value();
            else
                other(it.key(), it.value());
        fields(*this, thing);
    }

    void fail(const std::string& key, const std::string& what, const std::string& help = "") {
        if (!error) error = Error{where + "." + key, what, help};
    }
    bool read(const char* key, const json& j, std::string& x) {
        if (!j.is_string()) return fail(key, "expected a text in quotes, found " + seen(j)), false;
        x = j.get<std::string>();
        return true;
    }
    bool read(const char* key, const json& j, double& x) {
        if (!j.is_number()) return fail(key, "expected a number, found " + seen(j)), false;
        x = j.get<double>();
        return true;
    }
    bool read(const char* key, const json& j, int& x) {
        if (!j.is_number_integer() || j.get<double>() > 1e9 || j.get<double>() < -1e9)
            return fail(key, "expected a whole number, found " + seen(j)), false;
        x = j.get<int>();
        return true;
    }
    bool read(const char* key, const json& j, bool& x) {
        if (!j.is_boolean()) return fail(key, "expected true or false, found " + seen(j)), false;
        x = j.get<bool>();
        return true;
    }
    template <WordedEnum E> bool read(const char* key, const json& j, E& x) {
        const auto e = j.is_string() ? fromWord<E>(j.get<std::string>()) : std::nullopt;
        if (!e) return fail(key, "there is no choice " + seen(j), "choose one of: " + choiceWords<E>()), false;
        x = *e;
        return true;
    }
    bool read(const char* key, const json& j, VoltageSystem& x) {
        const auto s = j.is_string() ? systemFrom(j.get<std::string>()) : std::nullopt;
        if (!s) return fail(key, "there is no voltage system " + seen(j), systemHelp), false;
        x = *s;
        return true;
    }
    bool read(const char* key, const json& j, Ref& x) {
        x = j.is_string() ? refFrom(j.get<std::string>()) : Ref();
        if (!x && !(j.is_string() && j.get<std::string>().empty()))
            return fail(key, "expected the id of a thing, such as \"B3\", found " + seen(j)), false;
        return true;
    }
    template <class T> bool read(const char* key, const json& j, Id<T>& x) {
        Ref r;
        if (!read(key, j, r)) return false;
        if (r && !r.is<T>())
            return fail(key, fmt::format("expected an id that begins with {}, found {}", idLetter<T>, seen(j))), false;
        x = r.as<T>();
        return true;
    }
    bool read(const char* key, const json& j, Point& x) {
        if (!j.is_array() || j.size() != 2 || !j[0].is_number() || !j[1].is_number())
            return fail(key, "expected a point [x, y] in metres, found " + seen(j)), false;
        x = {j[0].get<double>(), j[1].get<double>()};
        return true;
    }
    bool read(const char* key, const json& j, std::vector<Point>& x) {
        if (!j.is_array()) return fail(key, "expected a list of points, found " + seen(j)), false;
        x.clear();
        for (const json& e : j) {
            Point p;
            if (!read(key, e, p)) return false;
            x.push_back(p);
        }
        return true;
    }
    /// A list of texts, or of small things with fields of their own.
    template <class T> bool read(const char* key, const json& j, std::vector<T>& x) {
        if (!j.is_array()) return fail(key, "expected a list in brackets, found " + seen(j)), false;
        x.clear();
        for (const json& e : j) {
            T item{};
            if constexpr (std::is_same_v<T, std::string>) {
                if (!read(key, e, item)) return false;
            } else {
                if (!e.is_object()) return fail(key, "expected an object in braces, found " + seen(e)), false;
                Reader r{where + "." + key, {}};
                r.readObject(e, item, [](const std::string&, const json&) {});
                if (r.error) return error = r.error, false;
            }
            x.push_back(std::move(item));
        }
        return true;
    }
    template <class T> bool read(const char* key, const json& j, std::map<std::string, T>& x) {
        if (!j.is_object()) return fail(key, "expected names with values, found " + seen(j)), false;
        for (const auto& [name, e] : j.items())
            if (!read(key, e, x[name])) return false;
        return true;
    }
    template <class T> bool read(const char* key, const json& j, std::optional<T>& x) {
        T value{};
        if (j.is_null()) return x.reset(), true;
        if (!read(key, j, value)) return false;
        x = value;
        return true;
    }
    template <class T> void operator()(const char* key, T& value) {
        if (const json* found = values[at++]) read(key, *found, value);
    }
};

} // namespace

template <class T> ordered_json toJson(const T& thing) {
    ChangedWriter w{KnownFields<T>::get().values};
    fields(w, const_cast<T&>(thing)); // the writer only reads
    for (const auto& [key, value] : thing.extra.json().items()) w.out[key] = value;
    return std::move(w.out);
}

template <class T> ordered_json wholeJson(const T& thing) {
    Writer w;
    fields(w, const_cast<T&>(thing)); // the writer only reads
    for (const auto& [key, value] : thing.extra.json().items()) w.out[key] = value;
    return w.out;
}

template <class T> Outcome<T> fromJson(const json& in, const std::string& where) {
    if (!in.is_object()) return Error{where, "expected an object in braces, found " + seen(in), ""};
    T thing{};
    Reader r{where, {}};
    // Fields of a newer version, or somebody's own, stay.
    r.readObject(in, thing, [&](const std::string& key, const json& value) { thing.extra.keep(key, value); });
    if (r.error) return *r.error;
    if constexpr (requires { thing.id; })
        if (!thing.id) return Error{where + ".id", "every thing needs an id", ""};
    return thing;
}

#define LINTEL_JSON(T)                                                                                                 \
    template ordered_json toJson(const T&);                                                                            \
    template ordered_json wholeJson(const T&);                                                                         \
    template Outcome<T> fromJson(const json&, const std::string&);
LINTEL_JSON(Basis)
LINTEL_JSON(Level)
LINTEL_JSON(Wall)
LINTEL_JSON(Room)
LINTEL_JSON(DeviceType)
LINTEL_JSON(Device)
LINTEL_JSON(Source)
LINTEL_JSON(Transformer)
LINTEL_JSON(Board)
LINTEL_JSON(Circuit)
LINTEL_JSON(Run)
LINTEL_JSON(Load)
LINTEL_JSON(Section)
LINTEL_JSON(Underlay)
LINTEL_JSON(Opening)
LINTEL_JSON(Furnishing)
LINTEL_JSON(Recipe)
LINTEL_JSON(Catchment)
LINTEL_JSON(ScheduleForm)
LINTEL_JSON(Issue)
LINTEL_JSON(Tick)
LINTEL_JSON(Remark)
LINTEL_JSON(SheetNumber)
LINTEL_JSON(RiserPlace)
LINTEL_JSON(ComposedSheet)
LINTEL_JSON(PlacedView)
LINTEL_JSON(ListForm)
LINTEL_JSON(KeyedNote)
LINTEL_JSON(Tray)
#undef LINTEL_JSON

std::string writeProject(const Project& p) {
    std::string out = fmt::format("{{\n\"lintel\": {},\n\"basis\": {}", fileVersion, toJson(p.basis).dump(1));
    Project::eachTable([&](const char* name, auto member) {
        const auto& table = p.*member;
        if (table.empty()) return;
        using T = std::decay_t<decltype(*table.begin())>;
        std::vector<const T*> things;
        things.reserve(table.size());
        for (const T& thing : table) things.push_back(&thing);
        std::array<std::string, mostParts> parts;
        inParts(things.size(), things.size() >= manyCircuits, [&](std::size_t part, std::size_t from, std::size_t to) {
            for (std::size_t i = from; i < to; ++i) {
                parts[part] += i == 0 ? "\n " : ",\n ";
                parts[part] += toJson(*things[i]).dump();
            }
        });
        out += fmt::format(",\n\"{}\": [", name);
        for (const std::string& part : parts) out += part;
        out += "\n]";
    });
    for (const auto& [key, value] : p.extra.json().items())
        out += fmt::format(",\n{}: {}", json(key).dump(), value.dump());
    out += "\n}\n";
    return out;
}

namespace {

/// So many things are read at once and then put into their table: a file of millions of them that is no good is refused
/// at the first, before there is room for all.
constexpr std::size_t readAtOnce = 8192;

/// Reads the list of one table. The error says where in the list it lies.
template <class T>
std::optional<Error> readTable(const std::vector<std::string_view>& items, const std::string& where, Table<T>& table) {
    std::vector<std::optional<Outcome<T>>> read(std::min(items.size(), readAtOnce));
    for (std::size_t i = 0; i < items.size(); ++i) {
        const std::size_t place = i % readAtOnce;
        if (place == 0) {
            const std::size_t n = std::min(readAtOnce, items.size() - i);
            inParts(n, n >= manyCircuits, [&](std::size_t, std::size_t from, std::size_t to) {
                for (std::size_t k = from; k < to; ++k) read[k] = fromJson<T>(readPiece(items[i + k]), "");
            });
        }
        auto& thing = *read[place];
        std::optional<Error> error;
        if (!thing)
            error = thing.error();
        else if (thing->id.value > mostId<T>)
            error = Error{".id", fmt::format("the number of this id is at most {}", mostId<T>), ""};
        else if (table.has(thing->id))
            error =
                Error{".id", "there are two things with the id " + textOf(thing->id), "Give one of them another id."};
        else
            table.put(std::move(*thing));
        if (error) {
            error->where = fmt::format("{}[{}]{}", where, i, error->where);
            return error;
        }
    }
    return std::nullopt;
}

std::optional<Error> refusalOfVersion(const json& written, const std::string& name) {
    const std::string where = name + ", lintel";
    if (!written.is_number_integer())
        return Error{where, "the version should be a whole number, found " + seen(written), ""};
    const double version = written.get<double>(); // whatever size it was written in
    if (version > fileVersion)
        return Error{
            where,
            fmt::format("the file is of version {}; this Lintel reads up to version {}", seen(written), fileVersion),
            "Open it with a newer Lintel. Nothing has been changed."};
    if (version < 1) return Error{where, "there is no such version", ""};
    return std::nullopt;
}

/// Reads a project from its text in pieces: thing by thing, on all cores. Throws where a piece is not well-formed.
Outcome<Project> readPieces(const std::vector<JsonMember>& members, const std::string& name) {
    const auto find = [&](std::string_view key) {
        return std::find_if(members.begin(), members.end(), [&](const JsonMember& m) { return m.key == key; });
    };
    const auto version = find("lintel");
    if (version == members.end())
        return Error{name, "this is not a Lintel project", "A project file begins with { \"lintel\": 1."};
    if (auto refused = refusalOfVersion(readPiece(version->text), name)) return *refused;

    Project p;
    std::set<std::string_view> known{"lintel", "basis"};
    if (const auto basis = find("basis"); basis != members.end()) {
        auto b = fromJson<Basis>(readPiece(basis->text), name + ", basis");
        if (!b) return b.error();
        p.basis = *b;
    }
    std::optional<Error> error;
    Project::eachTable([&](const char* key, auto member) {
        known.insert(key);
        const auto found = find(key);
        if (error || found == members.end()) return;
        const std::string where = fmt::format("{}, {}", name, key);
        if (found->isList())
            error = readTable(found->items, where, p.*member);
        else
            error = Error{where, "expected a list in brackets, found " + seen(readPiece(found->text)), ""};
    });
    if (error) return *error;
    for (const JsonMember& m : members)
        if (!known.count(m.key)) p.extra.keep(m.key, readPiece(m.text));
    return p;
}

} // namespace

Outcome<Project> readProject(const std::string& text, const std::string& name) {
    const auto members = cutJson(text, name);
    if (!members) return members.error();
    try {
        auto p = readPieces(*members, name);
        if (!p) return p;
        if (auto bad = validate(*p)) {
            bad->where = name + ", " + bad->where;
            return *bad;
        }
        return p;
    } catch (const json::exception&) {
        if (const auto whole = parseJson(text, name); !whole) return whole.error(); // which says where
        throw;
    }
}

Outcome<Project> loadProject(const std::filesystem::path& file) {
    auto text = readText(file);
    if (!text) return text.error();
    return readProject(*text, textOfPath(file.filename()));
}

Outcome<std::string> textToSave(const Project& p) {
    if (auto bad = validate(p)) // cannot be, as every edit was looked at; a file that does not open again must not be
        return Error{"the project", "it was not saved, since it could not be opened again: " + bad->text(),
                     "Undo the last edits and save again. The file is as it was."};
    return writeProject(p);
}

std::optional<Error> saveProject(const Project& p, const std::filesystem::path& file) {
    const auto text = textToSave(p);
    return text ? writeTextAtomically(*text, file) : text.error();
}

} // namespace lintel
