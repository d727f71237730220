"""The studio folder: taken by one program at a time, looked over before anything is written."""

import fcntl
import os
import shutil
import time
from pathlib import Path

from yarrow_lane.store.trouble import StoreTrouble, disk_trouble

_WAIT_S, _TRY_EVERY_S = 1.0, 0.05  # our choice: a process that is just ending lets go by then
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
        until = time.monotonic() + _WAIT_S
        while not self._taken():
            if time.monotonic() > until:
                self.release()
                raise StoreTrouble(what, "it is open in another Yarrow Lane", "close that one first")
            time.sleep(_TRY_EVERY_S)

    def _taken(self) -> bool:
        try:
            fcntl.flock(self._handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return False
        except OSError as error:
            self.release()
            raise StoreTrouble(
                "The studio was not opened",
                f"its folder cannot be locked ({error.strerror})",
                "choose a folder on another disk",
            ) from error
        return True

    def __enter__(self) -> "FolderLock":
        return self

    def __exit__(self, *_: object) -> None:
        self.release()

    def release(self) -> None:
        """Let the folder go; twice does no harm."""
        if self._handle >= 0:
            os.close(self._handle)
            self._handle = -1
