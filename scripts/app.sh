#!/usr/bin/env bash
# Unpacks a program that was built (server | standins) and prints its jar; with "archive" it also gives the JVM an archive of its
# classes, with which it is ready in half the time. The archive is made by one start with the settings of the caller, in whose
# database it may make tables.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
name=${1:?server or standins}
jar=$ROOT/$name/target/$name-1-app.jar dir=$ROOT/$name/target/app
[ -f "$jar" ] || { echo "$jar is not there: build it first" >&2; exit 1; }
exec 9>"$ROOT/$name/target/app.lock"; flock 9
if [ ! "$dir/unpacked" -nt "$jar" ]; then
  rm -rf "$dir"
  java -Djarmode=tools -jar "$jar" extract --destination "$dir" >"$dir.log" 2>&1 9>&- \
    || { echo "could not unpack $jar; see $dir.log" >&2; exit 1; }
  touch "$dir/unpacked"
fi
if [ "${2:-}" = archive ] && [ ! "$dir/archived" -nt "$jar" ]; then
  java -XX:+UseSerialGC "-XX:ArchiveClassesAtExit=$dir/making.jsa" -Dspring.context.exit=onRefresh -jar "$dir/$(basename "$jar")" \
    >>"$dir.log" 2>&1 9>&- && mv "$dir/making.jsa" "$dir/app.jsa" || rm -f "$dir/making.jsa" # it starts without, only slower
  touch "$dir/archived"
fi
echo "$dir/$(basename "$jar")"
