"""SQLite whose every error is a sentence: whoever reads or writes never meets the library's own exceptions."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from yarrow_lane.store.trouble import disk_trouble


class Sql(sqlite3.Connection):
    """A connection that raises `StoreTrouble`. `folder` is the studio it belongs to, for the words."""

    folder: Path

    def execute(self, *what: Any) -> "Cursor":
        return self.cursor(Cursor).execute(*what)

    def executemany(self, *what: Any) -> "Cursor":
        return self.cursor(Cursor).executemany(*what)

    @contextmanager
    def worded(self) -> Iterator[None]:
        """What SQLite says inside is put into words."""
        try:
            yield
        except sqlite3.Error as error:
            raise disk_trouble(error, self.folder) from error


class Cursor(sqlite3.Cursor):
    """Its rows come as the connection's own, its errors in words."""

    connection: Sql

    def execute(self, *what: Any) -> "Cursor":
        try:
            super().execute(*what)
            return self
        except sqlite3.Error as error:
            raise disk_trouble(error, self.connection.folder) from error

    def executemany(self, *what: Any) -> "Cursor":
        try:
            super().executemany(*what)
            return self
        except sqlite3.Error as error:
            raise disk_trouble(error, self.connection.folder) from error

    def __next__(self) -> Any:
        try:
            return super().__next__()
        except sqlite3.Error as error:
            raise disk_trouble(error, self.connection.folder) from error

    def fetchone(self) -> Any:
        try:
            return super().fetchone()
        except sqlite3.Error as error:
            raise disk_trouble(error, self.connection.folder) from error

    def fetchall(self) -> list[Any]:
        try:
            return super().fetchall()
        except sqlite3.Error as error:
            raise disk_trouble(error, self.connection.folder) from error


def connect(path: Path, folder: Path) -> Sql:
    """Open a file of that studio for reading and writing; raises `StoreTrouble`."""
    try:
        sql = sqlite3.connect(path, isolation_level=None, timeout=2.0, factory=Sql)
    except sqlite3.Error as error:
        raise disk_trouble(error, folder) from error
    sql.folder = folder
    return sql


def connect_unchanging(path: Path) -> Sql:
    """Open a copy that nobody writes; nothing is written beside it. Raises `StoreTrouble`."""
    try:
        sql = sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro&immutable=1", uri=True, isolation_level=None, factory=Sql)
    except sqlite3.Error as error:
        raise disk_trouble(error, path.parent) from error
    sql.folder = path.parent
    return sql
