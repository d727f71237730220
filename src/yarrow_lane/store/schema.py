"""The tables, and the numbered steps that lead to them."""

import sqlite3

# Each step uses only the SQL of its time. A step is never changed once released.
STEPS: tuple[str, ...] = (
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
            for statement in STEPS[number].split(";"):
                if statement.strip():
                    database.execute(statement)
            database.execute(f"PRAGMA user_version = {number + 1}")
            database.execute("COMMIT")
        except BaseException:
            database.execute("ROLLBACK")
            raise
