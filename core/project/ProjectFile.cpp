#include "core/project/ProjectFile.h"

#include "core/project/Fields.h"
#include "core/project/Validation.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <fstream>
#include <set>
#include <sstream>
#include <unistd.h>

namespace lintel {

using nlohmann::json;
using nlohmann::ordered_json;

namespace {

// ---- values ----
template <class T> ordered_json valueJson(const T& x) { return x; }
template <WordedEnum E> ordered_json valueJson(const E& e) { return wordOf(e); }
template <class T> ordered_json valueJson(const Id<T>& id) { return textOf(id); }
ordered_json valueJson(const Ref& r) { return r.text(); }
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

std::string seen(const json& j) {
    std::string s = j.dump();
    return s.size() > 40 ? s.substr(0, 37) + "…" : s;
}

struct Reader {
    const json& in;
    std::string where;
    std::optional<Error> error;
    std::set<std::string> known;

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
        if (!e) {
            std::string words;
            for (const auto& [value, word] : EnumText<E>::words) words += (words.empty() ? "" : ", ") + std::string(word);
            return fail(key, "there is no choice " + seen(j), "choose one of: " + words), false;
        }
        x = *e;
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
                Reader r{e, where + "." + key, {}, {}};
                fields(r, item);
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
        known.insert(key);
        if (const auto it = in.find(key); it != in.end()) read(key, *it, value);
    }
};

/// Line and column of a byte of the text, counted from 1.
std::string lineOf(const std::string& text, std::size_t byte) {
    byte = std::min(byte, text.size());
    const auto line = 1 + std::count(text.begin(), text.begin() + std::ptrdiff_t(byte), '\n');
    const auto last = byte ? text.rfind('\n', byte - 1) : std::string::npos;
    return fmt::format("line {}, column {}", line, byte - (last == std::string::npos ? 0 : last + 1));
}

} // namespace

template <class T> ordered_json toJson(const T& thing) {
    static const ordered_json fresh = [] {
        Writer w;
        T t{};
        fields(w, t);
        return w.out;
    }();
    Writer w;
    fields(w, const_cast<T&>(thing)); // the writer only reads
    ordered_json out = ordered_json::object();
    for (const auto& [key, value] : w.out.items())
        if (key == "id" || fresh[key] != value) out[key] = value;
    if (thing.extra.is_object())
        for (const auto& [key, value] : thing.extra.items()) out[key] = value;
    return out;
}

template <class T> Outcome<T> fromJson(const json& in, const std::string& where) {
    if (!in.is_object()) return Error{where, "expected an object in braces, found " + seen(in), ""};
    T thing{};
    Reader r{in, where, {}, {}};
    fields(r, thing);
    if (r.error) return *r.error;
    for (const auto& [key, value] : in.items())
        if (!r.known.count(key)) thing.extra[key] = value;
    if constexpr (requires { thing.id; })
        if (!thing.id) return Error{where + ".id", "every thing needs an id", ""};
    return thing;
}

#define LINTEL_JSON(T)                                                                                                           \
    template ordered_json toJson(const T&);                                                                                      \
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
LINTEL_JSON(Tray)
#undef LINTEL_JSON

std::string writeProject(const Project& p) {
    std::string out = fmt::format("{{\n\"lintel\": {},\n\"basis\": {}", fileVersion, toJson(p.basis).dump(1));
    Project::eachTable([&](const char* name, auto member) {
        const auto& table = p.*member;
        if (table.empty()) return;
        out += fmt::format(",\n\"{}\": [", name);
        bool first = true;
        for (const auto& thing : table) {
            out += first ? "\n " : ",\n ";
            out += toJson(thing).dump();
            first = false;
        }
        out += "\n]";
    });
    if (p.extra.is_object())
        for (const auto& [key, value] : p.extra.items()) out += fmt::format(",\n{}: {}", json(key).dump(), value.dump());
    out += "\n}\n";
    return out;
}

Outcome<Project> readProject(const std::string& text, const std::string& name) {
    json j;
    try {
        j = json::parse(text);
    } catch (const json::parse_error& e) {
        const bool ended = e.byte >= text.size();
        return Error{name + ", " + lineOf(text, e.byte ? e.byte - 1 : 0),
                     ended ? "the file ends in the middle: it is cut short" : "this is not well-formed JSON",
                     ended ? "Restore it from a copy; a recovery journal beside it may hold your last edits." : "Look at that line, or restore the file from a copy."};
    }
    if (!j.is_object() || !j.contains("lintel"))
        return Error{name, "this is not a Lintel project", "A project file begins with { \"lintel\": 1."};
    if (!j["lintel"].is_number_integer()) return Error{name + ", lintel", "the version should be a whole number, found " + seen(j["lintel"]), ""};
    if (j["lintel"].get<int>() > fileVersion)
        return Error{name + ", lintel", fmt::format("the file is of version {}; this Lintel reads up to version {}", j["lintel"].get<int>(), fileVersion),
                     "Open it with a newer Lintel. Nothing has been changed."};
    if (j["lintel"].get<int>() < 1) return Error{name + ", lintel", "there is no such version", ""};

    Project p;
    std::optional<Error> error;
    std::set<std::string> known{"lintel", "basis"};
    if (j.contains("basis")) {
        auto b = fromJson<Basis>(j["basis"], name + ", basis");
        if (!b) return b.error();
        p.basis = *b;
    }
    Project::eachTable([&](const char* key, auto member) {
        known.insert(key);
        if (error || !j.contains(key)) return;
        const json& list = j[key];
        if (!list.is_array()) {
            error = Error{name + ", " + key, "expected a list in brackets, found " + seen(list), ""};
            return;
        }
        auto& table = p.*member;
        using T = std::decay_t<decltype(*table.begin())>;
        for (std::size_t i = 0; i < list.size() && !error; ++i) {
            const std::string where = fmt::format("{}, {}[{}]", name, key, i);
            auto thing = fromJson<T>(list[i], where);
            if (!thing) error = thing.error();
            else if (thing->id.value > 10'000'000) error = Error{where + ".id", "the number of an id is at most 10 000 000", ""};
            else if (table.has(thing->id)) error = Error{where + ".id", "there are two things with the id " + textOf(thing->id), "Give one of them another id."};
            else table.put(std::move(*thing));
        }
    });
    if (error) return *error;
    for (const auto& [key, value] : j.items())
        if (!known.count(key)) p.extra[key] = value;
    if (auto bad = validate(p)) {
        bad->where = name + ", " + bad->where;
        return *bad;
    }
    return p;
}

Outcome<std::string> readText(const std::filesystem::path& file) {
    std::error_code ec;
    if (std::filesystem::is_directory(file, ec)) return Error{file.string(), "this is a folder, not a file", ""};
    std::ifstream in(file, std::ios::binary);
    if (!in) return Error{file.string(), std::string("the file cannot be opened: ") + std::strerror(errno), ""};
    std::ostringstream s;
    s << in.rdbuf();
    return s.str();
}

Outcome<Project> loadProject(const std::filesystem::path& file) {
    auto text = readText(file);
    if (!text) return text.error();
    return readProject(*text, file.filename().string());
}

std::optional<Error> writeTextAtomically(const std::string& text, const std::filesystem::path& file) {
    const std::string temp = file.string() + ".saving";
    const auto refuse = [&](const char* what) {
        Error e{file.string(), fmt::format("{}: {}", what, std::strerror(errno)), "Choose another folder, or make room on the disk. Nothing was lost: the old file is as it was."};
        ::unlink(temp.c_str());
        return e;
    };
    const int fd = ::open(temp.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (fd < 0) return refuse("the file cannot be written");
    for (std::size_t done = 0; done < text.size();) {
        const ssize_t n = ::write(fd, text.data() + done, text.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) { auto e = refuse("writing stopped"); ::close(fd); return e; }
        done += std::size_t(n);
    }
    if (::fsync(fd) != 0) { auto e = refuse("the disk did not take the file"); ::close(fd); return e; }
    ::close(fd);
    if (::rename(temp.c_str(), file.c_str()) != 0) return refuse("the file cannot be replaced");
    return std::nullopt;
}

std::optional<Error> saveProject(const Project& p, const std::filesystem::path& file) { return writeTextAtomically(writeProject(p), file); }

} // namespace lintel
