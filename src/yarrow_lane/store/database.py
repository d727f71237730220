"""The one file of the studio. One thread owns it; each change is one transaction, synced."""

import sqlite3
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from datetime import date, datetime
from pathlib import Path

from yarrow_lane.store.copies import PLACE, quickly_sound, thin, write_copy
from yarrow_lane.store.parts import Parts
from yarrow_lane.store.references import names_in
from yarrow_lane.store.restore import FILE, refuse_if_emptied, refuse_if_lost
from yarrow_lane.store.schema import NEWEST, migrate, schema_number
from yarrow_lane.store.seals import seal_of
from yarrow_lane.store.sql import Sql, connect
from yarrow_lane.store.trouble import Damaged, StoreTrouble, disk_trouble, file_damage
from yarrow_lane.store.versions import Version, Versions


class Database:
    """Versions, happenings and the place where the painter was.

    A document is the studio or a commission; its head is the version now shown. Reading through `versions` and `parts` costs no
    transaction; whatever writes goes through the methods here.
    """

    def __init__(self, folder: Path) -> None:
        """Open or make the file; raises `StoreTrouble` before any change when it must not be touched."""
        self.folder = folder
        path = folder / FILE
        refuse_if_lost(folder)
        self._sql = connect(path, folder)
        try:
            refuse_if_emptied(folder, self._sql)
            found = schema_number(self._sql)
            if found > NEWEST:
                raise StoreTrouble(
                    f"The studio “{folder}” was not opened",
                    f"a newer Yarrow Lane wrote it (its number is {found}, this program knows up to {NEWEST})",
                    "open it with that newer program",
                )
            self._sql.execute("PRAGMA journal_mode = WAL")
            self._sql.execute("PRAGMA synchronous = FULL")
            self._sql.execute("PRAGMA foreign_keys = ON")
            if 0 < found < NEWEST:
                self.backup(f"before-{NEWEST}")
            with self._sql.worded():
                migrate(self._sql)
        except BaseException:
            self._sql.close()
            raise
        self.parts = Parts(self._sql)
        self.versions = Versions(self._sql, self.parts)

    def close(self) -> None:
        self._sql.close()

    @contextmanager
    def _transaction(self) -> Iterator[Sql]:
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

    def append(
        self, document: str, changed: dict[str, str], label: str, place: str, at: datetime, join: str = "", keep: str = ""
    ) -> int:  # fmt: skip
        """Write a new version and make it the head; returns its number. `changed` maps part names to JSON."""
        with self._transaction():
            return self.versions.append(document, changed, label, place, at, join, keep)

    def append_several(self, changes: list[tuple[str, dict[str, str], str, str]], at: datetime) -> None:
        """Several documents change together or not at all: (document, changed parts, label, place) each."""
        with self._transaction():
            for document, changed, label, place in changes:
                self.versions.append(document, changed, label, place, at)

    def move_head(self, document: str, number: int) -> None:
        """Show another version: undo and redo."""
        with self._transaction():
            self.versions.move_head(document, number)

    def thin(self, document: str, now: datetime, most: int) -> int:
        """Take out versions that have become too many for their age, at most `most`; returns how many went."""
        with self._transaction():
            return self.versions.thin(document, now, most)

    def stored(self, document: str, number: int) -> dict[str, str]:
        """Part name to JSON of one version, each checked against its hash; raises `StoreTrouble`."""
        return {name: self.parts.text(found) for name, found in self.versions.parts(document, number).items()}

    def version(self, document: str, number: int) -> Version:
        return self.versions.version(document, number)

    def head(self, document: str) -> int | None:
        return self.versions.head(document)

    # --- what happened, and where the painter was

    def happen(self, document: str, text: str, keep: str = "") -> int:
        """Append one happening and return its number; nothing ever changes or removes it.

        With `keep` the version shown at that moment is never thinned out.
        """
        with self._transaction() as sql:
            number = self._happened(sql, document, text)
            head = self.versions.head(document)
            if keep and head is not None:
                self.versions.keep(document, head, keep)
            return number

    @staticmethod
    def _happened(sql: Sql, document: str, text: str) -> int:
        number = sql.execute("INSERT INTO happening (document, json) VALUES (?, ?)", (document, text)).lastrowid
        sql.execute("UPDATE happening SET seal = ? WHERE id = ?", (seal_of(number, document, text), number))
        return int(number or 0)

    def happen_numbered(self, document: str, series: str, text_of: Callable[[int], str]) -> int:
        """Append one happening that bears the next number of a series, counted from 1 over all documents; returns the entry's own number.

        Number and entry come in one transaction: whatever ends the program in between, the series has no gap and no double.
        """
        with self._transaction() as sql:
            sql.execute("INSERT INTO series VALUES (?, 1) ON CONFLICT (name) DO UPDATE SET last = last + 1", (series,))
            given = int(sql.execute("SELECT last FROM series WHERE name = ?", (series,)).fetchone()[0])
            return self._happened(sql, document, text_of(given))

    def erase(self, document: str, parts: dict[str, str], happened: tuple[str, ...], label: str, at: datetime) -> set[str]:
        """All versions and happenings of a document give way to these, in one transaction: only a person's wish to be erased does this.

        What lay in the file is overwritten (SQLite's secure_delete), also in its write-ahead log. Returns the things it named before.
        """
        named: set[str] = set()
        for version in self.versions.versions(document):
            named |= names_in("".join(self.stored(document, version.number).values()))
        named |= names_in("".join(self.happenings(document)))
        self._sql.execute("PRAGMA secure_delete = ON")
        with self._transaction() as sql:
            self.versions.forget(document)
            sql.execute("DELETE FROM happening WHERE document = ?", (document,))
            sql.execute("DELETE FROM standing WHERE document = ?", (document,))
            sql.executemany("DELETE FROM measure WHERE photo = ?", [(name,) for name in named])
            self.versions.append(document, parts, label, "", at)
            for text in happened:
                self._happened(sql, document, text)
        self.checkpoint()
        return named

    def last_of(self, series: str) -> int:
        """The last number given of a series; 0 before the first."""
        row = self._sql.execute("SELECT last FROM series WHERE name = ?", (series,)).fetchone()
        return 0 if row is None else int(row[0])

    def happenings_of(self, kinds: Iterable[str]) -> tuple[dict[str, tuple[str, ...]], frozenset[str]]:
        """By document what happened of these kinds, as JSON, the oldest first; and the documents of which an entry is no longer what was stored."""
        wanted = sorted(kinds)
        marks = ", ".join("?" * len(wanted))
        rows = self._sql.execute(
            f"SELECT id, document, json, seal FROM happening WHERE json_extract(json, '$.kind') IN ({marks}) ORDER BY id",
            wanted,
        )
        found: dict[str, list[str]] = {}
        damaged: set[str] = set()
        for number, document, text, seal in rows:
            if seal == seal_of(number, document, text):
                found.setdefault(document, []).append(text)
            else:
                damaged.add(document)
        return {document: tuple(texts) for document, texts in found.items() if document not in damaged}, frozenset(damaged)

    def happenings(self, document: str) -> tuple[str, ...]:
        """What happened on a document, as JSON, the oldest first; raises `StoreTrouble` for one that is not what was stored."""
        found = []
        rows = self._sql.execute("SELECT id, json, seal FROM happening WHERE document = ? ORDER BY id", (document,))
        for number, text, seal in rows:
            if seal != seal_of(number, document, text):
                raise Damaged(
                    f"What happened on {document} cannot be read",
                    f"its entry {number} is no longer what was stored",
                    "restore a copy of the studio",
                )
            found.append(text)
        return tuple(found)

    def newest_happenings(self) -> dict[str, int]:
        """For each document that has any, a number that grows with every happening."""
        return dict(self._sql.execute("SELECT document, max(id) FROM happening GROUP BY document"))

    def remember(self, key: str, text: str) -> None:
        with self._transaction() as sql:
            sql.execute("INSERT INTO memory VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET json = excluded.json", (key, text))

    def recall(self, key: str) -> str | None:
        row = self._sql.execute("SELECT json FROM memory WHERE key = ?", (key,)).fetchone()
        return None if row is None else row[0]

    # --- standings kept beside their commissions

    def standings(self) -> dict[str, tuple[str, str]]:
        """For each document the key its standing was worked out under, and the standing as text."""
        return {d: (key, text) for d, key, text in self._sql.execute("SELECT document, key, json FROM standing")}

    def keep_standings(self, rows: Iterable[tuple[str, str, str]]) -> None:
        """Keep (document, key, text) each; they can be worked out again any time."""
        with self._transaction() as sql:
            sql.executemany("INSERT OR REPLACE INTO standing VALUES (?, ?, ?)", list(rows))

    # --- what was measured of photographs

    def measure(self, photo: str) -> tuple[str, str] | None:
        """The key under which a photograph was measured last, and the measure as text."""
        row = self._sql.execute("SELECT key, json FROM measure WHERE photo = ?", (photo,)).fetchone()
        return None if row is None else (str(row[0]), str(row[1]))

    def keep_measures(self, rows: Iterable[tuple[str, str, str]]) -> None:
        """Keep (photograph, key, text) each; they can be worked out again any time."""
        with self._transaction() as sql:
            sql.executemany("INSERT OR REPLACE INTO measure VALUES (?, ?, ?)", list(rows))

    # --- things nobody names any more

    def note_orphans(self, orphans: Iterable[str], now: datetime) -> dict[str, datetime]:
        """Write down since when each of these things is named by nothing; those that are named again are forgotten."""
        with self._transaction() as sql:
            known = dict(sql.execute("SELECT hash, since FROM orphan"))
            found = {o: known.get(o, now.isoformat()) for o in orphans}
            sql.execute("DELETE FROM orphan")
            sql.executemany("INSERT INTO orphan VALUES (?, ?)", list(found.items()))
        return {o: datetime.fromisoformat(since) for o, since in found.items()}

    # --- safety

    def sound(self) -> bool:
        """Whether SQLite's own integrity check finds nothing."""
        return bool(self._sql.execute("PRAGMA integrity_check").fetchone()[0] == "ok")

    def backup(self, name: str) -> Path:
        """A whole copy among the others, looked over. Raises `StoreTrouble`."""
        return write_copy(self._sql, self.folder / PLACE / f"{name}.db").path

    def copy_to(self, path: Path) -> Path:
        """A whole copy at another place, looked over. Raises `StoreTrouble`."""
        return write_copy(self._sql, path).path

    def daily_copy(self, today: date) -> None:
        """One copy a day, made of a sound file alone; then those that are too many go. Raises `StoreTrouble`.

        Of a studio in which nothing was ever started there is none.
        """
        if not self.versions.heads() or (self.folder / PLACE / f"{today.isoformat()}.db").exists():
            return
        if not quickly_sound(self._sql):
            raise file_damage(self.folder, "SQLite's own check finds damage; no copy of it was made today")
        self.backup(today.isoformat())
        thin(self.folder)

    def checkpoint(self) -> None:
        """Take the changes from the write-ahead log into the file. Raises `StoreTrouble`."""
        self._sql.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
