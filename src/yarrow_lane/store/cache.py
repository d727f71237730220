"""Derived pictures on disk, keyed by content, parameters and the algorithm's version; may be deleted any time."""

import hashlib
from pathlib import Path

from yarrow_lane.store.pictures import write_synced


class Cache:
    """Bytes by key. A cache that cannot be written is only slow, never an error."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder / "cache"

    def _path(self, key: tuple[object, ...]) -> Path:
        name = hashlib.sha256(repr(key).encode()).hexdigest()
        return self._folder / name[:2] / name

    def get(self, *key: object) -> bytes | None:
        try:
            return self._path(key).read_bytes()
        except OSError:
            return None

    def put(self, data: bytes, *key: object) -> None:
        try:
            write_synced(self._path(key), data)
        except OSError:
            return
