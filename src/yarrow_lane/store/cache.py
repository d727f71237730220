"""Derived values on disk: made again any time, so that they may be deleted; kept within a budget, the oldest go first."""

import hashlib
from collections.abc import Iterator
from pathlib import Path

from yarrow_lane.store.things import write_synced

_FILES_A_STEP = 200  # our choice: some milliseconds
BUDGET_BYTES = 500_000_000  # our choice: some ten thousand thumbnails


class Cache:
    """One value a slot: a value under another key takes the slot over, so that a mark nudged a hundred times leaves one file.

    A cache that cannot be read or written is only slow, never an error.
    """

    def __init__(self, folder: Path) -> None:
        self._folder = folder / "cache"

    def _path(self, slot: str) -> Path:
        name = hashlib.sha256(slot.encode()).hexdigest()
        return self._folder / name[:2] / name

    def get(self, slot: str, key: str) -> bytes | None:
        """The value of that key, if it is the one in the slot."""
        try:
            head, mark, data = self._path(slot).read_bytes().partition(b"\n")
        except OSError:
            return None
        return data if mark and head == _mark(key) else None

    def has(self, slot: str, key: str) -> bool:
        """Whether that value is in the slot; only the head of the file is read."""
        mark = _mark(key) + b"\n"
        try:
            with self._path(slot).open("rb") as file:
                return file.read(len(mark)) == mark
        except OSError:
            return False

    def put(self, slot: str, key: str, data: bytes) -> None:
        try:
            write_synced(self._path(slot), _mark(key) + b"\n" + data)
        except OSError:
            return

    def trim(self, budget_bytes: int = BUDGET_BYTES) -> Iterator[None]:
        """Take out the oldest files until the rest fits into the budget, a small step at a time."""
        found = []
        for number, path in enumerate(self._folder.glob("??/*")):
            if number % _FILES_A_STEP == 0:
                yield
            try:
                stat = path.stat()
            except OSError:
                continue
            found.append((stat.st_mtime, stat.st_size, path))
        over = sum(size for _, size, _ in found) - budget_bytes
        for _, size, path in sorted(found, key=lambda f: f[0]):
            if over <= 0:
                return
            try:
                path.unlink()
            except OSError:
                continue
            over -= size


def _mark(key: str) -> bytes:
    return hashlib.sha256(key.encode()).hexdigest().encode()
