#!/bin/sh
# Write the web types from the API document, and the core's choices and units; with --check, fail
# when the committed ones differ.
set -eu
cd "$(dirname "$0")/.."
.venv/bin/python -m lyrandis openapi --without-examples >web/openapi.json
if [ "${1:-}" = --check ]; then
  fresh=$(mktemp -d)
  sh tools/npm.sh types "$fresh/api.gen.ts"
  .venv/bin/python tools/choices.py "$fresh"
  for name in api choices units; do
    if ! cmp -s "$fresh/$name.gen.ts" "web/src/lib/$name.gen.ts"; then
      echo "web/src/lib/$name.gen.ts is not what the core says: run make types and commit it." >&2
      exit 1
    fi
  done
else
  sh tools/npm.sh types
  .venv/bin/python tools/choices.py
fi
