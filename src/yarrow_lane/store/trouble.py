"""What the disk may do to us, in words; decided in one place from the result codes."""

import errno
import sqlite3
from pathlib import Path

from yarrow_lane.measure.trouble import Trouble


class StoreTrouble(Trouble):
    """The studio folder cannot be used as it is."""


class Damaged(StoreTrouble):
    """What is on record is no longer what was stored; restoring a copy may mend it."""


# https://sqlite.org/rescode.html: those that a sound file of ours never gives.
_DAMAGE = {
    sqlite3.SQLITE_ERROR,
    sqlite3.SQLITE_CORRUPT,
    sqlite3.SQLITE_NOTADB,
    sqlite3.SQLITE_SCHEMA,
    sqlite3.SQLITE_CONSTRAINT,
    sqlite3.SQLITE_MISMATCH,
    sqlite3.SQLITE_RANGE,
    sqlite3.SQLITE_TOOBIG,
}


def file_damage(folder: Path, what: str = "") -> Damaged:
    """The studio's one file cannot be read; `what` exactly."""
    why = "its file studio.db is damaged" + (f" ({what})" if what else "")
    return Damaged(f"The studio “{folder}” cannot be read", why, "restore a copy of it")


def disk_trouble(error: Exception, folder: Path) -> StoreTrouble:
    """The sentence for an error of SQLite or the file system."""
    what = f"The studio “{folder}” could not be written"
    code = getattr(error, "sqlite_errorcode", None)
    number = error.errno if isinstance(error, OSError) else None
    if code == sqlite3.SQLITE_FULL or number in (errno.ENOSPC, errno.EDQUOT):
        return StoreTrouble(what, "the disk is full", "free some space and do it again; everything before this is kept")
    if (code is not None and code & 0xFF == sqlite3.SQLITE_READONLY) or number in (errno.EACCES, errno.EPERM, errno.EROFS):
        return StoreTrouble(what, "it is read-only", "give yourself permission to write there or choose another folder")
    if code is not None and code & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return StoreTrouble(what, "another program holds it", "close that program and do it again")
    # Text that is no UTF-8 raises an error without a code.
    if (code is not None and code & 0xFF in _DAMAGE) or (isinstance(error, sqlite3.Error) and code is None):
        return file_damage(folder, str(error))
    return StoreTrouble(f"The studio “{folder}” could not be read or written", str(error), "check the disk")
