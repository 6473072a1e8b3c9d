#!/usr/bin/env bash
# Analyzers, style rules, formatting, lint and types, without running a test but the one of the architecture. Called by ./tern check, which
# fits a pre-commit hook, and beside the suites by ./tern test.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/build.sh
failed=0
check() { # name, command...
  local name=$1 from=$EPOCHREALTIME
  shift
  if "$@"; then printf '  %6s s  %s\n' "$(seconds_since "$from")" "$name"; else
    printf '  %6s s  %s: FAILED\n' "$(seconds_since "$from")" "$name"
    failed=1
  fi
}

lint_front_end() { (cd web && npx prettier --check --log-level warn . && npx eslint . --max-warnings 0 && npx tsc); }
lint_browser_tests() { (cd tests/e2e && ../../web/node_modules/.bin/prettier --check --log-level warn . && npx tsc); }

check "C# is formatted" dotnet format whitespace . --folder --verify-no-changes --include src/ tests/ bench/ --exclude src/LivelyTern.Data/Migrations/
check "Front end: prettier, eslint, tsc" lint_front_end
check "Browser tests: prettier, tsc" lint_browser_tests
# Debug is the configuration in which analyzers and style rules run.
check "C# analyzers and style rules" dotnet build LivelyTern.slnx -c Debug -v quiet --nologo
exit $failed
