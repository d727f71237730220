"""Photographs for the screen: first a quick look, then the whole, read off the interface thread and kept a while."""

import io
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from PIL import Image
from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QImage

from yarrow_lane.commission.commission import Commission
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.opening import open_picture
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture, cut, resample
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.ui.jobs import Jobs
from yarrow_lane.ui.kit.levels import Levels, make_levels, qimage

_KEPT_BYTES = 260_000_000  # our choice: two 24-megapixel photographs with their levels
_QUICK_PX = 1400  # our choice: enough to fill the table at 1280x800
THUMB_PX = 360
REFERENCE_PX = 1600  # our choice: the longer side of the crop as the later rooms work on it
_THUMB_VERSION = 1


@dataclass(frozen=True)
class Shown:
    """A picture ready to show; `whole` is False for the quick first look."""

    picture: Picture
    levels: Levels
    whole: bool = True

    @property
    def bytes(self) -> int:
        return self.levels.bytes + self.picture.nbytes


class PictureShelf(QObject):
    """Hands out photographs, crops and thumbnails; whoever waits is called when they are read."""

    arrived = Signal(str)

    def __init__(self, desk: Desk, jobs: Jobs) -> None:
        super().__init__()
        self._desk, self._jobs = desk, jobs
        self._kept: OrderedDict[tuple[object, ...], Shown] = OrderedDict()
        self._thumbs: dict[str, QImage] = {}
        self._failed: set[tuple[object, ...]] = set()

    # --- whole photographs

    def photo(self, photo_id: str, name: str, ready: Callable[[Shown], None]) -> None:
        """Call `ready` with a quick look first where that helps, then with the whole photograph."""
        key = ("photo", photo_id)
        if key in self._kept:
            self._kept.move_to_end(key)
            ready(self._kept[key])
            return
        path = self._desk.store.pictures.path(photo_id)

        def quick(_: Progress) -> Shown:
            picture = open_picture(path, name, _QUICK_PX).picture
            return Shown(picture, Levels((qimage(picture),)), whole=False)

        def whole(_: Progress) -> Shown:
            picture = open_picture(path, name).picture
            return Shown(picture, make_levels(picture))

        def keep(shown: Shown) -> None:
            self._keep(key, shown)
            ready(shown)

        def then_whole(shown: Shown) -> None:
            ready(shown)
            self._jobs.run("photo", whole, keep)

        self._jobs.run("photo", quick, then_whole)

    def _keep(self, key: tuple[object, ...], shown: Shown) -> None:
        self._kept[key] = shown
        self._kept.move_to_end(key)
        while len(self._kept) > 1 and sum(s.bytes for s in self._kept.values()) > _KEPT_BYTES:
            self._kept.popitem(last=False)

    # --- the crop, as the later rooms see it

    def reference(self, commission: Commission, ready: Callable[[Shown], None], kind: str = "reference") -> None:
        """The framed crop at canvas proportion; nothing happens while there is none."""
        photo, crop = commission.photo, commission.compose.crop
        if photo is None or crop is None:
            return
        self._piece(kind, photo.id, photo.name, crop, REFERENCE_PX, ready)

    def painting(self, commission: Commission, area: Rect, ready: Callable[[Shown], None]) -> None:
        """The photograph of the painting, cut to `area`."""
        self._piece("painting", commission.check.photo_id, commission.check.photo_name, area, REFERENCE_PX, ready)

    def _piece(self, kind: str, photo_id: str, name: str, area: Rect, longer_px: int, ready: Callable[[Shown], None]) -> None:
        key = ("piece", photo_id, area, longer_px)
        if key in self._kept:
            self._kept.move_to_end(key)
            ready(self._kept[key])
            return
        path = self._desk.store.pictures.path(photo_id)
        whole = self._kept.get(("photo", photo_id))

        def work(_: Progress) -> Shown:
            picture = cut(whole.picture if whole else open_picture(path, name).picture, area)
            scale = min(1.0, longer_px / max(picture.shape[:2]))
            if scale < 1:
                picture = resample(picture, round(picture.shape[1] * scale), round(picture.shape[0] * scale))
            picture = np.ascontiguousarray(picture)
            return Shown(picture, make_levels(picture))

        def keep(shown: Shown) -> None:
            self._keep(key, shown)
            ready(shown)

        self._jobs.run(kind, work, keep)

    # --- thumbnails

    def thumbnail(self, photo_id: str, name: str, area: Rect | None = None) -> QImage | None:
        """A small picture, now if it is at hand; else it is fetched and `arrived` tells."""
        key = ("thumb", photo_id, area, THUMB_PX, _THUMB_VERSION)
        if repr(key) in self._thumbs:
            return self._thumbs[repr(key)]
        if key in self._failed:
            return None
        path, cache = self._desk.store.pictures.path(photo_id), self._desk.store.cache

        def work(_: Progress) -> QImage:
            if (found := cache.get(*key)) is not None:
                return qimage(np.asarray(Image.open(io.BytesIO(found)).convert("RGB")))
            picture = open_picture(path, name, None if area else THUMB_PX).picture
            if area is not None:
                picture = cut(picture, area)
            scale = min(1.0, THUMB_PX / max(picture.shape[:2]))
            small = resample(picture, round(picture.shape[1] * scale), round(picture.shape[0] * scale))
            out = io.BytesIO()
            Image.fromarray(small).save(out, "JPEG", quality=88)
            cache.put(out.getvalue(), *key)
            return qimage(small)

        def keep(image: QImage) -> None:
            self._thumbs[repr(key)] = image
            self.arrived.emit(photo_id)

        def failed(_: Trouble) -> None:
            # The photograph itself says what is wrong when it is opened; a thumbnail only stays empty.
            self._failed.add(key)

        kind = f"thumb {key}"
        if not self._jobs.asked(kind):
            self._jobs.run(kind, work, keep, failed, priority=-1)
        return None
