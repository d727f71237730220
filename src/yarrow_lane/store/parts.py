"""Parts in the file: each stored once under the hash of its text, most of them as what differs from an earlier one."""

import sqlite3
from collections.abc import Callable, Iterable, Iterator

from yarrow_lane.store.codec import text_hash
from yarrow_lane.store.trouble import Damaged, StoreTrouble

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

    def keep(self, text: str, base: int | None) -> int:
        """Store a part, as a change of the part `base` where that is shorter; returns its id."""
        name = text_hash(text)
        found = self._sql.execute("SELECT id FROM part WHERE hash = ?", (name,)).fetchone()
        if found is not None:
            return int(found[0])
        data = text.encode()
        depth = 0
        change: bytes | None = None
        if base is not None and len(data) > _LEAST_BYTES:
            (depth,) = self._sql.execute("SELECT depth FROM part WHERE id = ?", (base,)).fetchone()
            if depth < MOST_DIFFERENCES:
                change = difference(self._bytes(base), data)
        row = (name, data, None, 0) if change is None or len(change) >= len(data) // 2 else (name, change, base, depth + 1)
        return int(self._sql.execute("INSERT INTO part (hash, json, base, depth) VALUES (?, ?, ?, ?)", row).lastrowid or 0)

    def _bytes(self, part: int) -> bytes:
        changes: list[bytes] = []
        at: int | None = part
        while at is not None:
            row = self._sql.execute("SELECT json, base FROM part WHERE id = ?", (at,)).fetchone()
            if row is None or row[0] is None or len(changes) > MOST_DIFFERENCES:
                raise _damaged(part)
            changes.append(row[0].encode() if isinstance(row[0], str) else row[0])
            at = row[1]
        data = changes.pop()
        try:
            while changes:
                data = applied(data, changes.pop())
        except ValueError as error:
            raise _damaged(part) from error
        return data

    def text(self, part: int) -> str:
        """The part of that id, checked against its hash; raises `StoreTrouble` when it is not what was stored."""
        data = self._bytes(part)
        if self._sql.execute("SELECT hash FROM part WHERE id = ?", (part,)).fetchone() != (text_hash(data),):
            raise _damaged(part)
        return data.decode()

    def drop_unused(self, parts: Iterable[int]) -> None:
        """Give up those that no version names and no other part is told from; then those they were told from."""
        waiting = list(parts)
        while waiting:
            part = waiting.pop()
            row = self._sql.execute("SELECT base FROM part WHERE id = ?", (part,)).fetchone()
            used = "SELECT EXISTS (SELECT 1 FROM version_part WHERE part = ?1) OR EXISTS (SELECT 1 FROM part WHERE base = ?1)"
            if row is None or self._sql.execute(used, (part,)).fetchone()[0]:
                continue
            self._sql.execute("DELETE FROM part WHERE id = ?", (part,))
            if row[0] is not None:
                waiting.append(row[0])

    def texts(self) -> Iterator[str]:
        """Every part on record, one after the other; raises `StoreTrouble` at the first that is not what was stored."""
        for (part,) in self._sql.execute("SELECT id FROM part ORDER BY id").fetchall():
            if self._sql.execute("SELECT 1 FROM part WHERE id = ?", (part,)).fetchone():
                yield self.text(part)


def _damaged(part: int) -> StoreTrouble:
    why = f"number {part} is not what was stored"
    return Damaged("A part on record cannot be read", why, "restore a copy of the studio")
