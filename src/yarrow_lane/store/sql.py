"""SQLite whose every error is a sentence: whoever reads or writes never meets the library's own exceptions."""

import sqlite3
from collections.abc import Callable, Iterator
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


def _in_words(method: Callable[..., Any]) -> Callable[..., Any]:
    """The library's own method, its errors in words."""

    def told(cursor: "Cursor", *what: Any) -> Any:
        try:
            return method(cursor, *what)
        except sqlite3.Error as error:
            raise disk_trouble(error, cursor.connection.folder) from error

    return told


class Cursor(sqlite3.Cursor):
    """Its rows come as the connection's own; whatever asks the file raises `StoreTrouble`."""

    connection: Sql
    execute = _in_words(sqlite3.Cursor.execute)
    executemany = _in_words(sqlite3.Cursor.executemany)
    fetchone = _in_words(sqlite3.Cursor.fetchone)
    fetchall = _in_words(sqlite3.Cursor.fetchall)
    __next__ = _in_words(sqlite3.Cursor.__next__)


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
