#!/bin/sh
# The browser tests need Debian's Chromium: install it where that can be done, else say how.
set -eu
if [ -x "${CHROMIUM:-/usr/bin/chromium}" ]; then exit 0; fi
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
  echo "Installing Chromium for the browser tests…"
  apt-get update -qq
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
else
  echo "The browser tests need Chromium. Install it with: sudo apt-get install chromium" >&2
  exit 1
fi
