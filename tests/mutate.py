#!/usr/bin/python3
"""Changes the arithmetic of the core in one place at a time and asks whether the tests notice.

usage: mutate.py [HOW MANY] [SEED] [PART]      (by ./dev mutate)

PART is "1/2", "2/2": every second place of the sample, in a tree of its own, so that two can run beside one another.

One operator, constant or comparison of core/solve, core/rules, core/level and core/check is changed, what depends on it is built
in a tree of its own (build-mutate/), and the core tests run until one fails. What no test notices is listed: a survivor is a test
that is missing, or a change that changes nothing. Places whose only use is words (messages, steps of workings) are left out.
A survivor that was looked at and changes nothing stands in tests/mutants-explained.txt, by file and the text of its line.
"""
import os
import random
import re
import resource
import shutil
import subprocess
import sys
import time

ROOT = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
PART = sys.argv[3] if len(sys.argv) > 3 else "1/1"
TREE = os.path.join(ROOT, "build-mutate", "tree-" + PART.replace("/", "-"))
BUILD = os.path.join(ROOT, "build-mutate", "out-" + PART.replace("/", "-"))
FOLDERS = ["core/solve", "core/rules", "core/level", "core/check"]

SWAPS = [
    (r" <= ", [" < "]), (r" >= ", [" > "]), (r" < ", [" <= "]), (r" > ", [" >= "]), (r" == ", [" != "]), (r" != ", [" == "]),
    (r" \+ ", [" - "]), (r" - ", [" + "]), (r" \* ", [" / "]), (r" / ", [" * "]), (r" && ", [" || "]), (r" \|\| ", [" && "]),
    (r" \+= ", [" -= "]), (r" \*= ", [" /= "]), (r"std::min\(", ["std::max("]), (r"std::max\(", ["std::min("]),
]
NUMBER = re.compile(r"(?<![\w.\"'\[])(?<!e-)(\d+\.\d+|\d+)(?![\w.'\]]|e-)")
# Words, not arithmetic; and what only makes room.
WORDS = re.compile(r"fmt::format|step\(|\.push_back\(\{&self|cite\(|refuse\(|#include|reserve\(|static_assert|constexpr const char|\"[^\"]*\" *[+?]|note\(")


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
            if not name.endswith(".cpp"):
                continue
            path = os.path.join(folder, name)
            for number, line in enumerate(open(os.path.join(ROOT, path), encoding="utf-8").read().split("\n")):
                if WORDS.search(line):
                    continue
                mask = masked(line)
                for pattern, others in SWAPS:
                    for m in re.finditer(pattern, mask):
                        for other in others:
                            found.append((path, number, m.start(), m.end(), other))
                for m in NUMBER.finditer(mask):
                    text = m.group(1)
                    value = float(text)
                    other = "1" if value == 0 else (repr(value * 1.1) if "." in text else str(int(value) + 1))
                    found.append((path, number, m.start(), m.end(), other))
    return found


def explained():
    known = set()
    try:
        for line in open(os.path.join(ROOT, "tests", "mutants-explained.txt"), encoding="utf-8"):
            if "|" in line and not line.startswith("#"):
                parts = [p.strip() for p in line.split("|")]
                known.add((parts[0], parts[1], parts[2]))
    except FileNotFoundError:
        pass
    return known


def files_first(folders):
    """The tests of these folders, as Catch2 names them by their files."""
    names = [n[:-4] for f in folders for n in sorted(os.listdir(os.path.join(ROOT, "tests", f))) if n.endswith(".cpp")]
    return ",".join(f"[#{n}]" for n in names)


def run(command, seconds, **more):
    """Limited by the processor's time, so that a machine with other work makes no hang of it; by the clock only where it waits for ever."""
    try:
        return subprocess.run(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, timeout=seconds * 30,
                              preexec_fn=lambda: resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds)), **more).returncode
    except subprocess.TimeoutExpired:
        return 1  # it hangs: noticed


def main():
    wanted = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    os.makedirs(TREE, exist_ok=True)
    files = subprocess.run(["git", "ls-files", "-co", "--exclude-standard"], cwd=ROOT, capture_output=True, text=True).stdout.split("\n")
    for f in files:
        source, target = os.path.join(ROOT, f), os.path.join(TREE, f)
        if not f or not os.path.isfile(source):
            continue
        os.makedirs(os.path.dirname(target), exist_ok=True)
        if not os.path.exists(target) or open(source, "rb").read() != open(target, "rb").read():
            shutil.copyfile(source, target)  # of today: with the time of the source a build could take it for older than its object
            shutil.copymode(source, target)
    kept = set(files)
    for folder, _, names in os.walk(TREE):
        for name in names:
            if os.path.relpath(os.path.join(folder, name), TREE) not in kept:
                os.remove(os.path.join(folder, name))  # the project has it no more
    print("building what is not changed …", flush=True)
    if run(["cmake", "-S", TREE, "-B", BUILD, "-G", "Ninja", "-DCMAKE_CXX_FLAGS_RELWITHDEBINFO=-O1 -g0 -DNDEBUG", "-DCMAKE_EXE_LINKER_FLAGS=-fuse-ld=lld"], 300) or run(["cmake", "--build", BUILD, "--target", "core-tests"], 5400):
        sys.exit("it does not build")
    tests = [os.path.join(BUILD, "core-tests"), "--abort", "~killed at random*"]  # that one goes by the clock
    near = [tests[0], "--abort", "-#", files_first(["solve", "rules", "check", "level"])]  # most is noticed there, in seconds
    if run(tests, 600, cwd="/"):
        sys.exit("the tests fail before anything is changed")
    everything = candidates()
    places = len(everything)
    random.Random(seed).shuffle(everything)
    part, parts = (int(x) for x in PART.split("/"))
    everything = everything[:wanted * 2][part - 1::parts]
    wanted = wanted // parts
    known = explained()
    caught = survived = same = broken = 0
    begun = time.time()
    print(f"{places} places; {wanted} of them, seed {seed}, part {PART}", flush=True)
    for path, number, start, end, other in everything:
        if caught + survived + same >= wanted:
            break
        target = os.path.join(TREE, path)
        original = open(target, encoding="utf-8").read()
        lines = original.split("\n")
        line = lines[number]
        lines[number] = line[:start] + other + line[end:]
        change = f"{line[start:end].strip()} → {other.strip()}"
        try:
            with open(target, "w", encoding="utf-8") as f:
                f.write("\n".join(lines))
            if run(["cmake", "--build", BUILD, "--target", "core-tests"], 600):
                broken += 1
            elif run(near, 120, cwd="/") or run(tests, 300, cwd="/"):
                caught += 1
            elif (path, line.strip(), change) in known:
                same += 1
            else:
                survived += 1
                print(f"SURVIVED {path}:{number + 1}  {change}\n    {line.strip()}", flush=True)
        finally:
            with open(target, "w", encoding="utf-8") as f:
                f.write(original)
        done = caught + survived + same
        if done and done % 10 == 0:
            print(f"  {done}: {caught} caught, {survived} survived, {same} explained, {broken} did not compile, {time.time() - begun:.0f} s", flush=True)
    total = caught + survived
    print(f"{caught} of {total} caught ({100 * caught / max(1, total):.1f} %), {survived} survived, {same} change nothing (explained), {broken} did not compile")
    sys.exit(0 if survived == 0 else 2)


if __name__ == "__main__":
    main()
