"""The studio folder: taken by one program at a time, looked over before anything is written."""

import fcntl
import os
import shutil
from pathlib import Path

from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_LEAST_FREE_BYTES = 20_000_000  # our choice: room for a day's versions; photographs are checked as they come


class FolderLock:
    """Holds the folder for this program; released on close or when the process ends."""

    def __init__(self, folder: Path) -> None:
        """Raises `StoreTrouble` when the folder is held, read-only, full or no folder."""
        what = f"The studio “{folder}” was not opened"
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except FileExistsError as error:
            raise StoreTrouble(what, "it is a file, not a folder", "choose a folder") from error
        except OSError as error:
            raise disk_trouble(error, folder) from error
        if not os.access(folder, os.W_OK | os.X_OK):
            raise StoreTrouble(what, "the folder is read-only", "give yourself permission to write there or choose another")
        if shutil.disk_usage(folder).free < _LEAST_FREE_BYTES:
            raise StoreTrouble(what, "its disk is full", "free at least 20 MB and start again")
        try:
            self._handle = os.open(folder / "studio.lock", os.O_RDWR | os.O_CREAT, 0o600)
        except OSError as error:
            raise disk_trouble(error, folder) from error
        try:
            fcntl.flock(self._handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            os.close(self._handle)
            raise StoreTrouble(what, "it is open in another Yarrow Lane", "close that one first") from error

    def release(self) -> None:
        """Let the folder go; twice does no harm."""
        if self._handle >= 0:
            os.close(self._handle)
            self._handle = -1
