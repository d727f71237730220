"""A straightened photograph of the canvas on a view, with the reference laid over it."""

from typing import TYPE_CHECKING

from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.derived import Key, Making
from yarrow_lane.measure.progress import Progress
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.marks.laid import laid_over
from yarrow_lane.ui.kit.levels import Levels, qimage, single_level
from yarrow_lane.ui.kit.picture_view import PictureView

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.transfer.page import TransferPage


class OverCanvas:
    """Mixes again only when something of it changed."""

    def __init__(self, page: "TransferPage", view: PictureView) -> None:
        self._page, self._view = page, view
        self._shown: tuple[Picture | None, float, str] | None = None

    def forget(self) -> None:
        """Something else is shown on the view."""
        self._shown = None

    def show(self, surface: Picture | None, share: float) -> None:
        """The surface (H, W, 3), or nothing yet, with so large a share of the reference, 0 to 1."""
        compose = self._page.commission.compose
        size, wanted = (compose.width_mm, compose.height_mm), (surface, share, reference_key(compose))
        if self._shown is not None and self._shown[0] is surface and self._shown[1:] == wanted[1:]:
            return
        self._shown = wanted
        self._view.ground = None
        self._view.setProperty("reference", "")
        if surface is None or share == 0:
            self._view.show_levels(single_level(surface) if surface is not None else None, size)
            return
        px_per_mm = surface.shape[1] / compose.width_mm

        def make(progress: Progress) -> Picture:
            return self._page.workroom.references.for_print(compose, compose.canvas, px_per_mm, progress)

        def ready(reference: Picture) -> None:
            if self._shown is wanted:
                self._view.show_levels(Levels((qimage(laid_over(surface, reference, share)),)), size)

        key = Key("over the canvas", (wanted[2],), (px_per_mm,))
        self._page.workroom.derived.want(key, self._page, Making(make, lambda picture: picture.nbytes), ready)
