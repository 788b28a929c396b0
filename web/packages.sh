#!/usr/bin/env bash
# Fetches what the interface is made of, once: "all", or "build" without what only tests and checks use.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
have() { [ "node_modules/.have-$1" -nt package-lock.json ]; }
[ "$1" = build ] && { have build || have all; } || have all || {
  npm ci --no-audit --no-fund --omit-lockfile-registry-resolved $([ "$1" = all ] || echo --omit=dev)
  touch "node_modules/.have-$1"
}
[ "$1" = build ] || npm run gen # types are no part of what is built
