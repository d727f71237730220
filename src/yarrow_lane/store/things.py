"""Large things (photographs, masks, strokes) as files, stored once under the hash of their content."""

import os
import re
import tempfile
from collections.abc import Iterator
from contextlib import suppress
from datetime import datetime
from pathlib import Path

from yarrow_lane.store.codec import text_hash
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_NAME = re.compile(r"[0-9a-f]{64}")
_UNFINISHED = ".part-"


class Things:
    """Files of one kind in a folder: written beside, synced, renamed, then named by a part. Safe on any thread."""

    def __init__(self, folder: Path, kind: str) -> None:
        self._folder = folder / kind

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
        try:
            data = self.path(thing_hash).read_bytes()
        except OSError as error:
            raise StoreTrouble(
                f"“{name}” is missing from the studio", error.strerror or str(error), "put it in again from where it came"
            ) from error
        if text_hash(data) != thing_hash:
            raise StoreTrouble(
                f"“{name}” is damaged in the studio", "its content has changed", "put it in again from where it came"
            )
        return data

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


def remove_unfinished(folder: Path, before: datetime) -> None:
    """Take out what a process that was killed left half written, if it is older than `before`."""
    for path in folder.glob(f"??/{_UNFINISHED}*"):
        with suppress(OSError):  # another day will do
            if path.stat().st_mtime < before.timestamp():
                path.unlink()


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
        folder = os.open(path.parent, os.O_RDONLY)
        try:
            os.fsync(folder)
        finally:
            os.close(folder)
    except BaseException:
        Path(beside).unlink(missing_ok=True)
        raise
