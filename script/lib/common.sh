# Shared by the scripts: words, checks, installs. Sourced, never run.
set -euo pipefail
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
cd "$root"
export NEXT_TELEMETRY_DISABLED=1

say() { printf '%s\n' "· $*"; }
die() { printf '%s\n' "✗ $*" >&2; exit 1; }

need_node() {
  command -v node >/dev/null 2>&1 || die "Node is missing: install Node 20.12 or newer (Debian: apt install nodejs npm)."
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=12)?0:1)' ||
    die "Node $(node --version) is too old: this needs 20.12 or newer."
  command -v npm >/dev/null 2>&1 || die "npm is missing: it comes with Node (Debian: apt install npm)."
}

# need_port PORT COMMAND: the port is free, or it is said whose it is.
need_port() {
  [[ $1 =~ ^[0-9]+$ ]] && [ "$1" -gt 0 ] && [ "$1" -lt 65536 ] || die "PORT=$1 is not a port: choose one from 1 to 65535."
  case $(node script/lib/port.mjs "$1") in
    ours) say "Already running: http://127.0.0.1:$1"; exit 0 ;;
    elsewhere) die "Port $1 is taken by Mellow Plumb from another folder, with other jobs. Choose another port: PORT=$(($1 + 1)) $2" ;;
    taken) die "Port $1 is taken by another program. Choose another: PORT=$(($1 + 1)) $2" ;;
    forbidden) die "Port $1 may not be used by this user. Choose another: PORT=4271 $2" ;;
  esac
}

# need_packages COMMAND:PACKAGE… installs the Debian packages whose command is not there.
need_packages() {
  local missing=() pair
  for pair in "$@"; do
    PATH="$PATH:/usr/sbin" command -v "${pair%%:*}" >/dev/null 2>&1 || missing+=("${pair##*:}")
  done
  [ ${#missing[@]} -eq 0 ] && return
  command -v apt-get >/dev/null 2>&1 || die "Missing: ${missing[*]}. This is not Debian, so install them by hand."
  local as=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null 2>&1 || die "Missing: ${missing[*]}. Installing them takes root: run 'apt-get install ${missing[*]}' as root, then this again."
    say "Installing ${missing[*]} takes root; sudo may ask for your password."
    as=(sudo)
  fi
  say "Installing ${missing[*]}"
  local log
  log=$(mktemp)
  if ! { "${as[@]}" apt-get update && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}"; } >"$log" 2>&1; then
    tail -n 15 "$log" >&2
    grep -q 'No space left' "$log" && die "The disk is full: free about 1 GB, then run this again."
    die "Debian packages could not be installed (above: the last lines of apt)."
  fi
  rm -f "$log"
}

# Installs the npm packages when the lock file changed since the last time.
need_modules() {
  local stamp=node_modules/.installed want
  want=$(node -e 'process.stdout.write(require("crypto").createHash("sha256").update(require("fs").readFileSync("package-lock.json")).update(process.version).digest("hex"))')
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$want" ] && return
  say "Installing npm packages (a minute or two)"
  local log
  log=$(mktemp)
  if ! npm ci --no-audit --no-fund --loglevel=error >"$log" 2>&1; then
    tail -n 15 "$log" >&2
    grep -q 'ENOSPC' "$log" && die "The disk is full: free about 2 GB, then run this again."
    die "npm ci failed (above: its last lines)."
  fi
  rm -f "$log"
  printf '%s' "$want" >"$stamp"
}

# Builds the application when a source changed since the last build.
need_build() {
  local stamp=.next/built want
  want=$(find src public script/lib/bundle.mjs package-lock.json next.config.ts postcss.config.mjs tsconfig.json tsconfig.base.json -type f -print0 | LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum)
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$want" ] && [ -f .next/standalone/server.js ] && return
  say "Building the application (about a minute)"
  local log
  log=$(mktemp)
  if ! node_modules/.bin/next build >"$log" 2>&1; then
    tail -n 40 "$log" >&2
    grep -q 'ENOSPC' "$log" && die "The disk is full: free about 1 GB, then run this again."
    die "The build failed (above: its last lines)."
  fi
  rm -f "$log"
  node script/lib/bundle.mjs || die "What runs beside the pages could not be bundled (above: why)."
  rm -rf .next/standalone/.next/static .next/standalone/public
  cp -r .next/static .next/standalone/.next/static
  cp -r public .next/standalone/public
  cp .next/sw.js .next/standalone/public/sw.js
  printf '%s' "$want" >"$stamp"
}

# Checks every type: the core first, room by room, since what the others read of it are its declarations.
check_types() {
  node_modules/.bin/next typegen && node_modules/.bin/tsc -b tsconfig.core.json && node_modules/.bin/tsc --noEmit && node_modules/.bin/tsc --noEmit -p tsconfig.tests.json && node_modules/.bin/tsc --noEmit -p tsconfig.seams.json
}

# Runs a TypeScript file as the server would see it.
run_ts() { node --conditions=react-server --import tsx "$@"; }
