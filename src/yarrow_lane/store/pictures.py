"""Photographs, stored once under the hash of their content."""

import hashlib
import os
import tempfile
from pathlib import Path

from yarrow_lane.store.trouble import StoreTrouble, disk_trouble


def content_hash(data: bytes) -> str:
    """SHA-256 of the file's bytes."""
    return hashlib.sha256(data).hexdigest()


class Pictures:
    """Files named by content hash: written beside, synced, renamed, then referred to."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder / "photos"

    def path(self, picture_hash: str) -> Path:
        """Where that picture lies, whether it is there or not."""
        return self._folder / picture_hash[:2] / picture_hash

    def keep(self, data: bytes) -> str:
        """Store the bytes; the same bytes again cost nothing. Raises `StoreTrouble`."""
        picture_hash = content_hash(data)
        path = self.path(picture_hash)
        if path.exists() and path.stat().st_size == len(data):
            return picture_hash
        try:
            write_synced(path, data)
        except OSError as error:
            raise disk_trouble(error, self._folder.parent) from error
        return picture_hash

    def read(self, picture_hash: str, name: str) -> bytes:
        """The bytes again; raises `StoreTrouble` when the file is gone."""
        try:
            return self.path(picture_hash).read_bytes()
        except OSError as error:
            raise StoreTrouble(
                f"The photograph “{name}” is missing from the studio",
                error.strerror or str(error),
                "put it in again from where it came",
            ) from error


def write_synced(path: Path, data: bytes) -> None:
    """Write a file so that it is either the old or the new one, never half; raises OSError."""
    path.parent.mkdir(parents=True, exist_ok=True)
    handle, beside = tempfile.mkstemp(dir=path.parent, prefix=".part-")
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
