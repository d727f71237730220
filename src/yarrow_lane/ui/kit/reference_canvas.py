"""The framed crop in canvas mm: what the later rooms draw on."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.ui.kit.photo_view import PhotoView
from yarrow_lane.ui.pictures import PictureShelf, Shown

NO_CROP = "Choose the size and lay the crop at Compose first."


class ReferenceCanvas(PhotoView):
    """Shows the reference; `shown` is the picture behind it once it is read."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.shown: Shown | None = None
        self._wanted: object = None

    def show_reference(self, pictures: PictureShelf, commission: Commission, kind: str = "reference") -> None:
        """Fetch the reference of this commission if it is not the one on the table."""
        compose = commission.compose
        wanted = (compose.photo_id, compose.crop, compose.width_mm, compose.height_mm) if compose.framed else None
        if wanted is None or commission.photo is None:
            self.shown, self._wanted = None, None
            self.waiting = NO_CROP
            self.show_levels(None, (1, 1))
            return
        if wanted == self._wanted:
            return
        self._wanted = wanted
        size = (compose.width_mm, compose.height_mm)
        self.waiting = "Reading the photograph…"
        self.show_levels(None, size)

        def ready(shown: Shown) -> None:
            if self._wanted == wanted:
                self.shown = shown
                self.show_levels(shown.levels, size)
                self.arrived()

        pictures.reference(commission, ready, kind)

    def arrived(self) -> None:
        """The reference is on the table; for subclasses."""
