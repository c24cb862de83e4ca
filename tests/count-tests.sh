#!/usr/bin/env bash
# Fails unless ctest has one entry for each test that the Catch2 programs list: a test that does not run is a failure.
# usage: count-tests.sh BUILD PREFIX PROGRAM [PREFIX PROGRAM]…
set -euo pipefail
build=$1
shift
entries=$(ctest --test-dir "$build" -N)
while [ $# -gt 1 ]; do
    prefix=$1 program=$2
    shift 2
    # The names themselves are compared, not only how many there are.
    if ! diff <("$program" --list-test-names-only | grep . | sort) <(sed -n "s/^ *Test *#[0-9]*: $prefix//p" <<<"$entries" | sort); then
        echo "$program lists tests that ctest does not run, or the other way round (see above)"
        exit 1
    fi
    # Catch2 indents a name to its first colon: one that stands near the edge of its 80 columns ends the program when it tells of a failure.
    if "$program" --list-test-names-only | awk 'index($0, ": ") > 70 { print; found = 1 } END { exit !found }'; then
        echo "these names have a colon too far to the right: their failures could not be told"
        exit 1
    fi
    [ -n "$("$program" --list-test-names-only || true)" ] || { echo "$program lists no tests"; exit 1; }
    echo "$prefix$("$program" --list-test-names-only | grep -c .) tests, one entry each"
done
