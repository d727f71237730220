"""The studio kept at another place too: a stick, a disk, a folder that is synced. Copies and photographs, nothing taken away."""

import shutil
from datetime import date
from pathlib import Path

from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.store.copies import PLACE, look_at, thin
from yarrow_lane.store.things import Brought, Things, sync
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

NAME = "yarrow-lane-copy"
_README = """This folder is a copy of a Yarrow Lane studio, made by the program itself.

backups/   the studio's file of each day (SQLite 3), named by the day
photos/    the photographs, each named by the SHA-256 of its content

To use it: copy this folder to another place, open it with Yarrow Lane and restore a day.
"""


def place_in(chosen: Path, folder: Path) -> Path:
    """The folder of the copy in the folder the painter chose; raises `StoreTrouble` for one inside the studio itself."""
    if folder.resolve() in (chosen.resolve(), *chosen.resolve().parents):
        raise StoreTrouble(
            f"No copy is kept at “{chosen}”",
            "it lies inside the studio it would be a copy of",
            "choose a stick or another disk",
        )
    return chosen / NAME


def same_disk(chosen: Path, folder: Path) -> bool:
    """Whether both lie on one disk, which would be lost together."""
    try:
        return chosen.stat().st_dev == folder.stat().st_dev
    except OSError:
        return False


def wanted_at(place: Path, today: date) -> bool:
    """Whether the copy of that day is still to be made; False when the place is not there, as a stick that is not put in."""
    return place.parent.is_dir() and not _of_day(place, today).exists()


def _of_day(folder: Path, today: date) -> Path:
    return folder / PLACE / f"{today.isoformat()}.db"


def keep_elsewhere(copy: Path, photos: Things, place: Path, today: date, progress: Progress = SILENT) -> Brought:
    """Bring the photographs that are not there yet, then `copy` of the studio's file as that of the day; tells what came.

    Blocks, on any thread: it reads what nobody changes. Raises `StoreTrouble`, `Cancelled`. What is damaged here is not brought.
    """
    if not place.parent.is_dir():
        raise StoreTrouble(f"No copy was made at “{place.parent}”", "the folder is not there", "put the stick in")
    try:
        place.mkdir(exist_ok=True)
        (place / "README.txt").write_text(_README, "utf-8")
        came = _bring_photographs(photos, Things(place, "photos"), progress)
        target = _of_day(place, today)
        beside = target.with_name(target.name + ".part")
        target.parent.mkdir(exist_ok=True)
        shutil.copyfile(copy, beside)
        found = look_at(beside, whole=True)
        if not found.sound:
            beside.unlink(missing_ok=True)
            raise StoreTrouble(f"The copy at “{place}” was not kept", found.why, "look whether that disk is in order")
        sync(beside)
        beside.replace(target)
        sync(target.parent)
    except OSError as error:
        raise disk_trouble(error, place) from error
    thin(place)
    return came


def _bring_photographs(here: Things, there: Things, progress: Progress) -> Brought:
    missing = [name for name in here.names() if not there.has_size_of(here, name)]
    came = damaged = 0
    for number, name in enumerate(missing):
        progress.at(number / len(missing))
        try:
            data = here.read(name, name)
        except StoreTrouble:
            damaged += 1  # never brought over a good one; what it is, is said where it is opened
            continue
        there.keep(data)
        came += 1
    return Brought(came, damaged)
