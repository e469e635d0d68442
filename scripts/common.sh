# Shared by ./start, ./test and ./bench. Sourced, never run.

root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1 MSBUILDDISABLENODEREUSE=1

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
  [[ "$(dotnet --version 2>/dev/null)" == 10.* ]] || die "The .NET SDK 10 is needed; found $(dotnet --version 2>/dev/null || echo none)."
  command -v node >/dev/null && command -v npm >/dev/null || die "Node.js 20 or newer with npm is missing. Install it and start again."
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || die "Node.js 20 or newer is needed; found $(node --version)."
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

free_port() { node -e 'const s=require("net").createServer();s.listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})'; }
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

# pg_begin FOLDER PORT LOG [options...]: starts the cluster on loopback only, without sockets.
pg_begin() {
  local folder=$1 port=$2 log=$3; shift 3
  touch "$log"; if [ "$(id -u)" = 0 ]; then chown postgres "$log"; fi
  as_pg "$pg_bin/pg_ctl" -D "$folder" -l "$log" -w -t 60 -s \
    -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c shared_buffers=256MB -c work_mem=64MB -c maintenance_work_mem=256MB -c max_wal_size=4GB -c jit=off -c random_page_cost=1.1 $*" \
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

# wait_ready URL PID SECONDS
wait_ready() {
  local until=$((SECONDS + $3))
  until curl -fsS -o /dev/null "$1" 2>/dev/null || node -e 'fetch(process.argv[1]).then(r=>process.exit(r.ok?0:1),()=>process.exit(1))' "$1" 2>/dev/null; do
    kill -0 "$2" 2>/dev/null || return 1
    [ $SECONDS -lt $until ] || return 1
    sleep 0.2
  done
}
