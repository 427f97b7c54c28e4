#!/bin/sh
# Run the web side's tasks: npm.sh ci|build|check|format|types
set -eu
cd "$(dirname "$0")/../web"
if ! command -v node >/dev/null; then
  echo "Lyrandis needs Node 20 to build its page. Install the package nodejs (20.19 or newer)." >&2
  exit 1
fi
case $1 in
  ci)
    echo "Setting up web packages…"
    export npm_config_update_notifier=false
    ci="ci --ignore-scripts --no-audit --no-fund --loglevel=error"
    # an npm older than 11 may stumble over the build tool's platform files: then a newer one does it
    npm $ci >/dev/null 2>&1 || npx --yes npm@11 $ci >/dev/null
    ;;
  build)
    echo "Building the page…"
    log=$(mktemp)
    for config in vite.config.ts vite.field.config.ts; do
      node_modules/.bin/vite build --config "$config" --logLevel warn >"$log" 2>&1 || { cat "$log" >&2; exit 1; }
    done
    ;;
  check)
    node_modules/.bin/svelte-check --fail-on-warnings --tsconfig ./tsconfig.json --output human --threshold warning >/tmp/lyrandis-svelte-check.$$ 2>&1 \
      || { cat /tmp/lyrandis-svelte-check.$$ >&2; rm -f /tmp/lyrandis-svelte-check.$$; exit 1; }
    rm -f /tmp/lyrandis-svelte-check.$$
    node_modules/.bin/eslint .
    node_modules/.bin/prettier --log-level warn --check .
    ;;
  format)
    node_modules/.bin/eslint --fix . || true
    node_modules/.bin/prettier --log-level warn --write .
    ;;
  types)
    node_modules/.bin/openapi-typescript openapi.json --output "${2:-src/lib/api.gen.ts}" >/dev/null 2>&1
    ;;
esac
