#!/usr/bin/python3
"""Changes the arithmetic of the core in one place at a time and asks whether the tests notice.

usage: mutate.py [HOW MANY] [SEED] [quick]      (by ./dev mutate)

One operator, constant or comparison of core/solve, core/rules, core/level and core/check is changed, and the core tests run until one
fails. Changes that tests/mutant.h can switch on at run time are all built together, in a tree of its own (build-mutate/): each test says
which of them it comes by, and only those tests are asked, the quick ones first. The others (constants that the compiler needs, && and ||)
are built one by one. What no test notices is listed: a survivor is a test that is missing, or a change that changes nothing.
Left out are places whose only use is words (messages, steps of workings), the drawing of a sheet, guards of loops, < for <= where a tolerance stands beside it, the sign of that tolerance,
and the nought that something is compared with: there the comparison is turned into its opposite.
A survivor that was looked at and changes nothing stands in tests/mutants-explained.txt, by file and the text of its line.
`quick` leaves out those that are built one by one. All places are in the program; the sample says which of them are tried.
`places` in the place of how many lists those that no test comes by.
"""
import concurrent.futures
import os
import random
import re
import resource
import shutil
import subprocess
import sys
import time

ROOT = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
TREE = os.path.join(ROOT, "build-mutate", "tree")
BUILD = os.path.join(ROOT, "build-mutate", "out")
FOLDERS = ["core/solve", "core/rules", "core/level", "core/check"]

SWAPS = [
    (r" <= ", [" < "]), (r" >= ", [" > "]), (r" < ", [" <= "]), (r" > ", [" >= "]), (r" == ", [" != "]), (r" != ", [" == "]),
    (r" \+ ", [" - "]), (r" - ", [" + "]), (r" \* ", [" / "]), (r" / ", [" * "]), (r" && ", [" || "]), (r" \|\| ", [" && "]),
    (r" \+= ", [" -= "]), (r" \*= ", [" /= "]), (r"std::min\(", ["std::max("]), (r"std::max\(", ["std::min("]),
]
NUMBER = re.compile(r"(?<![\w.\"'\[])(?<!e-)(\d+\.\d+|\d+)(?![\w.'\]]|e-)")
# Words, not arithmetic; and what only makes room.
WORDS = re.compile(r"fmt::format|step\(|\.push_back\(\{&self|cite\(|refuse\(|\bguard\b|#include|reserve\(|static_assert|constexpr const char|\"[^\"]*\" *[+?]|note\(|\b(figures|percent|kilo|withArticle|rating|metres)\(")


# Equal but for a tolerance: whether that is more, or no less, is decided by its last digit.
TOLERANCE = re.compile(r"\beps\b|\b1e-\d|\b1\.00\d")
# A tolerance itself: whether it is added or taken away is decided by the last digit as well.
def of_tolerance(mask, m):
    sign = m.group(0).strip()
    if sign not in ("+", "-", "*", "/"):
        return False
    after, before = mask[m.end():], mask[:m.start()]
    return bool(re.match(r"(1e-\d+|eps\b)", after) or (sign in "*/" and (re.match(r"1\.00\d", after) or re.search(r"1e-\d+$", before))))


# What orders things is to be strict: with <= it is no order at all.
ORDER = re.compile(r"\b(sort|stable_sort|partial_sort|min_element|max_element|lower_bound|upper_bound)\(")
# What is compared with nothing asks whether there is something: there the opposite is the change.
OPPOSITE = {"<": ">=", ">": "<=", "<=": ">", ">=": "<"}


def masked(line):
    """The line with texts and comments blanked, so that nothing in them is changed."""
    out, i, quote = [], 0, None
    while i < len(line):
        c = line[i]
        if quote:
            if c == "\\":
                out.append("  ")
                i += 2
                continue
            if c == quote:
                quote = None
            out.append(" " if quote else c)
        elif line.startswith("//", i):
            out.append(" " * (len(line) - i))
            break
        else:
            if c in "\"'" and not (c == "'" and i and line[i - 1].isdigit()):
                quote = c
            out.append(c)
        i += 1
    return "".join(out)


def candidates():
    found = []
    for folder in FOLDERS:
        for name in sorted(os.listdir(os.path.join(ROOT, folder))):
            if not name.endswith(".cpp") or name.endswith("Sheet.cpp"):
                continue  # where things stand on a sheet is no arithmetic
            path = os.path.join(folder, name)
            for number, line in enumerate(open(os.path.join(ROOT, path), encoding="utf-8").read().split("\n")):
                if WORDS.search(line):
                    continue
                mask = masked(line)
                for pattern, others in SWAPS:
                    if pattern[1] in "<>" and (TOLERANCE.search(mask) or ORDER.search(mask)):
                        continue
                    for m in re.finditer(pattern, mask):
                        if of_tolerance(mask, m):
                            continue
                        for other in others:
                            if pattern[1] in "<>" and re.match(r"0[^.\w]", mask[m.end():] + " "):
                                other = f" {OPPOSITE[pattern.strip()]} "
                            found.append((path, number, m.start(), m.end(), other))
                for m in NUMBER.finditer(mask):
                    text = m.group(1)
                    value = float(text)
                    if value == 0 and re.search(r"(<|>|<=|>=|==|!=) $", mask[:m.start()]):
                        continue  # nothing, or something: the comparison itself is changed
                    other = "1" if value == 0 else (repr(value * 1.1) if "." in text else str(int(value) + max(1, int(value) // 10)))
                    found.append((path, number, m.start(), m.end(), other))
    return found


def explained():
    known = set()
    try:
        for line in open(os.path.join(ROOT, "tests", "mutants-explained.txt"), encoding="utf-8"):
            if "|" in line and not line.startswith("#"):
                parts = [p.strip().replace("\\|", "|") for p in re.split(r"(?<!\\)\|", line)]
                known.add((parts[0], parts[1], parts[2]))
    except FileNotFoundError:
        pass
    return known


def files_first(folders):
    """The tests of these folders, as Catch2 names them by their files."""
    names = [n[:-4] for f in folders for n in sorted(os.listdir(os.path.join(ROOT, "tests", f))) if n.endswith(".cpp")]
    return ",".join(f"[#{n}]" for n in names)


def run(command, seconds, out=subprocess.DEVNULL, **more):
    """Limited by the processor's time, so that a machine with other work makes no hang of it; by the clock only where it waits for ever."""
    try:
        return subprocess.run(command, stdout=out, stderr=subprocess.STDOUT, timeout=seconds * 30,
                              preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds)), **more).returncode
    except subprocess.TimeoutExpired:
        return 1  # it hangs: noticed


def copy_tree(changed):
    os.makedirs(TREE, exist_ok=True)
    files = subprocess.run(["git", "ls-files", "-co", "--exclude-standard"], cwd=ROOT, capture_output=True, text=True).stdout.split("\n")
    for f in files:
        source, target = os.path.join(ROOT, f), os.path.join(TREE, f)
        if not f or not os.path.isfile(source):
            continue
        if f in changed and os.path.exists(target):
            continue  # these are written with their changes, and stay as they are where nothing of them is new
        os.makedirs(os.path.dirname(target), exist_ok=True)
        if not os.path.exists(target) or open(source, "rb").read() != open(target, "rb").read():
            shutil.copyfile(source, target)  # of today: with the time of the source a build could take it for older than its object
            shutil.copymode(source, target)
    kept = set(files)
    for folder, _, names in os.walk(TREE):
        for name in names:
            if os.path.relpath(os.path.join(folder, name), TREE) not in kept:
                os.remove(os.path.join(folder, name))  # the project has it no more


def build():
    """The compiler's words where it does not build."""
    r = subprocess.run(["cmake", "--build", BUILD, "--target", "core-tests", "--", "-k", "0"], stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, errors="replace")
    return None if r.returncode == 0 else r.stdout


class Change:
    def __init__(self, number, place):
        self.number = number
        self.path, self.line, self.start, self.end, self.other = place
        self.source = open(os.path.join(ROOT, self.path), encoding="utf-8").read().split("\n")[self.line]
        self.text = self.source[self.start:self.end]

    def words(self):
        return f"{self.text.strip()} → {self.other.strip()}"

    def place(self):
        return f"{self.path}|{self.source.strip()}|{self.start}|{self.other.strip()}"

    def made(self):
        """What stands in its place when it is made in the text."""
        return self.other

    def switched(self):
        """What stands in its place when it is switched on at run time."""
        t = self.text.strip()
        if t == "&&":
            return f" && mutant::both({self.number}) || mutant::thenBoth({self.number}) && "
        if t == "||":
            return f" && mutant::either({self.number}) || mutant::thenEither({self.number}) && "
        if t == "std::min(":
            return f"mutant::Least({self.number})("
        if t == "std::max(":
            return f"mutant::Most({self.number})("
        if t[0].isdigit():
            return f"mutant::pick({self.number}, {t}, {self.other})"
        if OPPOSITE.get(t) == self.other.strip():
            return f" {t} mutant::Not({self.number}) {t} "
        return f" {t} mutant::Op({self.number}) {t} "


def write(path, changes, how):
    """The file with these changes in it; as it is in the project where there are none."""
    lines = open(os.path.join(ROOT, path), encoding="utf-8").read().split("\n")
    for c in sorted(changes, key=lambda c: -c.start):
        lines[c.line] = lines[c.line][:c.start] + how(c) + lines[c.line][c.end:]
    if changes and how is Change.switched:
        for n in {c.line for c in changes}:
            if re.search(r"\bconstexpr\b.* = ", lines[n]) and "if constexpr" not in lines[n]:
                lines[n] = lines[n].replace("constexpr", "const", 1)
        lines[0] = f'#include "{TREE}/tests/mutant.h"\n#line 1 "{path}"\n{lines[0]}'
    text = "\n".join(lines)
    target = os.path.join(TREE, path)
    if open(target, encoding="utf-8").read() != text:
        with open(target, "w", encoding="utf-8") as f:
            f.write(text)


def build_switched(changes):
    """Builds all that can be switched on into one program; gives those that could not."""
    kept = os.path.join(BUILD, "not-switched")  # of the last time, so that they are not tried again
    before = set(open(kept, encoding="utf-8").read().split("\n")) if os.path.exists(kept) else set()
    inside, outside = [], []
    for c in changes:
        (outside if c.place() in before else inside).append(c)
    while True:
        for path in {c.path for c in changes}:
            write(path, [c for c in inside if c.path == path], Change.switched)
        told = build()
        if told is None:
            return inside, outside
        blamed = {(m.group(1), int(m.group(2)) - 1) for m in re.finditer(r"(core/\w+/\w+\.cpp):(\d+):", told)}
        refused = [c for c in inside if (c.path, c.line) in blamed]
        if not refused:  # a statement over several lines is blamed by one of them
            refused = [c for c in inside if any((c.path, c.line + n) in blamed for n in range(-4, 5))]
        if not refused:
            sys.exit("it does not build:\n" + told[-4000:])
        print(f"  {len(refused)} cannot be switched on", flush=True)
        inside = [c for c in inside if c not in refused]
        outside += refused
        with open(kept, "w", encoding="utf-8") as f:
            f.write("\n".join(c.place() for c in outside))


def listed(program, words):
    """The names of the tests that these words choose."""
    told = subprocess.run([program, *words, "--list-test-names-only"], capture_output=True, text=True, cwd="/").stdout
    return [name for name in told.split("\n") if name]


def quoted(name):
    return '"' + re.sub(r'([][\\,*"])', r"\\\1", name) + '"'


def reach(program, names):
    """Which tests come by each change, and how long each takes: every test in a process of its own, so that what is kept from the first use is seen too."""
    def one(k):
        mark = os.path.join(BUILD, f"reach-{k}")
        begun = time.time()
        with open(mark + ".txt", "w+", encoding="utf-8", errors="replace") as told:
            bad = run([program, quoted(names[k])], 300, out=told, cwd="/", env=dict(os.environ, LINTEL_MUTANT="0", LINTEL_REACH=mark))
            took = time.time() - begun
            if bad:
                told.seek(0)
                sys.exit(f"fails with all changes built in and none switched on ({bad}): {names[k]}\n{told.read()[-4000:]}")
        os.remove(mark + ".txt")
        seen = [n for n, byte in enumerate(open(mark, "rb").read()) if byte]
        os.remove(mark)
        return took, seen
    by = {}
    took = []
    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as pool:
        for k, (seconds, seen) in enumerate(pool.map(one, range(len(names)))):
            took.append(seconds)
            for n in seen:
                by.setdefault(n, []).append(k)
    return by, took


def main():
    only_places = sys.argv[1:2] == ["places"]
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 and not only_places else 200
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    copy_tree({place[0] for place in candidates()})
    # With assertions of the library: a change that reads beyond the end of a list is noticed where it does.
    flags = "-D_GLIBCXX_ASSERTIONS -w -Wno-narrowing"
    if run(["cmake", "-S", TREE, "-B", BUILD, "-G", "Ninja", "-DLINTEL_WARNINGS=OFF", "-DCMAKE_CXX_FLAGS=" + flags, "-DCMAKE_EXE_LINKER_FLAGS=-fuse-ld=lld"], 300):
        sys.exit("it does not configure")
    # All but what goes by the clock, and what reads and writes files only: it takes half of the time and notices no arithmetic.
    files = ["FuzzTest", "HostileInputTest", "KeeperTest", "KillTest", "DxfTest", "DxfWriterTest", "IssuesTest"]
    tests = [os.path.join(BUILD, "core-tests"), "--abort", "--warn", "NoTests", "-#", "~killed at random*"] + [f"~[#{f}]" for f in files]
    print("building all changes into one program …", flush=True)
    changes = [Change(n + 1, place) for n, place in enumerate(candidates())]
    places = len(changes)
    inside, outside = build_switched(changes)
    sample = set(random.Random(seed).sample(range(1, places + 1), min(wanted, places)))
    chosen = [c for c in inside if c.number in sample]
    alone = [c for c in outside if c.number in sample and "quick" not in sys.argv]
    names = listed(tests[0], tests[4:])
    by, took = reach(tests[0], names)
    known = explained()
    missed = [c for c in inside if c.number not in by]
    print(f"{places} places, {len(inside)} of them in one program; no test of {len(names)} comes by {len(missed)}", flush=True)
    if only_places:
        for c in sorted(missed, key=lambda c: (c.path, c.line)):
            print(f"{c.path}:{c.line + 1}  {c.words()}\n    {c.source.strip()}")
        return
    print(f"{wanted} of them, seed {seed}: {len(chosen)} switched on, {len(alone)} built one by one", flush=True)
    count = dict.fromkeys(["caught", "survived", "same", "broken"], 0)
    begun = time.time()

    def noticed(number):
        """The tests that come by it, quick ones first: half of all mutations are noticed within a second."""
        asked = sorted(by.get(number, []), key=lambda k: took[k])
        where = dict(cwd="/", env=dict(os.environ, LINTEL_MUTANT=str(number)))
        while asked:
            few, seconds = [], 0.0
            while asked and (not few or seconds + took[asked[0]] < 4):
                seconds += took[asked[0]]
                few.append(names[asked.pop(0)])
            part = os.path.join(BUILD, f"few-{number}")
            with open(part, "w", encoding="utf-8") as f:
                f.write("\n".join(quoted(n) for n in few))
            bad = run([tests[0], "--abort", "--warn", "NoTests", "--input-file", part], int(seconds * 8) + 60, **where)
            os.remove(part)
            if bad:
                return True
        return False

    def noticed_alone(program):
        near = [program, "--abort", "--warn", "NoTests", "-#", files_first(["solve", "rules", "check", "level"])]  # most is noticed there, in seconds
        approved = [program, "--abort", "--warn", "NoTests", "*as approved"]
        bad = run(near, 120, cwd="/") or run(approved, 120, cwd="/") or run([program, *tests[1:]], 300, cwd="/")
        os.remove(program)
        return bad

    def is_known(c):
        return (c.path, c.source.strip(), c.words()) in known

    def tell(c, what):
        count[what] += 1
        if what == "survived":
            print(f"SURVIVED {c.path}:{c.line + 1}  {c.words()}\n    {c.source.strip()}", flush=True)
        done = sum(count.values())
        if done % 10 == 0:
            print(f"  {done}: {count['caught']} caught, {count['survived']} survived, {count['same']} explained, {count['broken']} did not compile, {time.time() - begun:.0f} s", flush=True)

    with concurrent.futures.ThreadPoolExecutor(os.cpu_count()) as pool:
        for c, bad in zip(chosen, pool.map(lambda c: is_known(c) or noticed(c.number), chosen)):
            tell(c, "same" if is_known(c) else "caught" if bad else "survived")
        for path in {c.path for c in changes}:
            write(path, [], Change.made)
        waiting = []
        for c in alone:
            if is_known(c):
                tell(c, "same")
                continue
            write(c.path, [c], Change.made)
            if build():
                tell(c, "broken")
            else:
                program = f"{tests[0]}-{c.number}"  # of its own: the next is built while this one is asked
                shutil.copy(tests[0], program)
                waiting.append((c, pool.submit(noticed_alone, program)))
            write(c.path, [], Change.made)
        for c, bad in waiting:
            tell(c, "caught" if bad.result() else "survived")
    total = count["caught"] + count["survived"]
    print(f"{count['caught']} of {total} caught ({100 * count['caught'] / max(1, total):.1f} %), {count['survived']} survived, {count['same']} change nothing (explained), {count['broken']} did not compile")
    sys.exit(0 if count["survived"] == 0 else 2)


if __name__ == "__main__":
    main()
