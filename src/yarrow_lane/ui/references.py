"""The reference picture for every room that rests on it, at the scale the room asks for."""

from collections.abc import Callable

from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.cut_out import Care
from yarrow_lane.compose.reference import photographs_of, reference_key, working_px_per_mm
from yarrow_lane.desk.cut_outs import CutOuts
from yarrow_lane.desk.derived import Derived, Key, Making
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.store.cache import Cache
from yarrow_lane.ui.kit.levels import make_levels
from yarrow_lane.ui.pictures import THUMB_PX, Pictures, Shown, size_of
from yarrow_lane.workers.pool import Workers

WORKING_PX = 1600  # our choice: the longer side of the reference as the rooms work on it


class References:
    """Nobody else knows photographs and crops: rooms, shelf and sheets ask here, by canvas mm."""

    def __init__(self, pictures: Pictures, derived: Derived, workers: Workers, cache: Cache) -> None:
        self._pictures, self._derived, self._workers = pictures, derived, workers
        self.cut_outs = CutOuts(pictures.file, cache, workers)

    def _render(
        self, compose: Compose, area_mm: Rect, px_per_mm: float, progress: Progress, care: Care = "careful"
    ) -> Picture:  # fmt: skip
        # The name is only for words of trouble: the photograph's own is told by Intake, where it is looked at.
        name = "the framed photograph"
        files = {i: (self._pictures.file(i, name), name) for i in photographs_of(compose)}
        cuts = self.cut_outs.of_all(compose.pieces, px_per_mm, progress, care)
        picture: Picture = self._workers.ask(
            "compose.question:render_files", compose, files, cuts, area_mm, px_per_mm, progress=progress
        )
        return picture

    def want(self, compose: Compose, asker: object, ready: Callable[[Shown], None]) -> None:
        """Call `ready` with the whole reference at working size, in colours and greys; nothing happens while there is none."""
        if not compose.framed:
            return
        scale = working_px_per_mm(compose, WORKING_PX)

        def make(progress: Progress) -> Shown:
            picture = self._render(compose, compose.canvas, scale, progress)
            return Shown(picture, make_levels(picture, with_greys=True))

        self._derived.want(Key("reference", (reference_key(compose),), (scale,)), asker, Making(make, size_of), ready)

    def want_soon(self, compose: Compose, asker: object, ready: Callable[[Shown], None]) -> None:
        """The same, where sitters still have to be cut out with quick edges first; `ready` hears twice then."""
        if not compose.framed:
            return
        scale = working_px_per_mm(compose, WORKING_PX)
        if all(self.cut_outs.is_careful(p, scale) for p in compose.pieces):
            self.want(compose, asker, ready)
            return

        def make(progress: Progress) -> Shown:
            picture = self._render(compose, compose.canvas, scale, progress, "quick")
            return Shown(picture, make_levels(picture), whole=False)

        def then_whole(shown: Shown) -> None:
            ready(shown)
            self.want(compose, asker, ready)

        key = Key("reference soon", (reference_key(compose),), (scale,))
        self._derived.want(key, asker, Making(make, size_of, priority=1), then_whole)

    def for_print(
        self, compose: Compose, area_mm: Rect, px_per_mm: float, progress: Progress, care: Care = "careful"
    ) -> Picture:  # fmt: skip
        """A part of the reference at print resolution; blocks, for use off the interface thread."""
        return self._render(compose, area_mm, px_per_mm, progress, care)

    def thumbnail(self, compose: Compose, on_disk: bool = True) -> QImage | None:
        """The whole reference, small: now if it is at hand, else it is fetched and the pictures' `arrived` tells.

        Only what the shelf shows is worth keeping on disk: there is one place for each set of photographs.
        """
        if not compose.framed:
            return None
        scale = working_px_per_mm(compose, THUMB_PX)
        return self._pictures.reference_thumbnail(
            reference_key(compose),
            photographs_of(compose),
            lambda progress: self._render(compose, compose.canvas, scale, progress),
            on_disk,
        )
