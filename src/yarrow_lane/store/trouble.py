"""What the disk may do to us, in words; decided in one place from the result codes."""

import errno
import sqlite3
from pathlib import Path

from yarrow_lane.measure.trouble import Trouble


class StoreTrouble(Trouble):
    """The studio folder cannot be used as it is."""


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
    if code is not None and code & 0xFF in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB):
        return StoreTrouble(
            f"The studio “{folder}” cannot be read",
            "its file studio.db is damaged",
            "put back a copy from its folder “backups”",
        )
    return StoreTrouble(what, str(error), "check the disk")
