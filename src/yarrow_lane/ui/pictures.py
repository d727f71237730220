"""Photographs for the screen: first a quick look, then the whole; made in workers, kept a while, asked for by many."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QObject, Signal
from PySide6.QtGui import QImage

from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.store.things import Things
from yarrow_lane.ui.kit.levels import SMALLEST_PX, Levels, levels_of, qimage
from yarrow_lane.workers.pool import Workers

_QUICK_PX = 1400  # our choice: enough to fill the table at 1280x800
THUMB_PX = 360
_THUMB_VERSION = 2


@dataclass(frozen=True)
class Shown:
    """A picture ready to show; `whole` is False for the quick first look."""

    picture: Picture
    levels: Levels
    whole: bool = True

    @property
    def bytes(self) -> int:
        return self.levels.bytes + self.picture.nbytes


def size_of(shown: Shown) -> int:
    """Bytes a shown picture takes."""
    return shown.bytes


class Pictures(QObject):
    """Hands out photographs, parts of them and thumbnails; `arrived` tells that a thumbnail has come."""

    arrived = Signal()

    def __init__(self, photos: Things, derived: Derived, workers: Workers) -> None:
        super().__init__()
        self._photos, self._derived, self._workers = photos, derived, workers
        self._missing: set[Key] = set()

    def file(self, photo_id: str, name: str) -> Path:
        """Where a photograph lies, its content looked through; blocks. Raises `StoreTrouble` when it is gone or damaged."""
        return self._photos.sound(photo_id, name)

    # --- whole photographs

    def photo(self, photo_id: str, name: str, asker: object, ready: Callable[[Shown], None]) -> None:
        """Call `ready` with a quick look first where the whole is not at hand, then with the whole photograph."""
        whole = Key("photo", (photo_id,))

        def quick(progress: Progress) -> Shown:
            # Not looked through: a look at once matters here, and the whole that follows is.
            path = self._photos.path(photo_id)
            picture = self._workers.ask("intake.opening:open_sized", path, name, _QUICK_PX, progress=progress)
            return Shown(picture, Levels((qimage(picture),)), whole=False)

        def all_of_it(progress: Progress) -> Shown:
            path = self.file(photo_id, name)
            pictures = self._workers.ask("intake.opening:open_halvings", path, name, SMALLEST_PX, progress=progress)
            return Shown(pictures[0], levels_of(pictures))

        def the_whole() -> None:
            self._derived.want(whole, asker, Making(all_of_it, size_of), ready)

        def then_whole(shown: Shown) -> None:
            ready(shown)
            the_whole()

        # What keeps the quick look from being made is said by the whole, which is looked through.
        kept = self._derived.have(whole)
        if kept is not None:
            ready(kept)
        else:
            self._derived.want(
                Key("quick look", (photo_id,)), asker, Making(quick, size_of, priority=1), then_whole, lambda _: the_whole()
            )

    def part_now(self, photo_id: str, name: str, area: Rect, longer_px: int, progress: Progress) -> Picture:
        """A part of a photograph, (H, W, 3); blocks, for use off the interface thread."""
        path = self.file(photo_id, name)
        picture: Picture = self._workers.ask("compose.question:part_of_photo", path, name, area, longer_px, progress=progress)
        return picture

    # --- thumbnails

    def thumbnail(self, photo_id: str, name: str, area: Rect | None = None, place: str = "") -> QImage | None:
        """A small picture, now if it is at hand; else it is fetched and `arrived` tells. `place` names the area ("left eye")."""

        def make(progress: Progress) -> QImage:
            if area is None:
                path = self.file(photo_id, name)
                return qimage(self._workers.ask("intake.opening:open_sized", path, name, THUMB_PX, progress=progress))
            return qimage(self.part_now(photo_id, name, area, THUMB_PX, progress))

        return self._thumb(Key(f"thumb {place}", (photo_id,), (area, THUMB_PX), _THUMB_VERSION), make)

    def reference_thumbnail(
        self, key: str, photographs: tuple[str, ...], make: Callable[[Progress], Picture], on_disk: bool
    ) -> QImage | None:  # fmt: skip
        """The reference, small; `key` names it, `photographs` are the ids it is made from."""
        made_from = Key("thumb reference", photographs, (key, THUMB_PX), _THUMB_VERSION)
        return self._thumb(made_from, lambda p: qimage(make(p)), on_disk)

    def _thumb(self, key: Key, make: Callable[[Progress], QImage], on_disk: bool = True) -> QImage | None:
        found: QImage | None = self._derived.have(key)
        if found is not None or key in self._missing or self._derived.under_way(key):
            return found
        dump, load = (_jpeg, QImage.fromData) if on_disk else (None, None)
        making = Making(make, lambda image: image.sizeInBytes(), dump, load, priority=-1)
        # What is wrong with a photograph is said where it is opened; a thumbnail only stays empty.
        self._derived.want(key, self, making, lambda _: self.arrived.emit(), lambda _: self._missing.add(key))
        return self._derived.have(key)

    def forget_missing(self) -> None:
        """Thumbnails that could not be made are tried again: their files may have come back."""
        self._missing.clear()


def _jpeg(image: QImage) -> bytes:
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    image.save(buffer, "JPEG", 88)  # type: ignore[call-overload]
    return bytes(data.data())
