#!/usr/bin/python3
"""Names of structured bindings that a lambda captures by default: clang 14, the fuzz targets' compiler, refuses them.

usage: check_bindings.py FILE …      Exits with 1 and names the places; `name = name` in the capture is the way out.
"""
import re
import sys

BINDING = re.compile(r"\bauto\s*&{0,2}\s*\[([\w\s,]+)\]")
LAMBDA = re.compile(r"(?<![\w\])])\[([&=](?:\s*,[^\]]*)?)\]")


def blanked(text):
    """The text with its comments and strings blanked, as long as it was."""
    pattern = re.compile(r'//[^\n]*|/\*.*?\*/|"(?:\\.|[^"\\\n])*"|\'(?:\\.|[^\'\\\n])\'', re.S)
    return pattern.sub(lambda m: re.sub(r"[^\n]", " ", m.group()), text)


def block_end(text, at):
    """Behind the bracket that closes the one at `at`."""
    pairs = {"{": "}", "(": ")"}
    opening, closing, depth = text[at], pairs[text[at]], 0
    for i in range(at, len(text)):
        depth += (text[i] == opening) - (text[i] == closing)
        if depth == 0:
            return i + 1
    return len(text)


def scope_of(text, at):
    """Where a binding declared at `at` is known: the statement of a loop, else to the end of its block."""
    start = text.rfind("\n", 0, at)
    loop = re.search(r"\bfor\s*\([^;{}]*$", text[start:at])
    if loop:
        body = block_end(text, start + loop.start() + text[start + loop.start():].index("("))
        while body < len(text) and text[body].isspace():
            body += 1
        if text[body:body + 1] == "{":
            return block_end(text, body)
        depth = 0
        for i in range(body, len(text)):
            depth += (text[i] in "({") - (text[i] in ")}")
            if depth == 0 and text[i] in ";}" and not text[i + 1:i + 2] == ")":
                return i
        return len(text)
    depth = 0
    for i in range(at, len(text)):
        depth += (text[i] == "{") - (text[i] == "}")
        if depth < 0:
            return i
    return len(text)


def faults(path):
    text = blanked(open(path, encoding="utf-8").read())
    for binding in BINDING.finditer(text):
        names = {n.strip() for n in binding.group(1).split(",")} - {""}
        end = scope_of(text, binding.start())
        for intro in LAMBDA.finditer(text, binding.end(), end):
            own = set(re.findall(r"(\w+)\s*=", intro.group(1)))
            brace = text.find("{", intro.end())
            if brace < 0 or brace > end:
                continue
            body = text[intro.end():block_end(text, brace)]
            parameters = set(re.findall(r"(\w+)\s*[,)]", body.split("{")[0]))
            for name in names - own - parameters:
                used = re.search(rf"(?<![\w.>]){name}\b(?!\s*:[^:])", body)
                if used and not re.search(rf"auto\s*&?\s*{name}\b", body):
                    yield text.count("\n", 0, intro.start()) + 1, name


def main():
    bad = 0
    for path in sys.argv[1:]:
        for line, name in faults(path):
            print(f"{path}:{line}: a lambda captures the structured binding \"{name}\": write {name} = {name}")
            bad += 1
    sys.exit(1 if bad else 0)


if __name__ == "__main__":
    main()
