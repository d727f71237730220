"""Putting a copy back in place of the studio's file. Nothing is deleted: what was there is set aside together."""

import shutil
from datetime import datetime
from pathlib import Path

from yarrow_lane.store.copies import copies_in, look_at
from yarrow_lane.store.folder import FolderLock
from yarrow_lane.store.schema import schema_number
from yarrow_lane.store.sql import Sql
from yarrow_lane.store.things import sync
from yarrow_lane.store.trouble import Damaged, StoreTrouble, disk_trouble, file_damage

FILE = "studio.db"
# What SQLite keeps beside its file belongs to that very file: replayed onto another it would undo the restoring.
_BESIDE = ("-wal", "-shm", "-journal")
_HEAD = b"SQLite format 3\0"  # https://sqlite.org/fileformat.html, 1.3
_ASIDE = "set aside"


def restore(folder: Path, copy: Path, now: datetime) -> Path:
    """Open the copy as the studio from now on; returns the folder in which the files that were there are set aside.

    The studio must be closed. Raises `StoreTrouble`, having changed nothing, when the copy is not sound or the disk is full.
    Killed in the middle it leaves a studio without its file, which is refused at the next start with the choice to restore.
    """
    try:
        with FolderLock(folder):
            found = look_at(copy, whole=True)
            if not found.sound:
                raise StoreTrouble(f"The copy {copy.name} was not restored", found.why, "choose another copy")
            return _put_back(folder, copy, now)
    except OSError as error:
        raise disk_trouble(error, folder) from error


def _put_back(folder: Path, copy: Path, now: datetime) -> Path:
    staged = folder / f"{FILE}.part"
    staged.unlink(missing_ok=True)
    shutil.copyfile(copy, staged)
    sync(staged)
    aside = _set_aside(folder, now)
    staged.replace(folder / FILE)
    sync(folder)
    return aside


def _set_aside(folder: Path, now: datetime) -> Path:
    aside = folder / _ASIDE / f"{now:%Y-%m-%d %H.%M.%S}"
    number = 1
    while aside.exists():
        number += 1
        aside = aside.with_name(f"{now:%Y-%m-%d %H.%M.%S} {number}")
    aside.mkdir(parents=True)
    for name in (FILE, *(FILE + ending for ending in _BESIDE)):
        path = folder / name
        if path.exists():
            path.rename(aside / name)
    sync(aside)
    return aside


def refuse_if_lost(folder: Path) -> None:
    """Raises `Damaged` when a studio was here and its file is gone, empty or no database.

    A new one must not take its place in silence.
    """
    path = folder / FILE
    if path.exists() and path.stat().st_size:
        # Looked at before SQLite does: it would throw the write-ahead log of such a file away.
        with path.open("rb") as stream:
            head = stream.read(len(_HEAD))
        if head != _HEAD:
            raise file_damage(folder, "its beginning is gone")
        return
    beside = [words for words, there in _left_of_a_studio(folder) if there]
    if beside:
        raise Damaged(
            f"The studio “{folder}” was not opened",
            f"its file {FILE} is {'empty' if path.exists() else 'gone'} but {' and '.join(beside)} of it are there",
            "restore a copy of it, or choose another folder for a new studio",
        )


def refuse_if_emptied(folder: Path, sql: Sql) -> None:
    """The same for a file in which nothing was ever started. Raises `StoreTrouble`."""
    if schema_number(sql) and sql.execute("SELECT 1 FROM head LIMIT 1").fetchone() is not None:
        return
    if any(look_at(path, whole=False).commissions for path in copies_in(folder)) or _has_photographs(folder):
        raise Damaged(
            f"The studio “{folder}” was not opened",
            f"its file {FILE} holds nothing, but copies or photographs of it are there",
            "restore a copy of it, or choose another folder for a new studio",
        )


def _left_of_a_studio(folder: Path) -> tuple[tuple[str, bool], ...]:
    return (
        ("photographs", _has_photographs(folder)),
        ("copies", bool(copies_in(folder))),
        ("unwritten changes", any((folder / (FILE + ending)).exists() for ending in _BESIDE)),
    )


def _has_photographs(folder: Path) -> bool:
    return any((folder / "photos").glob("??/*"))
