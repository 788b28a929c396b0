#!/usr/bin/env bash
# Unpacks a program that was built (server | standins) and prints its jar; with "archive" it also gives the JVM an archive of its
# classes, with which it is ready a second sooner. The archive is made by one start with the settings of the caller, in whose
# database it may make tables.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
name=${1:?server or standins}
case $name in server) jar=$ROOT/app/target/zephyrmist-server.jar ;; *) jar=$ROOT/$name/target/$name-1-app.jar ;; esac
dir=${APP_DIR:-$(dirname "$jar")/app} # of its own for what runs while tests build
[ -f "$jar" ] || { echo "$jar is not there: build it first" >&2; exit 1; }
exec 9>"$dir.lock"; flock 9
if [ ! "$dir/unpacked" -nt "$jar" ]; then
  rm -rf "$dir"
  java -Djarmode=tools -jar "$jar" extract --destination "$dir" >"$dir.log" 2>&1 9>&- \
    || { echo "could not unpack $jar; see $dir.log" >&2; exit 1; }
  touch "$dir/unpacked"
fi
if [ "${2:-}" = archive ] && [ ! "$dir/app.jsa" -nt "$jar" ]; then
  if java -XX:+UseSerialGC -XX:TieredStopAtLevel=1 "-XX:ArchiveClassesAtExit=$dir/making.jsa" -Dspring.context.exit=onRefresh -jar "$dir/$(basename "$jar")" \
    >>"$dir.log" 2>&1 9>&-; then mv "$dir/making.jsa" "$dir/app.jsa"
  else rm -f "$dir/making.jsa"; fi # it starts without, only slower; the next one tries again
fi
echo "$dir/$(basename "$jar")"
