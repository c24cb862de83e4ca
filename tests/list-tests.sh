#!/usr/bin/env bash
# Writes one ctest entry for every test that a Catch2 program lists, whatever signs its name holds.
# usage: list-tests.sh PROGRAM PREFIX FILE [PROPERTY VALUE]…
# Catch2's own CMake module splits names at ";" and counts a name that matches nothing as a pass.
set -euo pipefail
program=$1 prefix=$2 file=$3
shift 3
properties=()
while [ $# -gt 1 ]; do
    properties+=("$1 [==[$2]==]")
    shift 2
done

# Its exit code is the number of tests, so an empty list is what tells that it could not list them (two tests of one name, say).
names=$("$program" --list-test-names-only || true)
[ -n "$names" ] || { echo "$program lists no tests"; exit 1; }

{
    while IFS= read -r name; do
        [ -n "$name" ] || continue
        pattern=$(sed 's/[][\\,*"]/\\&/g' <<<"$name")
        # From "/": a test that needs the build folder around it fails. --warn NoTests: a name that matches nothing fails.
        printf 'add_test([==[%s]==] [==[%s]==] [==[%s]==] --warn NoTests)\n' "$prefix$name" "$program" "$pattern"
        printf 'set_tests_properties([==[%s]==] PROPERTIES WORKING_DIRECTORY / %s)\n' "$prefix$name" "${properties[*]}"
    done <<<"$names"
} >"$file.new"
mv "$file.new" "$file"
