"""Large things (photographs, masks, strokes) as files, stored once under the hash of their content."""

import hashlib
import os
import re
import tempfile
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from yarrow_lane.measure.words import counted
from yarrow_lane.store.codec import text_hash
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_NAME = re.compile(r"[0-9a-f]{64}")
_UNFINISHED = ".part-"


class Things:
    """Files of one kind in a folder: written beside, synced, renamed, then named by a part. Safe on any thread."""

    def __init__(self, folder: Path, kind: str) -> None:
        self._folder = folder / kind
        self._kind = kind
        # Where the same things are kept too: folders that may come and go.
        self.mirrors: tuple[Path, ...] = ()
        self._sound: dict[str, tuple[int, int]] = {}

    def path(self, thing_hash: str) -> Path:
        """Where that thing lies, whether it is there or not."""
        return self._folder / thing_hash[:2] / thing_hash

    def keep(self, data: bytes) -> str:
        """Store the bytes; the same bytes again write nothing, and mend a file that was damaged. Raises `StoreTrouble`."""
        thing_hash = text_hash(data)
        path = self.path(thing_hash)
        try:
            if not path.exists() or path.read_bytes() != data:
                write_synced(path, data)
        except OSError as error:
            raise disk_trouble(error, self._folder.parent) from error
        return thing_hash

    def read(self, thing_hash: str, name: str) -> bytes:
        """The bytes again; raises `StoreTrouble` when the file is gone or is no longer what was stored."""
        return self.sound(thing_hash, name).read_bytes()

    def sound(self, thing_hash: str, name: str) -> Path:
        """The file of a thing, looked through once for as long as it does not change; mended from a mirror where that has it.

        Blocks. Raises `StoreTrouble` that says what `name` is and what mends it.
        """
        path = self.path(thing_hash)
        why = self._unsound(thing_hash, path)
        if not why or self._mended(thing_hash, path):
            return path
        remedy = f"drop the file “{name}” on the window again, as the client sent it: that mends it"
        absent = [m for m in self.mirrors if not m.is_dir()]
        if absent:
            remedy += f"; or make the copy at “{absent[0]}” reachable"
        raise StoreTrouble(f"“{name}” is {'missing from' if not path.exists() else 'damaged in'} the studio", why, remedy)

    def _unsound(self, thing_hash: str, path: Path) -> str:
        """Why the file is not what was stored; empty when it is."""
        try:
            stat = path.stat()
            state = (stat.st_mtime_ns, stat.st_size)
            if self._sound.get(thing_hash) != state:
                with path.open("rb") as stream:
                    if hashlib.file_digest(stream, "sha256").hexdigest() != thing_hash:
                        return "its content has changed"
                self._sound[thing_hash] = state
        except OSError as error:
            return error.strerror or str(error)
        return ""

    def _mended(self, thing_hash: str, path: Path) -> bool:
        for mirror in self.mirrors:
            try:
                data = (mirror / self._kind / thing_hash[:2] / thing_hash).read_bytes()
                if text_hash(data) == thing_hash:
                    write_synced(path, data)
                    return True
            except OSError:
                continue  # that mirror has it not, or the disk here is full: what mends it is then said
        return False

    def has_size_of(self, other: "Things", thing_hash: str) -> bool:
        """Whether that thing lies here as long as it lies there: a quick look, the content is compared on reading."""
        try:
            return self.path(thing_hash).stat().st_size == other.path(thing_hash).stat().st_size
        except OSError:
            return False

    def names(self) -> Iterator[str]:
        """The hashes of everything stored; unfinished files and strangers are passed over."""
        if self._folder.is_dir():
            for path in self._folder.glob("??/*"):
                if _NAME.fullmatch(path.name):
                    yield path.name

    def remove(self, thing_hash: str) -> None:
        """Give a thing up; one that is gone already does no harm. Raises `StoreTrouble`."""
        try:
            self.path(thing_hash).unlink(missing_ok=True)
        except OSError as error:
            raise disk_trouble(error, self._folder.parent) from error


@dataclass(frozen=True)
class Brought:
    """What was brought elsewhere: photographs, and those that are damaged here and therefore stayed."""

    photographs: int = 0
    damaged: int = 0

    @property
    def words(self) -> str:
        """In a sentence; "12 photographs"."""
        some = counted(self.photographs, "photograph")
        if self.damaged:
            some += f"; {self.damaged} damaged in the studio could not come"
        return some


def remove_unfinished(folder: Path, before: datetime) -> None:
    """Take out what a process that was killed left half written, if it is older than `before`."""
    for path in folder.glob(f"??/{_UNFINISHED}*"):
        with suppress(OSError):  # another day will do
            if path.stat().st_mtime < before.timestamp():
                path.unlink()


def sync(path: Path) -> None:
    """What a file or folder holds is on the disk when this returns; raises OSError."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def write_synced(path: Path, data: bytes) -> None:
    """Write a file so that it is either the old or the new one, never half; raises OSError."""
    path.parent.mkdir(parents=True, exist_ok=True)
    handle, beside = tempfile.mkstemp(dir=path.parent, prefix=_UNFINISHED)
    try:
        with os.fdopen(handle, "wb") as stream:
            stream.write(data)
            stream.flush()
            os.fsync(stream.fileno())
        os.replace(beside, path)
        sync(path.parent)
    except BaseException:
        Path(beside).unlink(missing_ok=True)
        raise
