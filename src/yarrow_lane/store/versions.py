"""The tree of versions of each document: appended, joined, walked by undo and redo, thinned out with age."""

import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from yarrow_lane.store.parts import Parts
from yarrow_lane.store.seals import seal_of
from yarrow_lane.store.trouble import Damaged

_JOIN_S = 1.0  # our choice: edits of one join word within a second are one
# Our choice: all versions of a week are kept, then the newest of each day, then the newest of each week.
_ALL_DAYS, _DAILY_DAYS = 7, 56


@dataclass(frozen=True)
class Version:
    """One state of a document: its number, the one it came from, its words, and how many earlier ones were folded into it."""

    number: int
    parent: int | None
    at: datetime
    label: str
    place: str
    kept: str = ""
    folded: int = 0


class Versions:
    """The tables `version`, `version_part` and `head`; every call that writes belongs into the caller's transaction."""

    def __init__(self, sql: sqlite3.Connection, parts: Parts) -> None:
        self._sql, self._parts = sql, parts

    # --- reading

    def head(self, document: str) -> int | None:
        """The number of the version shown; None for a document never started. Raises `StoreTrouble` when it is damaged."""
        row = self._sql.execute("SELECT number, seal FROM head WHERE document = ?", (document,)).fetchone()
        if row is None:
            return None
        if row[1] != seal_of(document, row[0]):
            raise _damaged(document, "which of its versions is shown is no longer what was stored")
        return int(row[0])

    def heads(self) -> dict[str, int]:
        """Every document ever started, with its head."""
        return dict(self._sql.execute("SELECT document, number FROM head ORDER BY document"))

    def stamps(self) -> dict[str, str]:
        """For each document a word that changes whenever its head does."""
        rows = self._sql.execute("SELECT document, number, at FROM head JOIN version USING (document, number)")
        return {document: f"{number}@{at}" for document, number, at in rows}

    def version(self, document: str, number: int) -> Version:
        row = self._sql.execute(
            "SELECT number, parent, at, label, place, kept, folded FROM version WHERE document = ? AND number = ?",
            (document, number),
        ).fetchone()
        if row is None:
            raise _damaged(document, f"its version {number} is gone")
        return _version(document, row)

    def versions(self, document: str) -> tuple[Version, ...]:
        """All versions on record, the oldest first."""
        rows = self._sql.execute(
            "SELECT number, parent, at, label, place, kept, folded FROM version WHERE document = ? ORDER BY number", (document,)
        )
        return tuple(_version(document, row) for row in rows)

    def child(self, document: str, number: int) -> int | None:
        """The newest version that came from this one: what redo goes to."""
        row = self._sql.execute(
            "SELECT max(number) FROM version WHERE document = ? AND parent = ?", (document, number)
        ).fetchone()
        return None if row[0] is None else int(row[0])

    def parts(self, document: str, number: int) -> dict[str, int]:
        """Part name to part id of one version, checked against its seal; raises `StoreTrouble` when it is damaged."""
        found = self._sql.execute("SELECT seal FROM version WHERE document = ? AND number = ?", (document, number)).fetchone()
        seal, parts = self._sealed(document, number)
        if found != (seal,):
            raise _damaged(document, f"its version {number} is no longer what was stored")
        return parts

    def _sealed(self, document: str, number: int) -> tuple[str, dict[str, int]]:
        """The seal that fits a version as it is now, and its parts."""
        row = self._sql.execute(
            "SELECT number, parent, at, label, place, joins, kept, folded FROM version WHERE document = ? AND number = ?",
            (document, number),
        ).fetchone()
        rows = self._sql.execute(
            "SELECT name, part, hash FROM version_part LEFT JOIN part ON id = part WHERE document = ? AND number = ? ORDER BY name",
            (document, number),
        ).fetchall()
        return seal_of(document, *(row or ()), *(x for name, _, text in rows for x in (name, text))), {n: p for n, p, _ in rows}

    def _seal(self, document: str, number: int) -> None:
        seal, _ = self._sealed(document, number)
        self._sql.execute("UPDATE version SET seal = ? WHERE document = ? AND number = ?", (seal, document, number))

    # --- writing

    def append(
        self, document: str, changed: Mapping[str, str], label: str, place: str, at: datetime, join: str = "", keep: str = ""
    ) -> int:  # fmt: skip
        """A new head after the present one; `changed` maps the parts that differ to their JSON. Returns its number.

        With a `join` word the head itself is replaced when it has the same word, is less than a second old, led nowhere and
        nothing rests on it.
        """
        head = self.head(document)
        if head is not None and join and self._joins(document, head, join, at):
            return self._replace(document, head, changed, at)
        (number,) = self._sql.execute(
            "SELECT 1 + coalesce(max(number), 0) FROM version WHERE document = ?", (document,)
        ).fetchone()
        self._sql.execute(
            "INSERT INTO version (document, number, parent, at, label, place, joins, kept) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
            (document, number, head, at.isoformat(), label, place, join, keep),
        )
        before = self.parts(document, head) if head is not None else {}
        parts = before | {name: self._parts.keep(text, before.get(name)) for name, text in changed.items()}
        self._sql.executemany(
            "INSERT INTO version_part VALUES (?, ?, ?, ?)", [(document, number, n, p) for n, p in parts.items()]
        )
        self._seal(document, int(number))
        self.move_head(document, number)
        return int(number)

    def _joins(self, document: str, head: int, join: str, at: datetime) -> bool:
        row = self._sql.execute(
            "SELECT at FROM version WHERE document = ? AND number = ? AND joins = ? AND kept = '' AND parent IS NOT NULL",
            (document, head, join),
        ).fetchone()
        if row is None or self.child(document, head) is not None:
            return False
        return 0 <= (at - datetime.fromisoformat(row[0])).total_seconds() < _JOIN_S

    def _replace(self, document: str, head: int, changed: Mapping[str, str], at: datetime) -> int:
        parent = self.version(document, head).parent
        assert parent is not None
        before, here = self.parts(document, parent), self.parts(document, head)
        for name, text in changed.items():
            found = self._parts.keep(text, before.get(name))
            self._sql.execute(
                "UPDATE version_part SET part = ? WHERE document = ? AND number = ? AND name = ?", (found, document, head, name)
            )
        self._sql.execute("UPDATE version SET at = ? WHERE document = ? AND number = ?", (at.isoformat(), document, head))
        self._seal(document, head)
        self._parts.drop_unused(here[name] for name in changed)
        return head

    def move_head(self, document: str, number: int) -> None:
        """Show another version: undo and redo."""
        self._sql.execute(
            "INSERT INTO head VALUES (?, ?, ?) ON CONFLICT (document) DO UPDATE SET number = excluded.number, seal = excluded.seal",
            (document, number, seal_of(document, number)),
        )

    def keep(self, document: str, number: int, why: str) -> None:
        """Never thin this version out: something was sent or decided by it."""
        self._sql.execute("UPDATE version SET kept = ? WHERE document = ? AND number = ?", (why, document, number))
        self._seal(document, number)

    def forget(self, document: str) -> None:
        """All versions of a document go, with the parts nobody else names: only erasing does this."""
        rows = self._sql.execute("SELECT DISTINCT part FROM version_part WHERE document = ?", (document,)).fetchall()
        for table in ("head", "version_part", "version"):
            self._sql.execute(f"DELETE FROM {table} WHERE document = ?", (document,))
        self._parts.drop_unused(row[0] for row in rows)

    # --- age

    def thin(self, document: str, now: datetime, most: int) -> int:
        """Take out at most `most` versions that have become too many for their age; returns how many went.

        Never the head, the first, or one that was kept for a reason; what came from a version comes from the one before it then.
        """
        going = too_many(self.versions(document), self.head(document), now)[:most]
        for number in going:
            self._take_out(document, number)
        return len(going)

    def _take_out(self, document: str, number: int) -> None:
        gone = self.version(document, number)
        parts = self.parts(document, number)
        where = (document, number)
        came = self._sql.execute("SELECT number FROM version WHERE document = ? AND parent = ?", where).fetchall()
        self._sql.execute(
            "UPDATE version SET parent = ?, folded = folded + ? WHERE document = ? AND parent = ?",
            (gone.parent, gone.folded + 1, *where),
        )
        self._sql.execute("DELETE FROM version_part WHERE document = ? AND number = ?", where)
        self._sql.execute("DELETE FROM version WHERE document = ? AND number = ?", where)
        for (child,) in came:
            self._seal(document, child)
        self._parts.drop_unused(parts.values())


def _version(document: str, row: tuple[Any, ...]) -> Version:
    number, parent, at, label, place, kept, folded = row
    try:
        moment = datetime.fromisoformat(at)
        if moment.tzinfo is None:
            raise ValueError("a moment without its zone")
    except (TypeError, ValueError) as error:
        raise _damaged(document, f"its version {number} has no moment") from error
    return Version(number, parent, moment, str(label), str(place), str(kept), folded)


def _damaged(document: str, why: str) -> Damaged:
    return Damaged(f"The record of {document} cannot be read", why, "restore a copy of the studio")


def too_many(versions: tuple[Version, ...], head: int | None, now: datetime) -> list[int]:
    """The numbers of the versions that may go, the oldest first."""
    newest: dict[tuple[object, ...], int] = {}
    spans: dict[int, tuple[object, ...]] = {}
    for v in versions:
        age = now - v.at
        if age <= timedelta(days=_ALL_DAYS):
            continue
        daily = age <= timedelta(days=_DAILY_DAYS)
        spans[v.number] = ("day", v.at.date()) if daily else ("week", *v.at.isocalendar()[:2])
        newest[spans[v.number]] = v.number
    return [
        v.number
        for v in versions
        if v.number in spans
        and newest[spans[v.number]] != v.number
        and v.number != head
        and v.parent is not None
        and not v.kept
    ]
