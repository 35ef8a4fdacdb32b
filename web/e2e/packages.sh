#!/usr/bin/env bash
# Installs the Debian packages that the tests need, where they are missing: Chromium, as the
# tests download no browser, and a D-Bus for the notifications of the desktop.
set -euo pipefail
wanted=()
[ -x "${CHROMIUM:-/usr/bin/chromium}" ] || wanted+=(chromium)
command -v dbus-daemon >/dev/null || wanted+=(dbus-daemon)
[ ${#wanted[@]} -eq 0 ] && exit 0
as_root=""
[ "$(id -u)" = 0 ] || as_root=sudo
echo "installing ${wanted[*]}" >&2
$as_root apt-get update -qq
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq "${wanted[@]}" >/dev/null
