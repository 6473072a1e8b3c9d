#!/usr/bin/env bash
# Format, lint and every test. Called by ./tern test; ends with one line "N passed, N failed" over all suites.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
: "${RELEASE:?run ./tern test}"
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
# What runs for seconds has nothing of being watched for its hot paths.
export DOTNET_TieredPGO=0
results=.build/results
rm -rf "$results" && mkdir -p "$results"
passed=0 failed=0

say() { printf '\n== %s\n' "$*"; }
step() { # name, command...: one check that passes or fails
  local name=$1
  shift
  say "$name"
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)) && printf 'FAILED: %s\n' "$name"; fi
}

chromium=${TERN_CHROMIUM:-$(command -v chromium || command -v chromium-browser || command -v google-chrome || true)}
if [ -z "$chromium" ]; then
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    say "Installing chromium"
    apt-get update -qq && apt-get install -y -qq chromium >/dev/null
    chromium=$(command -v chromium || true)
  fi
  if [ -z "$chromium" ]; then
    echo "The browser tests need Chromium: install your system's package chromium, or name one in TERN_CHROMIUM."
  fi
fi

step "The application builds" ./tern build
for folder in web tests/e2e; do
  if [ ! -d $folder/node_modules ] || [ $folder/package-lock.json -nt $folder/node_modules/.package-lock.json ]; then
    say "Installing the packages of $folder"
    (cd $folder && npm ci --loglevel=error)
  fi
done
# Style and analysers are errors of the build itself; what is left is white space.
step "C# is formatted" dotnet format whitespace . --folder --verify-no-changes --include src/ tests/ bench/ --exclude src/LivelyTern.Data/Migrations/
# One thread of work for a minute: done beside the C# suites, told after them.
lint() { cd web && npx prettier --check --log-level warn . && npx eslint . --max-warnings 0 && npx tsc && cd ../tests/e2e && ../../web/node_modules/.bin/prettier --check --log-level warn . && npx tsc; }
(lint) >"$results/lint.log" 2>&1 &
linting=$!

# shellcheck disable=SC2086 # several flags
step "The C# tests build" dotnet build LivelyTern.slnx $RELEASE

# The short suites run beside the long one, whose hosts leave part of the machine idle; each is told when it has ended.
suite() {
  # shellcheck disable=SC2086 # several flags
  dotnet test "tests/$1" $RELEASE --no-build --logger "trx;LogFileName=$1.trx" --results-directory "$results" >"$results/$1.log" 2>&1
  echo $? >"$results/$1.code"
}
(for short in Core.Tests Formats.Tests Solving.Tests; do suite $short; done) &
short=$!
suite Web.Tests
wait "$short"

# Counts of an xUnit run from its result file, so that a run that never started counts as failed.
for suite in Core.Tests Formats.Tests Solving.Tests Web.Tests; do
  say "$suite"
  cat "$results/$suite.log"
  code=$(cat "$results/$suite.code")
  counters=$(grep -o '<Counters [^>]*>' "$results/$suite.trx" 2>/dev/null || true)
  if [ -n "$counters" ]; then
    total=$(sed 's/.* total="\([0-9]*\)".*/\1/' <<<"$counters")
    good=$(sed 's/.* passed="\([0-9]*\)".*/\1/' <<<"$counters")
    passed=$((passed + good)) failed=$((failed + total - good))
    # A run whose process died counts as failed even where every test that ended had passed.
    if [ "$total" = 0 ] || { [ "$code" != 0 ] && [ "$good" = "$total" ]; }; then
      failed=$((failed + 1))
      echo "FAILED: $suite did not run to its end"
    fi
  else
    failed=$((failed + 1))
    echo "FAILED: $suite did not run"
  fi
done

ended() { wait "$1"; local as=$?; cat "$2"; return $as; }
step "TypeScript is formatted and lints" ended "$linting" "$results/lint.log"

say "The whole way in Chromium"
rm -f tests/e2e/test-results/report.json
(cd tests/e2e && TERN_CHROMIUM="$chromium" npx playwright test)
counts=$(node -e '
  const { stats } = JSON.parse(require("fs").readFileSync("tests/e2e/test-results/report.json", "utf8"));
  console.log(stats.expected, stats.unexpected + stats.flaky + stats.skipped);
' 2>/dev/null || echo "0 1")
passed=$((passed + ${counts% *})) failed=$((failed + ${counts#* }))

printf '\n%d passed, %d failed\n' "$passed" "$failed"
[ "$failed" = 0 ]
