#!/bin/sh
# The browser tests need Debian's Chromium: install it where that can be done, else say how.
# Its headless shell is the same browser without windows, and starts pages in half the time.
set -eu
SHELL_ALONE=/usr/bin/chromium-headless-shell
if [ -n "${CHROMIUM:-}" ] && [ -x "$CHROMIUM" ]; then exit 0; fi
if [ -x "$SHELL_ALONE" ]; then exit 0; fi
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
  echo "Installing Chromium for the browser tests…"
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq || true
  apt-get install -y -qq --no-install-recommends chromium-headless-shell >/dev/null 2>&1 && exit 0
fi
if [ -x /usr/bin/chromium ]; then exit 0; fi
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
  apt-get install -y -qq chromium >/dev/null
else
  echo "The browser tests need Chromium. Install it with: sudo apt-get install chromium" >&2
  exit 1
fi
