#!/usr/bin/env bash
# Format, lint and every test. Called by ./tern test; ends with one line "N passed, N failed" over all suites.
#   --only NAME   a room (pack), a suite (Core.Tests, e2e) or a part of a test's name: only the tests that match, without format and lint
#   --watch SUITE runs a C# suite again whenever a file of it changes
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/build.sh
# Tiered PGO instruments code for a gain that comes after minutes: it does not pay off in short runs.
export DOTNET_TieredPGO=0
results=$build/results
suites=(Core.Tests Formats.Tests Solving.Tests Web.Tests)

only=""
while [ $# -gt 0 ]; do
  case "$1" in
    --only | --watch)
      [ $# -ge 2 ] || { say "$1 needs a name, for example: ./tern test $1 Core.Tests"; exit 2; }
      [ "$1" = --watch ] && exec dotnet watch --project "tests/$2" test
      only=$2
      shift 2
      ;;
    *) say "Unknown option: $1. Known are --only and --watch."; exit 2 ;;
  esac
done

rm -rf "$results" && mkdir -p "$results"
: >"$results/checks.tsv"
: >"$results/steps.tsv"
started=$EPOCHREALTIME

# Runs one step: its time goes into the table at the end, and where it is a check it is counted.
step() { # check | step, name, command...
  local kind=$1 name=$2 from=$EPOCHREALTIME outcome=passed
  shift 2
  printf '\n== %s\n' "$name"
  "$@" || outcome=failed
  [ $outcome = passed ] || printf 'FAILED: %s\n' "$name"
  [ "$kind" = step ] || printf '%s\t%s\n' "$outcome" "$name" >>"$results/checks.tsv"
  printf '%s\t%s\n' "$(seconds_since "$from")" "$name" >>"$results/steps.tsv"
  [ $outcome = passed ]
}

report() { node tests/report.mjs "$results" "$(seconds_since "$started")" "$@"; }

find_chromium() {
  chromium=${TERN_CHROMIUM:-$(command -v chromium || command -v chromium-browser || command -v google-chrome || true)}
  if [ -z "$chromium" ] && [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    step step "Chromium installed" install_chromium
    chromium=$(command -v chromium || true)
  fi
  if [ -z "$chromium" ]; then
    echo "The browser tests need Chromium: install your system's package chromium, or name one in TERN_CHROMIUM."
  fi
  export TERN_CHROMIUM=$chromium
}
install_chromium() { apt-get update -qq && apt-get install -y -qq chromium >/dev/null; }

build_tests() { dotnet build LivelyTern.slnx -c Release -v quiet --nologo; }

run_suite() { # suite, further arguments of dotnet test
  local suite=$1 from=$EPOCHREALTIME
  shift
  dotnet test "tests/$suite" -c Release --no-build --nologo --logger "trx;LogFileName=$suite.trx" --results-directory "$results" "$@" \
    >"$results/$suite.log" 2>&1
  echo $? >"$results/$suite.code"
  printf '%s\t%s\n' "$(seconds_since "$from")" "$suite" >>"$results/steps.tsv"
}

run_browser_tests() { # further arguments of playwright
  rm -f tests/e2e/test-results/report.json
  (cd tests/e2e && npx playwright test "$@") || true
  cp tests/e2e/test-results/report.json "$results/e2e.json"
}

if [ -n "$only" ]; then
  build_app
  install_packages tests/e2e || exit 1
  step step "The tests build" build_tests || exit 1
  ran=()
  for suite in "${suites[@]}"; do
    case "$only" in
      "$suite" | "${suite%.Tests}") run_suite "$suite" ;;
      e2e | *.Tests) continue ;;
      *) run_suite "$suite" --filter "FullyQualifiedName~${only%.cs}" ;;
    esac
    if grep -q 'No test matches' "$results/$suite.log"; then continue; fi
    cat "$results/$suite.log"
    ran+=("$suite")
  done
  if [ "$only" = e2e ] || ls tests/e2e/specs | grep -qi -- "$only"; then
    find_chromium
    if [ "$only" = e2e ]; then run_browser_tests; else run_browser_tests "$only"; fi
    ran+=(e2e)
  fi
  [ ${#ran[@]} -gt 0 ] || { say "No test matches “$only”: name a room, a suite (${suites[*]} e2e) or a part of a test's name."; exit 1; }
  report "${ran[@]}"
  exit
fi

find_chromium
step check "The application builds" bash -c '. scripts/build.sh; build_app' || { report; exit 1; }
step step "Packages of the browser tests" install_packages tests/e2e
step check "The C# tests build" build_tests || { report; exit 1; }

# Analyzers, formatting and lint need one core for minutes: they run beside the C# suites at a lower priority and are reported after them.
nice -n 10 bash tests/check.sh >"$results/check.log" 2>&1 &
checking=$!
(for short in Core.Tests Formats.Tests Solving.Tests; do run_suite $short; done) &
short=$!
run_suite Web.Tests
wait "$short"
for suite in "${suites[@]}"; do
  printf '\n== %s\n' "$suite"
  cat "$results/$suite.log"
done

wait_for_check() { wait "$checking"; local code=$?; cat "$results/check.log"; return $code; }
step check "Format, lint, types and analyzers" wait_for_check
step step "e2e" run_browser_tests
report "${suites[@]}" e2e
