#!/usr/bin/env bash
# Installs the Debian packages that the tests need, where they are missing: Chromium, as the
# tests download no browser, a D-Bus for the notifications of the desktop, and a reader of iCalendar
# that others wrote.
set -euo pipefail
wanted=()
[ -x "${CHROMIUM:-/usr/bin/chromium}" ] || wanted+=(chromium)
command -v dbus-daemon >/dev/null || wanted+=(dbus-daemon)
/usr/bin/python3 -c "import icalendar, dateutil" 2>/dev/null || wanted+=(python3-icalendar)
[ ${#wanted[@]} -eq 0 ] && exit 0
as_root=""
[ "$(id -u)" = 0 ] || as_root=sudo
echo "installing ${wanted[*]}" >&2
$as_root apt-get update -qq
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -y -qq "${wanted[@]}" >/dev/null
