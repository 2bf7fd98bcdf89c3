#!/bin/sh
# The browser tests need Chromium; they are never skipped.
set -eu
command -v chromium >/dev/null 2>&1 && exit 0
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null 2>&1; then
  echo "Installing Chromium for the browser tests"
  apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
  exit 0
fi
echo "The browser tests need Chromium. Install it (on Debian: apt install chromium) and try again." >&2
exit 1
