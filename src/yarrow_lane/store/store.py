"""The studio on disk as one thing: folder, versions, pictures, cache."""

from datetime import date
from pathlib import Path

from yarrow_lane.store.cache import Cache
from yarrow_lane.store.database import Database
from yarrow_lane.store.folder import FolderLock
from yarrow_lane.store.pictures import Pictures


class Store:
    """Opens the folder and holds it until closed; raises `StoreTrouble` before any change."""

    def __init__(self, folder: Path, today: date) -> None:
        self.folder = folder
        self._lock = FolderLock(folder)
        try:
            self.database = Database(folder)
        except BaseException:
            self._lock.release()
            raise
        self.pictures = Pictures(folder)
        self.cache = Cache(folder)
        self.database.daily_backup(today)

    def close(self) -> None:
        self.database.close()
        self._lock.release()
