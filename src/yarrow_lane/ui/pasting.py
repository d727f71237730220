"""Files and pictures that come by drop or clipboard."""

from datetime import datetime
from pathlib import Path
from tempfile import TemporaryDirectory

from PySide6.QtCore import QMimeData
from PySide6.QtGui import QClipboard


def local_files(data: QMimeData) -> list[Path]:
    """The files among what is dropped."""
    return [Path(u.toLocalFile()) for u in data.urls() if u.isLocalFile()]


class Pasted:
    """A pasted picture becomes a file first, so that it is read like any other."""

    def __init__(self) -> None:
        self._folder = TemporaryDirectory(prefix="yarrow-lane-")

    def files(self, clipboard: QClipboard, now: datetime) -> list[Path]:
        """What was copied: files, or a picture itself; nothing when it is neither."""
        copied = clipboard.mimeData()
        paths = local_files(copied)
        if not paths and copied.hasImage():
            path = Path(self._folder.name) / f"pasted {now:%Y-%m-%d %H.%M.%S}.png"
            if clipboard.image().save(str(path), "PNG"):  # type: ignore[call-overload]
                return [path]
        return paths

    def close(self) -> None:
        self._folder.cleanup()
