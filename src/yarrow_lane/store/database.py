"""The one file of versions. One thread owns it; each change is one transaction, synced."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import date, datetime
from pathlib import Path

from yarrow_lane.store.codec import part_hash
from yarrow_lane.store.schema import NEWEST, migrate, schema_number
from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_BACKUPS_KEPT = 7  # our choice: one a day for a week


@dataclass(frozen=True)
class Version:
    """One state of a document: its number, the one it came from, and its words."""

    number: int
    parent: int | None
    at: datetime
    label: str
    place: str


class Database:
    """Versions, happenings and the place where the painter was.

    A document is the studio or a commission; its head is the version now shown.
    """

    def __init__(self, folder: Path) -> None:
        """Open or make the file; raises `StoreTrouble` before any change when it must not be touched."""
        self.folder = folder
        path = folder / "studio.db"
        existed = path.exists()
        try:
            self._sql = sqlite3.connect(path, isolation_level=None, timeout=2.0)
            found = schema_number(self._sql)
            if found > NEWEST:
                self._sql.close()
                raise StoreTrouble(
                    f"The studio “{folder}” was not opened",
                    f"a newer Yarrow Lane wrote it (its number is {found}, this program knows up to {NEWEST})",
                    "open it with that newer program",
                )
            self._sql.execute("PRAGMA journal_mode = WAL")
            self._sql.execute("PRAGMA synchronous = FULL")
            self._sql.execute("PRAGMA foreign_keys = ON")
            if existed and found < NEWEST:
                self.backup(f"before-{NEWEST}")
            migrate(self._sql)
        except sqlite3.Error as error:
            raise disk_trouble(error, folder) from error

    def close(self) -> None:
        self._sql.close()

    @contextmanager
    def _transaction(self) -> Iterator[sqlite3.Connection]:
        try:
            self._sql.execute("BEGIN IMMEDIATE")
            try:
                yield self._sql
                self._sql.execute("COMMIT")
            except BaseException:
                if self._sql.in_transaction:
                    self._sql.execute("ROLLBACK")
                raise
        except (sqlite3.Error, OSError) as error:
            raise disk_trouble(error, self.folder) from error

    # --- versions

    def append(self, document: str, parts: dict[str, str], label: str, place: str, at: datetime) -> int:
        """Write a new version after the head and make it the head; returns its number.

        `parts` maps part name to canonical JSON; a part already stored is only referred to.
        """
        with self._transaction() as sql:
            return self._append(sql, document, parts, label, place, at)

    def append_several(self, changes: list[tuple[str, dict[str, str], str, str]], at: datetime) -> None:
        """Several documents change together or not at all: (document, parts, label, place) each."""
        with self._transaction() as sql:
            for document, parts, label, place in changes:
                self._append(sql, document, parts, label, place, at)

    def _append(
        self, sql: sqlite3.Connection, document: str, parts: dict[str, str], label: str, place: str, at: datetime
    ) -> int:
        parent = self.head(document)
        number = 1 + int(
            sql.execute("SELECT coalesce(max(number), 0) FROM version WHERE document = ?", (document,)).fetchone()[0]
        )
        hashes = {name: part_hash(text) for name, text in parts.items()}
        sql.executemany("INSERT OR IGNORE INTO part VALUES (?, ?)", [(hashes[n], text) for n, text in parts.items()])
        sql.execute("INSERT INTO version VALUES (?, ?, ?, ?, ?, ?)", (document, number, parent, at.isoformat(), label, place))
        sql.executemany("INSERT INTO version_part VALUES (?, ?, ?, ?)", [(document, number, n, h) for n, h in hashes.items()])
        self._set_head(sql, document, number)
        return number

    @staticmethod
    def _set_head(sql: sqlite3.Connection, document: str, number: int) -> None:
        sql.execute(
            "INSERT INTO head VALUES (?, ?) ON CONFLICT (document) DO UPDATE SET number = excluded.number", (document, number)
        )

    def move_head(self, document: str, number: int) -> None:
        """Show another version: undo and redo."""
        with self._transaction() as sql:
            self._set_head(sql, document, number)

    def head(self, document: str) -> int | None:
        row = self._sql.execute("SELECT number FROM head WHERE document = ?", (document,)).fetchone()
        return None if row is None else int(row[0])

    def documents(self) -> tuple[str, ...]:
        """Every document ever started."""
        return tuple(row[0] for row in self._sql.execute("SELECT document FROM head ORDER BY document"))

    def version(self, document: str, number: int) -> Version:
        row = self._sql.execute(
            "SELECT number, parent, at, label, place FROM version WHERE document = ? AND number = ?", (document, number)
        ).fetchone()
        return Version(row[0], row[1], datetime.fromisoformat(row[2]), row[3], row[4])

    def child(self, document: str, number: int) -> int | None:
        """The newest version that came from this one: what redo goes to."""
        row = self._sql.execute(
            "SELECT max(number) FROM version WHERE document = ? AND parent = ?", (document, number)
        ).fetchone()
        return row[0]

    def parts(self, document: str, number: int) -> dict[str, str]:
        """Part name to canonical JSON of one version."""
        return dict(
            self._sql.execute(
                "SELECT name, json FROM version_part JOIN part USING (hash) WHERE document = ? AND number = ?",
                (document, number),
            )
        )

    # --- what happened, and where the painter was

    def happen(self, document: str, text: str) -> None:
        """Append one happening; nothing ever changes or removes it."""
        with self._transaction() as sql:
            sql.execute("INSERT INTO happening (document, json) VALUES (?, ?)", (document, text))

    def happenings(self, document: str) -> tuple[str, ...]:
        return tuple(r[0] for r in self._sql.execute("SELECT json FROM happening WHERE document = ? ORDER BY id", (document,)))

    def remember(self, key: str, text: str) -> None:
        with self._transaction() as sql:
            sql.execute("INSERT INTO memory VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET json = excluded.json", (key, text))

    def recall(self, key: str) -> str | None:
        row = self._sql.execute("SELECT json FROM memory WHERE key = ?", (key,)).fetchone()
        return None if row is None else row[0]

    # --- safety

    def sound(self) -> bool:
        """Whether SQLite's own integrity check finds nothing."""
        return self._sql.execute("PRAGMA integrity_check").fetchone()[0] == "ok"

    def backup(self, name: str) -> Path:
        """A whole copy by SQLite's online backup, written beside and renamed."""
        place = self.folder / "backups"
        place.mkdir(exist_ok=True)
        beside, path = place / f"{name}.part", place / f"{name}.db"
        beside.unlink(missing_ok=True)
        copy = sqlite3.connect(beside)
        try:
            self._sql.backup(copy)
        finally:
            copy.close()
        beside.replace(path)
        return path

    def daily_backup(self, today: date) -> None:
        """One copy a day, the newest week kept."""
        if not (self.folder / "backups" / f"{today.isoformat()}.db").exists():
            self.backup(today.isoformat())
            days = sorted((self.folder / "backups").glob("????-??-??.db"))
            for old in days[:-_BACKUPS_KEPT]:
                old.unlink()
