"""Files and pictures that come by drop or clipboard."""

import os
from datetime import datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from urllib.parse import unquote_to_bytes

from PySide6.QtCore import QMimeData, QUrl
from PySide6.QtGui import QClipboard


def local_files(data: QMimeData) -> list[Path]:
    """The files among what is dropped."""
    return [_path_of(url) for url in data.urls() if url.isLocalFile()]


def _path_of(url: QUrl) -> Path:
    """The file by its bytes: a name that is no UTF-8 would come out of the address as another one."""
    return Path(os.fsdecode(unquote_to_bytes(url.path(QUrl.ComponentFormattingOption.FullyEncoded))))


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
