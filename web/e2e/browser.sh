#!/usr/bin/env bash
# Installs Debian's Chromium where it is missing; the tests download none.
set -euo pipefail
[ -x "${CHROMIUM:-/usr/bin/chromium}" ] && exit 0
as_root=""
[ "$(id -u)" = 0 ] || as_root=sudo
echo "installing chromium" >&2
$as_root apt-get update -qq
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq chromium >/dev/null
