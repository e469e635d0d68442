# Shared by ./start, ./test and ./bench. Sourced, never run.

root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1 MSBUILDDISABLENODEREUSE=1
# Short runs gain little from methods that are measured before they are compiled for good (the demo loaded in 27 s instead of 33).
export DOTNET_TieredPGO=0

say() { printf '%s\n' "$*" >&2; }
die() { say "$*"; exit 1; }

# install COMMAND-TEST PACKAGE...: installs Debian packages when the test fails.
install() {
  local present=$1; shift
  eval "$present" >/dev/null 2>&1 && return 0
  command -v apt-get >/dev/null || die "Missing: $*. Install them by your system's means and start again."
  local sudo=""
  if [ "$(id -u)" != 0 ]; then
    sudo -n true 2>/dev/null || die "Missing: $*. Run: sudo apt-get install $*"
    sudo="sudo -n"
  fi
  say "Installing $* …"
  { $sudo apt-get update -qq && DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends "$@"; } >/tmp/fendrik-install.$$ 2>&1 \
    || { tail -5 "/tmp/fendrik-install.$$" >&2; die "Installing $* failed."; }
  rm -f "/tmp/fendrik-install.$$"
  eval "$present" >/dev/null 2>&1 || die "$* is installed, but does not work."
}

need_sdk() {
  command -v dotnet >/dev/null || die "The .NET SDK 10 is missing. Install it and start again."
  local found; found="$(dotnet --version 2>/dev/null || echo none)"
  [[ "$found" == 10.* ]] || die "The .NET SDK 10 is needed; found $found."
  command -v node >/dev/null && command -v npm >/dev/null || die "Node.js 20 or newer with npm is missing. Install it and start again."
  found="$(node --version)"; found="${found#v}"
  [ "${found%%.*}" -ge 20 ] || die "Node.js 20 or newer is needed; found $found."
}

pg_home() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }

need_postgres() {
  install '[ -x "$(pg_home)/initdb" ]' postgresql postgresql-client
  pg_bin="$(pg_home)"
}

need_chromium() { install 'command -v chromium && command -v chromedriver' chromium chromium-driver; }

# PostgreSQL refuses to run as root: then the user that its package makes runs it.
pg_user() { if [ "$(id -u)" = 0 ]; then echo postgres; else id -un; fi; }
as_pg() { if [ "$(id -u)" = 0 ]; then runuser -u postgres -- "$@"; else "$@"; fi; }

# free_port: a port that nobody listens on, away from those that the system gives to outgoing connections.
free_port() { local port; while port=$((15000 + RANDOM % 15000)); port_taken "$port"; do :; done; echo "$port"; }
port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
random_word() { node -e 'console.log(require("crypto").randomBytes(18).toString("base64url"))'; }

# pg_create FOLDER PASSWORD: makes a cluster; C collation, so that order is the same everywhere and sorting fast.
pg_create() {
  local folder=$1 password_file
  mkdir -p "$folder"
  password_file="$(mktemp)"
  printf '%s\n' "$2" > "$password_file"
  if [ "$(id -u)" = 0 ]; then chown postgres "$folder" "$password_file"; fi
  chmod 700 "$folder"
  as_pg "$pg_bin/initdb" -D "$folder" -U fendrik --pwfile="$password_file" --auth=scram-sha-256 -E UTF8 --locale=C.UTF-8 >/dev/null \
    || { rm -f "$password_file"; die "The database cluster could not be made in $folder."; }
  rm -f "$password_file"
}

# cluster_of DATA: where the database of a data folder lies. Its own user must be able to reach it; a home folder may be closed to it.
cluster_of() {
  if as_pg test -x "$1"; then echo "$1/postgres"; else echo "/var/lib/fendrik/$(printf '%s' "$1" | sha256sum | cut -c1-16)"; fi
}

# data_version: the number of migrations: each makes data that programs before it cannot read.
data_version() { find "$root/src/Fendrik.Data/Migrations" -name '2*.cs' ! -name '*.Designer.cs' | wc -l; }

# pg_memory: an eighth of the machine's memory for the database's own cache, 128 MB to 2 GB.
pg_memory() { awk '/^MemTotal/ { mb = int($2 / 8192); print (mb < 128 ? 128 : mb > 2048 ? 2048 : mb) "MB" }' /proc/meminfo; }

# pg_begin FOLDER PORT LOG [options...]: starts the cluster on loopback only, without sockets.
pg_begin() {
  local folder=$1 port=$2 log=$3; shift 3
  touch "$log"; if [ "$(id -u)" = 0 ]; then chown postgres "$log"; fi
  as_pg "$pg_bin/pg_ctl" -D "$folder" -l "$log" -w -t 60 -s \
    -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c shared_buffers=$(pg_memory) -c wal_compression=lz4 -c work_mem=64MB -c maintenance_work_mem=256MB -c max_wal_size=4GB -c jit=off -c random_page_cost=1.1 $*" \
    start >/dev/null || { tail -3 "$log" >&2; die "PostgreSQL did not start; its log is $log."; }
}

pg_end() { as_pg "$pg_bin/pg_ctl" -D "$1" -m fast -w -t 30 stop >/dev/null 2>&1 || true; }

# built NAME FOLDER... -- COMMAND...: runs the command unless it succeeded before on the same files.
built() {
  local stamp="$root/.fendrik-build/$1" now; shift
  local folders=()
  while [ "$1" != -- ]; do folders+=("$1"); shift; done
  shift
  now="$(cd "$root" && find "${folders[@]}" \( -name node_modules -o -name bin -o -name obj -o -name wwwroot \) -prune -o -type f -printf '%p %s %T@\n' | sort | sha256sum)"
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$now" ] && return 0
  "$@" || return 1
  mkdir -p "$root/.fendrik-build"
  printf '%s\n' "$now" > "$stamp"
}

web_install() { (cd "$root/src/web" && npm ci --no-audit --no-fund --silent); }
web_build() { (cd "$root/src/web" && npm run --silent build); }
server_build() { (cd "$root" && dotnet build -c Release --nologo -v quiet src/Fendrik.Server && dotnet build -c Release --nologo -v quiet src/Fendrik.Network); }

# is_ready PORT: the service there answers that it is well. Asked by the shell itself, so that asking takes nothing from starting.
is_ready() {
  (exec 3<>"/dev/tcp/127.0.0.1/$1" && printf 'GET /health HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3 && IFS= read -r -t 5 line <&3 && [[ "$line" == *" 200 "* ]]) 2>/dev/null
}

# wait_ready PORT PID SECONDS
wait_ready() {
  local until=$((SECONDS + $3))
  until is_ready "$1"; do
    kill -0 "$2" 2>/dev/null || return 1
    [ $SECONDS -lt $until ] || return 1
    sleep 0.1
  done
}

# expect WHAT COMMAND...: counts in passed and failed whether the command succeeds.
expect() {
  local what=$1; shift
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); say "FAIL  $what"; fi
}
refuses() { ! "$@" >/dev/null 2>&1; }
