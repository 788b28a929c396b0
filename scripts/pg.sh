#!/usr/bin/env bash
# Private PostgreSQL for development and tests: start | stop | status | url | recreate DB | psql DB
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
PORT_WANTED=${PG_PORT:-54329}; PGROLE=${PG_USER:-zephyrmist}; export PGPASSWORD=${PG_PASSWORD:-zephyrmist}
BIN=${PG_BIN:-$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)}
[ -x "$BIN/initdb" ] || { echo "no initdb: apt-get install postgresql" >&2; exit 2; }
HOME_DIR=${PG_HOME:-$ROOT/.pg}
AS=()
if [ "$(id -u)" = 0 ]; then                      # postgres refuses root
  AS=(setpriv --reuid=postgres --regid=postgres --init-groups --reset-env --)
  # every parent directory must be enterable (x) for the postgres user
  p=$HOME_DIR; while [ ! -d "$p" ]; do p=$(dirname "$p"); done
  if ! (cd / && "${AS[@]}" test -x "$p"); then
    HOME_DIR=/var/tmp/zephyrmist-pg-$(printf %s "$ROOT" | sha256sum | cut -c1-12)
  fi
  install -d -o postgres -g postgres -m 700 "$HOME_DIR"
else
  mkdir -p "$HOME_DIR" && chmod 700 "$HOME_DIR"
fi
if [ "$(id -u)" != 0 ] && [ ! -O "$HOME_DIR" ]; then
  echo "$HOME_DIR belongs to $(stat -c %U "$HOME_DIR"); set PG_HOME to another directory" >&2; exit 3; fi
DATA=$HOME_DIR/data; cd /                        # cwd must be enterable too
run() { "${AS[@]}" "$@"; }
port() { cat "$HOME_DIR/port" 2>/dev/null || echo "$PORT_WANTED"; }
running() { run "$BIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; }
busy() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
sql() { "$BIN/psql" -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(port)" -U "$PGROLE" "$@"; }
start() {
  exec 9>"$HOME_DIR/lock"; flock 9
  if [ ! -s "$DATA/PG_VERSION" ]; then
    rm -rf "$DATA"
    local pw; pw=$(mktemp -p "$HOME_DIR"); printf '%s\n' "$PGPASSWORD" >"$pw"; [ "$(id -u)" != 0 ] || chown postgres "$pw"
    run "$BIN/initdb" -D "$DATA" -U "$PGROLE" --auth=scram-sha-256 --pwfile="$pw" \
      --encoding=UTF8 --locale=C.UTF-8 --no-instructions --no-sync >/dev/null
    rm -f "$pw"
  fi
  if ! running; then
    local p=$(port); while busy "$p"; do p=$((p + 1)); done; echo "$p" >"$HOME_DIR/port"
    run "$BIN/pg_ctl" -D "$DATA" -w -t 60 -l "$HOME_DIR/log" -s start 9>&- \
      -o "-p $p -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=100 ${PG_EXTRA:-}" \
      || { tail -20 "$HOME_DIR/log" >&2; exit 1; }
  fi
  flock -u 9
}
case ${1:-start} in
  start) start; echo "jdbc:postgresql://127.0.0.1:$(port)/postgres" ;;
  stop) ! running || run "$BIN/pg_ctl" -D "$DATA" -m fast -w -s stop ;;
  status) running && echo "running on $(port)" || { echo stopped; exit 3; } ;;
  port) port ;;
  ensure) start; sql -d postgres -Atc "select 1 from pg_database where datname='$2'" | grep -q 1 || sql -d postgres -c "create database \"$2\"" ;;
  recreate) start; sql -d postgres -c "drop database if exists \"$2\" with (force)" -c "create database \"$2\"" ;;
  build) # FILE DB: an empty database for generating classes; its port goes into FILE
    start; sql -d postgres -c "set client_min_messages=warning" -c "drop database if exists $3 with (force)" -c "create database $3"
    mkdir -p "$(dirname "$2")"; echo "pg.port=$(port)" >"$2" ;;
  psql) shift; sql -d "$@" ;;
  *) echo "usage: $0 start|stop|status|port|ensure DB|recreate DB|psql DB" >&2; exit 64 ;;
esac
