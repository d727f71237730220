"""Parts in the file: each stored once under the hash of its text, most of them as what differs from an earlier one."""

import sqlite3
from collections.abc import Callable, Iterable, Iterator

from yarrow_lane.store.codec import text_hash
from yarrow_lane.store.trouble import StoreTrouble

# Our choice: reading applies so many differences at most, then a part is told whole again.
MOST_DIFFERENCES = 64
_LEAST_BYTES = 400  # our choice: below it a difference saves nothing


def difference(base: bytes, text: bytes) -> bytes:
    """`text` told as a change of `base`: how many bytes begin and end alike, and what lies between."""
    shorter = min(len(base), len(text))
    begin = _alike(shorter, lambda n: base[:n] == text[:n])
    end = _alike(shorter - begin, lambda n: n == 0 or base[-n:] == text[-n:])
    return b"%d %d\n" % (begin, end) + text[begin : len(text) - end]


def _alike(most: int, holds: Callable[[int], bool]) -> int:
    """The largest number up to `most` for which `holds`, which holds for all smaller ones."""
    low, high = 0, most
    while low < high:
        middle = (low + high + 1) // 2
        if holds(middle):
            low = middle
        else:
            high = middle - 1
    return low


def applied(base: bytes, change: bytes) -> bytes:
    """The text again; raises ValueError when the change is no change of that base."""
    head, _, between = change.partition(b"\n")
    begin, end = (int(n) for n in head.split(b" "))
    if begin + end > len(base):
        raise ValueError("a difference does not fit what it is told from")
    return base[:begin] + between + (base[-end:] if end else b"")


class Parts:
    """The table `part`; every call belongs into the caller's transaction."""

    def __init__(self, sql: sqlite3.Connection) -> None:
        self._sql = sql

    def keep(self, text: str, base: str | None) -> str:
        """Store a part, as a change of the part `base` where that is shorter; returns its hash."""
        name = text_hash(text)
        if self._sql.execute("SELECT 1 FROM part WHERE hash = ?", (name,)).fetchone():
            return name
        data = text.encode()
        depth = 0
        change: bytes | None = None
        if base is not None and base != name and len(data) > _LEAST_BYTES:
            (depth,) = self._sql.execute("SELECT depth FROM part WHERE hash = ?", (base,)).fetchone()
            if depth < MOST_DIFFERENCES:
                change = difference(self._bytes(base), data)
        if change is not None and len(change) < len(data) // 2:
            self._sql.execute("INSERT INTO part (hash, json, base, depth) VALUES (?, ?, ?, ?)", (name, change, base, depth + 1))
        else:
            self._sql.execute("INSERT INTO part (hash, json, base, depth) VALUES (?, ?, NULL, 0)", (name, text))
        return name

    def _bytes(self, name: str) -> bytes:
        changes: list[bytes] = []
        at: str | None = name
        while at is not None:
            row = self._sql.execute("SELECT json, base FROM part WHERE hash = ?", (at,)).fetchone()
            if row is None or len(changes) > MOST_DIFFERENCES:
                raise _damaged(name)
            changes.append(row[0].encode() if isinstance(row[0], str) else row[0])
            at = row[1]
        data = changes.pop()
        try:
            while changes:
                data = applied(data, changes.pop())
        except ValueError as error:
            raise _damaged(name) from error
        return data

    def text(self, name: str) -> str:
        """The part of that hash, checked against it; raises `StoreTrouble` when it is not what was stored."""
        data = self._bytes(name)
        if text_hash(data) != name:
            raise _damaged(name)
        return data.decode()

    def drop_unused(self, names: Iterable[str]) -> None:
        """Give up those that no version names and no other part is told from; then those they were told from."""
        waiting = list(names)
        while waiting:
            name = waiting.pop()
            row = self._sql.execute("SELECT base FROM part WHERE hash = ?", (name,)).fetchone()
            used = "SELECT EXISTS (SELECT 1 FROM version_part WHERE hash = ?1) OR EXISTS (SELECT 1 FROM part WHERE base = ?1)"
            if row is None or self._sql.execute(used, (name,)).fetchone()[0]:
                continue
            self._sql.execute("DELETE FROM part WHERE hash = ?", (name,))
            if row[0] is not None:
                waiting.append(row[0])

    def texts(self) -> Iterator[str]:
        """Every part on record, one after the other; damaged ones are passed over."""
        for (name,) in self._sql.execute("SELECT hash FROM part ORDER BY hash").fetchall():
            if self._sql.execute("SELECT 1 FROM part WHERE hash = ?", (name,)).fetchone():
                try:
                    yield self._bytes(name).decode()
                except StoreTrouble:
                    continue


def _damaged(name: str) -> StoreTrouble:
    return StoreTrouble(
        "A part on record cannot be read",
        f"it is not what was stored ({name[:8]})",
        "open an older copy from the folder “backups”",
    )
