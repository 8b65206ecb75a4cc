#!/usr/bin/env bash
# Which share of the code is tests: non-blank lines of C#, SQL, TypeScript and CSS; generated files and tables of cases aside.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
count() { git ls-files -co --exclude-standard -- "$@" | grep -Ev '(^|/)(obj|bin|node_modules)/|schema\.d\.ts$' | tr '\n' '\0' | xargs -0 cat 2>/dev/null | grep -cv '^[[:space:]]*$' || true; }
tests=$(count 'tests/*.cs')
code=$(count 'src/*.cs' 'src/*.sql' 'web/src/*.ts' 'web/src/*.tsx' 'web/src/*.css' 'bench/*.cs')
echo "Tests are $tests of $((tests + code)) lines, $((100 * tests / (tests + code))) % (a quarter to a third is meant)." >&2
