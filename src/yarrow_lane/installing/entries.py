"""What an installed program leaves in the user's folders (XDG Base Directory and Desktop Entry specifications)."""

from collections.abc import Iterator
from dataclasses import dataclass
from importlib import resources
from pathlib import Path

from yarrow_lane.installing import APP_ID
from yarrow_lane.measure.trouble import Trouble

PNG_SIZES = (16, 24, 32, 48, 64, 128, 256)


class InstallTrouble(Trouble):
    """A file that could not be put in its place."""


@dataclass(frozen=True)
class Places:
    """The user's data folder (XDG_DATA_HOME), and the program that is to be started."""

    data_home: Path
    program: Path


def _files() -> resources.abc.Traversable:
    return resources.files("yarrow_lane.installing") / "files"


def targets(data_home: Path) -> Iterator[tuple[str, Path]]:
    """Each shipped file and where it goes."""
    icons = data_home / "icons" / "hicolor"
    yield f"{APP_ID}.desktop", data_home / "applications" / f"{APP_ID}.desktop"
    yield f"{APP_ID}.metainfo.xml", data_home / "metainfo" / f"{APP_ID}.metainfo.xml"
    yield f"{APP_ID}.svg", icons / "scalable" / "apps" / f"{APP_ID}.svg"
    for size in PNG_SIZES:
        yield f"{APP_ID}-{size}.png", icons / f"{size}x{size}" / "apps" / f"{APP_ID}.png"


def quoted(program: Path) -> str:
    """A program as the Exec key wants it: in quotes, with its reserved signs escaped twice (Desktop Entry Specification, Exec)."""
    signs = "".join(f"\\{sign}" if sign in '"`$\\' else sign for sign in str(program)).replace("%", "%%")
    return '"' + signs.replace("\\", "\\\\") + '"'


def desktop_entry(program: Path) -> str:
    """The entry that starts this program."""
    text = (_files() / f"{APP_ID}.desktop").read_text("utf-8")
    lines = (
        f"Exec={quoted(program)}" if line.startswith("Exec=") else f"TryExec={program}" if line.startswith("TryExec=") else line
        for line in text.splitlines()
    )
    return "\n".join(lines) + "\n"


def put_in(places: Places) -> tuple[Path, ...]:
    """Write every file to its place; returns them. Raises `InstallTrouble`."""
    written = []
    for name, path in targets(places.data_home):
        data = (_files() / name).read_bytes()
        if path.suffix == ".desktop":
            data = desktop_entry(places.program).encode("utf-8")
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_bytes(data)
        except OSError as error:
            why = error.strerror or str(error)
            raise InstallTrouble(f"“{path}” was not written", why, "make room there or choose another XDG_DATA_HOME") from error
        written.append(path)
    return tuple(written)


def take_out(data_home: Path) -> tuple[Path, ...]:
    """Remove what `put_in` wrote and the folders that are empty then; returns the files removed. Raises `InstallTrouble`."""
    removed = []
    for _, path in targets(data_home):
        try:
            if path.exists():
                path.unlink()
                removed.append(path)
            _tidy(path.parent, data_home)
        except OSError as error:
            raise InstallTrouble(f"“{path}” was not removed", error.strerror or str(error), "remove it by hand") from error
    return tuple(removed)


def _tidy(folder: Path, data_home: Path) -> None:
    while folder != data_home and folder.is_dir() and not any(folder.iterdir()):
        folder.rmdir()
        folder = folder.parent
