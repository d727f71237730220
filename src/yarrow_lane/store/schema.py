"""The tables, and the numbered steps that lead to them."""

import hashlib
import json
import sqlite3
from collections.abc import Callable
from typing import Any

Step = str | Callable[[sqlite3.Connection], None]


def _letters_become_happenings(database: sqlite3.Connection) -> None:
    """Letters stood in the part "intake" and could be undone; what was sent in any version was sent."""
    rows = database.execute(
        "SELECT DISTINCT document, json FROM version_part JOIN part ON part = id WHERE name = 'intake' ORDER BY document"
    ).fetchall()
    sent: dict[tuple[str, str, str], dict[str, Any]] = {}
    for document, text in rows:
        for request in json.loads(text).get("requests", ()):
            sent[document, request["sent"], request["text"]] = request
    for (document, _, _), request in sorted(sent.items()):
        entry = {
            "v": 1, "at": request["sent"], "number": request["number"], "text": request["text"],
            "asked_for": request["asked_for"], "kind": "letter sent",
        }  # fmt: skip
        database.execute(
            "INSERT INTO happening (document, json) VALUES (?, ?)", (document, json.dumps(entry, ensure_ascii=False))
        )


def _seal_3(*values: object) -> str:
    return hashlib.sha256(json.dumps(values, ensure_ascii=True, default=repr).encode()).hexdigest()[:16]


def _seal_all(database: sqlite3.Connection) -> None:
    """What stands in the file now is what was stored."""
    for number, document, text in database.execute("SELECT id, document, json FROM happening").fetchall():
        database.execute("UPDATE happening SET seal = ? WHERE id = ?", (_seal_3(number, document, text), number))
    for document, number in database.execute("SELECT document, number FROM head").fetchall():
        database.execute("UPDATE head SET seal = ? WHERE document = ?", (_seal_3(document, number), document))
    rows = database.execute("SELECT document, number, parent, at, label, place, joins, kept, folded FROM version").fetchall()
    for row in rows:
        parts = database.execute(
            "SELECT name, hash FROM version_part JOIN part ON id = part WHERE document = ? AND number = ? ORDER BY name",
            row[:2],
        ).fetchall()
        seal = _seal_3(*row, *(x for pair in parts for x in pair))
        database.execute("UPDATE version SET seal = ? WHERE document = ? AND number = ?", (seal, *row[:2]))


# Each step uses only the SQL and the fields of its time. A step is never changed once released.
STEPS: tuple[tuple[Step, ...], ...] = (
    (
        """
    CREATE TABLE part (hash TEXT PRIMARY KEY, json TEXT NOT NULL) WITHOUT ROWID;
    CREATE TABLE version (
        document TEXT NOT NULL, number INTEGER NOT NULL, parent INTEGER, at TEXT NOT NULL,
        label TEXT NOT NULL, place TEXT NOT NULL, PRIMARY KEY (document, number)
    ) WITHOUT ROWID;
    CREATE TABLE version_part (
        document TEXT NOT NULL, number INTEGER NOT NULL, name TEXT NOT NULL,
        hash TEXT NOT NULL REFERENCES part (hash),
        PRIMARY KEY (document, number, name),
        FOREIGN KEY (document, number) REFERENCES version (document, number)
    ) WITHOUT ROWID;
    CREATE TABLE head (
        document TEXT PRIMARY KEY, number INTEGER NOT NULL,
        FOREIGN KEY (document, number) REFERENCES version (document, number)
    ) WITHOUT ROWID;
    CREATE TABLE happening (id INTEGER PRIMARY KEY AUTOINCREMENT, document TEXT NOT NULL, json TEXT NOT NULL);
    CREATE INDEX happening_of ON happening (document, id);
    CREATE TABLE memory (key TEXT PRIMARY KEY, json TEXT NOT NULL) WITHOUT ROWID;
    """,
    ),
    (
        # Parts get short ids that never come back, since every version names eleven of them. `base`: the part this one is told as
        # a change of; `joins`: the word under which edits join; `kept`: why a version is never thinned out; `folded`: how many
        # earlier versions were thinned out into this one.
        """
    CREATE TABLE part_2 (
        id INTEGER PRIMARY KEY AUTOINCREMENT, hash TEXT NOT NULL UNIQUE, json BLOB NOT NULL,
        base INTEGER REFERENCES part_2 (id), depth INTEGER NOT NULL DEFAULT 0
    );
    INSERT INTO part_2 (hash, json) SELECT hash, json FROM part ORDER BY hash;
    CREATE TABLE version_part_2 (
        document TEXT NOT NULL, number INTEGER NOT NULL, name TEXT NOT NULL,
        part INTEGER NOT NULL REFERENCES part_2 (id),
        PRIMARY KEY (document, number, name),
        FOREIGN KEY (document, number) REFERENCES version (document, number)
    ) WITHOUT ROWID;
    INSERT INTO version_part_2 SELECT document, number, name, id FROM version_part JOIN part_2 USING (hash);
    DROP TABLE version_part;
    DROP TABLE part;
    ALTER TABLE part_2 RENAME TO part;
    ALTER TABLE version_part_2 RENAME TO version_part;
    ALTER TABLE version ADD COLUMN joins TEXT NOT NULL DEFAULT '';
    ALTER TABLE version ADD COLUMN kept TEXT NOT NULL DEFAULT '';
    ALTER TABLE version ADD COLUMN folded INTEGER NOT NULL DEFAULT 0;
    CREATE INDEX part_told_from ON part (base) WHERE base IS NOT NULL;
    CREATE INDEX version_part_of ON version_part (part);
    CREATE TABLE orphan (hash TEXT PRIMARY KEY, since TEXT NOT NULL) WITHOUT ROWID;
    CREATE TABLE standing (document TEXT PRIMARY KEY, key TEXT NOT NULL, json TEXT NOT NULL) WITHOUT ROWID;
    UPDATE version SET kept = 'waived' WHERE label LIKE 'Passed %';
    UPDATE version SET kept = 'sent' WHERE label = 'Asked for photographs';
    """,
        _letters_become_happenings,
    ),
    (
        # `seal`: a short hash over the row, for a version over its parts too.
        """
    ALTER TABLE happening ADD COLUMN seal TEXT NOT NULL DEFAULT '';
    ALTER TABLE version ADD COLUMN seal TEXT NOT NULL DEFAULT '';
    ALTER TABLE head ADD COLUMN seal TEXT NOT NULL DEFAULT '';
    """,
        _seal_all,
    ),
    # What was measured of each photograph: worked out again any time.
    ("CREATE TABLE measure (photo TEXT PRIMARY KEY, key TEXT NOT NULL, json TEXT NOT NULL) WITHOUT ROWID;",),
    # The last number given of each kind of paper: given in the transaction that writes the entry, so none is lost or given twice.
    ("CREATE TABLE series (name TEXT PRIMARY KEY, last INTEGER NOT NULL) WITHOUT ROWID;",),
)
NEWEST = len(STEPS)


def schema_number(database: sqlite3.Connection) -> int:
    """Which step the file has reached; 0 for a new file."""
    return int(database.execute("PRAGMA user_version").fetchone()[0])


def migrate(database: sqlite3.Connection) -> None:
    """Take the file to the newest step, each step and its number in one transaction."""
    for number in range(schema_number(database), NEWEST):
        database.execute("BEGIN IMMEDIATE")
        try:
            for step in STEPS[number]:
                if isinstance(step, str):
                    for statement in filter(str.strip, step.split(";")):
                        database.execute(statement)
                else:
                    step(database)
            database.execute(f"PRAGMA user_version = {number + 1}")
            database.execute("COMMIT")
        except BaseException:
            database.execute("ROLLBACK")
            raise
