"""Pictures a way of working needs before it can draw: asked for once, the page is refreshed when they have come."""

from typing import TYPE_CHECKING

from PySide6.QtGui import QImage

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.measure.raster import Picture
from yarrow_lane.ui.pictures import Shown

if TYPE_CHECKING:
    from yarrow_lane.ui.rooms.compose.page import ComposePage


class _AtHand:
    """What was asked for last, by its key."""

    def __init__(self, page: "ComposePage") -> None:
        self._page = page
        self._asked = ""
        self._asking = False

    def leave(self) -> None:
        """The painter goes elsewhere: what is waited for may be dropped, and is asked for again."""
        self._asked = ""

    def _came(self) -> None:
        if not self._asking:  # what is in memory comes while the page is being refreshed
            self._page.refresh()


class BehindPhoto(_AtHand):
    """The photograph behind the sitters, the whole of it."""

    def __init__(self, page: "ComposePage") -> None:
        super().__init__(page)
        self._have: tuple[str, Picture] | None = None

    def forget(self) -> None:
        """Another commission came in."""
        self._have, self._asked = None, ""

    def of(self, compose: Compose) -> Picture | None:
        """None where none lies behind or while it is read."""
        behind = compose.behind
        if behind is None:
            return None
        if (self._have is None or self._have[0] != behind.photo_id) and self._asked != behind.photo_id:
            photo = next((p for p in self._page.commission.intake.photos if p.id == behind.photo_id), None)
            if photo is not None:
                self._ask(photo.id, photo.name)
        return self._have[1] if self._have is not None and self._have[0] == behind.photo_id else None

    def _ask(self, photo_id: str, name: str) -> None:
        def ready(shown: Shown) -> None:
            if shown.whole and self._asked == photo_id:
                self._have = (photo_id, shown.picture)
                self._came()

        self._asked, self._asking = photo_id, True
        self._page.workroom.pictures.photo(photo_id, name, self._page, ready)
        self._asking = False


class ReferenceImage(_AtHand):
    """The reference as an image at least so many px wide; with quick edges first where sitters still have to be cut out."""

    def __init__(self, page: "ComposePage", width_px: int) -> None:
        super().__init__(page)
        self._width = width_px
        self._have: tuple[str, QImage] | None = None

    def forget(self) -> None:
        """Another commission came in."""
        self._have, self._asked = None, ""

    def of(self, compose: Compose) -> QImage | None:
        """None while there is nothing to show or it is made."""
        key = reference_key(compose)
        if key and self._asked != key:

            def ready(shown: Shown) -> None:
                if self._asked == key:
                    self._have = (key, shown.levels.for_width(self._width))
                    self._came()

            self._asked, self._asking = key, True
            self._page.workroom.references.want_soon(compose, self._page, ready)
            self._asking = False
        return self._have[1] if self._have is not None and self._have[0] == key else None
