#!/usr/bin/env bash
# Private PostgreSQL for trying out, builds and tests: start | stop | status | port | password [ROLE] |
# ensure DB | recreate DB | build FILE DB | psql DB
# PG_FOR names one apart from that of `start`, for tests: it is quick and does not outlive a crash of the machine.
# Roles: keeper (superuser, used here alone), zephyrmist (owns the database of `start`, nothing else),
# builder (makes and owns databases of builds and tests). Their passwords are random, in files that
# only whoever started it can read, and never stand on a command line. It listens on loopback only and asks everybody for a password.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
FOR=${PG_FOR:+-$PG_FOR}
BIN=${PG_BIN:-$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)}
[ -x "$BIN/initdb" ] || case ${1:-start} in stop) exit 0 ;; status) echo "stopped, and not installed"; exit 3 ;; esac
[ -x "$BIN/initdb" ] || { echo "no initdb: apt-get install postgresql" >&2; exit 2; }
HOME_DIR=${PG_HOME:-$ROOT/.pg$FOR}
AS=()
if [ "$(id -u)" = 0 ]; then                      # postgres refuses root
  AS=(setpriv --reuid=postgres --regid=postgres --init-groups --reset-env --)
  # every parent directory must be enterable (x) for the postgres user
  p=$HOME_DIR; while [ ! -d "$p" ]; do p=$(dirname "$p"); done
  if ! (cd / && "${AS[@]}" test -x "$p"); then
    HOME_DIR=/var/tmp/zephyrmist-pg-$(printf %s "$ROOT" | sha256sum | cut -c1-12)$FOR
  fi
  install -d -o postgres -g postgres -m 700 "$HOME_DIR"
else
  mkdir -p "$HOME_DIR" && chmod 700 "$HOME_DIR"
fi
if [ "$(id -u)" != 0 ] && [ ! -O "$HOME_DIR" ]; then
  echo "$HOME_DIR belongs to $(stat -c %U "$HOME_DIR"); set PG_HOME to another directory" >&2; exit 3; fi
SECRETS=$HOME_DIR/secrets; (umask 077; mkdir -p "$SECRETS")
DATA=$HOME_DIR/data; cd /                        # cwd must be enterable too
# below the ports that the machine gives to calls, and another for each folder, so that several begin at once
PORT_WANTED=${PG_PORT:-$((20000 + $(printf %s "$HOME_DIR" | cksum | cut -d' ' -f1) % 10000))}
SETTINGS="-c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=100"
[ -z "$FOR" ] || SETTINGS+=" -c max_connections=300 -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
run() { "${AS[@]}" "$@"; }
port() { cat "$HOME_DIR/port" 2>/dev/null || echo "$PORT_WANTED"; }
running() { run "$BIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; }
busy() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
password() { # role
  [ -s "$SECRETS/$1" ] || (umask 077; head -c 24 /dev/urandom | base64 -w0 | tr '+/' '-_' >"$SECRETS/$1")
  cat "$SECRETS/$1"
}
as() { # role, arguments of psql
  local role=$1; shift
  PGPASSWORD=$(password "$role") "$BIN/psql" -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(port)" -U "$role" "$@"
}
init() {
  rm -rf "$DATA" "$SECRETS/made"
  local pw; pw=$(mktemp -p "$HOME_DIR"); password keeper >"$pw"; [ "$(id -u)" != 0 ] || chown postgres "$pw"
  # a program of tests opens many connections in a short life: each is made sooner with md5
  run "$BIN/initdb" -D "$DATA" -U keeper --auth="$([ -z "$FOR" ] && echo scram-sha-256 || echo md5)" --pwfile="$pw" \
    --encoding=UTF8 --locale=C.UTF-8 --no-instructions --no-sync >/dev/null
  rm -f "$pw"
}
roles() {
  [ ! -f "$SECRETS/made" ] || return 0
  # Databases from before these roles: their one role becomes the keeper, what it owned becomes zephyrmist's.
  if ! as keeper -d postgres -c "" 2>/dev/null; then
    export PGPASSWORD=${PG_PASSWORD:-zephyrmist}
    local old=("$BIN/psql" -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(port)" -d postgres)
    "${old[@]}" -U zephyrmist <<<"set client_min_messages=warning; drop role if exists passing;
      create role passing superuser login password '$(password keeper)';"
    PGPASSWORD=$(password keeper) "${old[@]}" -U passing <<<"alter role zephyrmist rename to keeper;
      alter role keeper password '$(password keeper)';"
    unset PGPASSWORD
    as keeper -d postgres -c "drop role passing"
    # what builds and tests had made is theirs to make anew
    as keeper -d postgres -Atc "select datname from pg_database where datname like 'zephyrmist\_%' or datname = 'practice_codegen'" \
      | while IFS= read -r d; do as keeper -d postgres -c "drop database \"$d\" with (force)"; done
  fi
  as keeper -d postgres <<<"create role zephyrmist login password '$(password zephyrmist)';
    create role builder login createdb password '$(password builder)';
    revoke connect on database postgres from public; grant connect on database postgres to builder;"
  if as keeper -d postgres -Atc "select 1 from pg_database where datname = 'zephyrmist'" | grep -q 1; then
    as keeper -d postgres -c "alter database zephyrmist owner to zephyrmist"
    as keeper -d zephyrmist -c "do \$\$ declare o text; begin
      for o in select format('schema %I', nspname) from pg_namespace where nspname = 'practice'
        union all select format('%s %s', case relkind when 'S' then 'sequence' else 'table' end, oid::regclass)
          from pg_class where relkind in ('r', 'S') and relnamespace in
            (select oid from pg_namespace where nspname in ('public', 'practice'))
          and not exists (select 1 from pg_depend d where d.objid = pg_class.oid and d.deptype in ('a', 'i'))
        union all select format('function %s', oid::regprocedure) from pg_proc
          where pronamespace = 'public'::regnamespace
      loop execute 'alter ' || o || ' owner to zephyrmist'; end loop; end \$\$"
  fi
  touch "$SECRETS/made"
}
start() {
  exec 9>"$HOME_DIR/lock"; flock 9
  [ -s "$DATA/PG_VERSION" ] || init
  if ! running; then
    local p tries=0; p=$(port)
    while true; do
      while busy "$p"; do p=$((p + 1)); done
      echo "$p" >"$HOME_DIR/port"
      ! run "$BIN/pg_ctl" -D "$DATA" -w -t 60 -l "$HOME_DIR/log" -s start -o "-p $p $SETTINGS ${PG_EXTRA:-}" 9>&- 2>"$HOME_DIR/errors" || break
      busy "$p" && [ $((tries += 1)) -lt 20 ] || { cat "$HOME_DIR/errors" >&2; tail -20 "$HOME_DIR/log" >&2; exit 1; } # else somebody was quicker
    done
  fi
  roles
  flock -u 9
}
has() { as keeper -d postgres -Atc "select 1 from pg_database where datname = '$1'" | grep -q 1; }
make() { as keeper -d postgres -c "create database \"$1\" owner zephyrmist" -c "revoke connect, temporary on database \"$1\" from public"; }
case ${1:-start} in
  start) start ;;
  stop) ! running || run "$BIN/pg_ctl" -D "$DATA" -m fast -w -s stop ;;
  status) running && echo "running on $(port)" || { echo stopped; exit 3; } ;;
  port) port ;;
  password) password "${2:-builder}"; echo ;;
  ensure) start; has "$2" || make "$2" ;;
  recreate) start; as keeper -d postgres -c "drop database if exists \"$2\" with (force)"; make "$2" ;;
  build) # FILE DB: an empty database for generating classes; how to reach it goes into FILE
    start; as keeper -d postgres -c "set client_min_messages=warning" -c "drop database if exists $3 with (force)" -c "create database $3 owner builder"
    mkdir -p "$(dirname "$2")"
    (umask 077; printf 'pg.port=%s\npg.user=builder\npg.password=%s\n' "$(port)" "$(password builder)" >"$2") ;;
  psql) as keeper -d "${@:2}" ;;
  *) echo "usage: $0 start|stop|status|port|password [ROLE]|ensure DB|recreate DB|psql DB" >&2; exit 64 ;;
esac
