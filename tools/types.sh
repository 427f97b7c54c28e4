#!/bin/sh
# Write the web types from the API document; with --check, fail when the committed ones differ.
set -eu
cd "$(dirname "$0")/.."
.venv/bin/python -m lyrandis openapi >web/openapi.json
if [ "${1:-}" = --check ]; then
  fresh=$(mktemp -d)/api.gen.ts
  sh tools/npm.sh types "$fresh"
  if ! cmp -s "$fresh" web/src/lib/api.gen.ts; then
    echo "web/src/lib/api.gen.ts is not what the API says: run make types and commit it." >&2
    exit 1
  fi
else
  sh tools/npm.sh types
fi
