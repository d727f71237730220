#!/usr/bin/env bash
# Sourced by scripts/demo, scripts/test, scripts/shots and scripts/bench: makes .venv and installs what is pinned.
set -euo pipefail
top=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
cd "$top"

say() { printf '%s\n' "$*" >&2; }

python=""
for candidate in python3.13 python3.12 python3.11 python3; do
  if command -v "$candidate" >/dev/null && "$candidate" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
    python=$candidate
    break
  fi
done
if [ -z "$python" ]; then
  say "Yarrow Lane needs Python 3.11 or newer, and none was found; install it and start again."
  exit 1
fi

# What Qt needs of the system: library file, Debian package.
needs_system() {
  local missing=() known
  # Read once: under pipefail, grep -q closing the pipe early would look like a missing library.
  known=$(ldconfig -p 2>/dev/null || true)
  while read -r library package; do
    case "$known" in *"$library"*) ;; *) missing+=("$package") ;; esac
  done <<'LIST'
libEGL.so.1 libegl1
libGL.so.1 libgl1
libxkbcommon.so.0 libxkbcommon0
libxkbcommon-x11.so.0 libxkbcommon-x11-0
libdbus-1.so.3 libdbus-1-3
libfontconfig.so.1 libfontconfig1
libglib-2.0.so.0 libglib2.0-0
libxcb-cursor.so.0 libxcb-cursor0
libxcb-icccm.so.4 libxcb-icccm4
libxcb-image.so.0 libxcb-image0
libxcb-keysyms.so.1 libxcb-keysyms1
libxcb-render-util.so.0 libxcb-render-util0
libxcb-shape.so.0 libxcb-shape0
LIST
  "$python" -c 'import venv, ensurepip' 2>/dev/null || missing+=("python3-venv")
  [ ${#missing[@]} -eq 0 ] && return 0
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    say "Installing what Qt needs of the system: ${missing[*]}"
    apt-get update -qq >/dev/null
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "${missing[@]}" >/dev/null
  else
    say "Some system libraries are missing. Install them with:"
    say "  sudo apt-get install ${missing[*]}"
    exit 1
  fi
}

# install NAME FILE...: once for each state of the pinned files.
install() {
  local stamp=".venv/.installed-$1" wanted
  shift
  wanted=$(cat "$@" pyproject.toml | cksum)
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$wanted" ] && return 0
  needs_system
  [ -x .venv/bin/python ] || "$python" -m venv .venv
  say "Installing pinned packages (once)…"
  local arguments=()
  for file in "$@"; do arguments+=(-r "$file"); done
  .venv/bin/python -m pip install -q --disable-pip-version-check "${arguments[@]}" 2> >(grep -v WARNING >&2 || true)
  .venv/bin/python -m pip install -q --disable-pip-version-check --no-deps -e . 2> >(grep -v -i warning >&2 || true)
  printf '%s' "$wanted" > "$stamp"
}
