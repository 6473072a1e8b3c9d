#!/usr/bin/env bash
# New seeds for everything that tests by chance, for as many minutes as one likes, or one part of it against the running program. Called by
# ./tern soak; prints the seed of what fails.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
# One part against the running program, which ends with its line of counts.
case "${1:-}" in
  commands | requests | files | kills | clients | fits)
    dotnet build tests/Soak -c Release -v quiet --nologo || exit 1
    program=$(dotnet build tests/Soak -c Release -v quiet --nologo -getProperty:TargetPath) || exit 1
    exec dotnet "$program" "$1" "${2:-10}" "${3:-$((RANDOM * 32768 + RANDOM))}"
    ;;
esac
minutes=${1:-10}
[[ $minutes =~ ^[0-9]+$ ]] || { echo "Say for how many minutes: ./tern soak 30"; exit 2; }
until=$((SECONDS + minutes * 60))
rounds=0
for suite in Core.Tests Formats.Tests Solving.Tests Web.Tests; do
  dotnet build "tests/$suite" -c Release -v quiet --nologo || exit 1
done
while [ $SECONDS -lt $until ] || [ $rounds = 0 ]; do
  seed=$((RANDOM * 32768 + RANDOM))
  for suite in Core.Tests Formats.Tests Solving.Tests Web.Tests; do
    filter=()
    [ $suite = Web.Tests ] && filter=(--filter "DisplayName~seed:")
    if ! TERN_SEED=$seed dotnet test "tests/$suite" -c Release -v quiet --nologo --no-build "${filter[@]}" >.build/soak.log 2>&1; then
      cat .build/soak.log
      echo "FAILED with seed $seed: TERN_SEED=$seed dotnet test tests/$suite. Make what it found a case of its own."
      exit 1
    fi
  done
  rounds=$((rounds + 1))
  echo "seed $seed: passed"
done
echo "$rounds seeds, none failed"
