"""Showing the reference in a picture view, in canvas mm: what the rooms after Compose look at."""

from collections.abc import Callable

from PySide6.QtWidgets import QBoxLayout

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.ui.kit.picture_view import PictureView
from yarrow_lane.ui.pictures import Shown
from yarrow_lane.ui.references import References

NO_CROP = "Choose the size and lay the crop at Compose first."
_READING = "Reading the photograph…"


def show_reference(
    view: PictureView, references: References, compose: Compose, asker: object,
    ready: Callable[[Shown], None] = lambda shown: None,
) -> None:  # fmt: skip
    """Put the reference on the view if it is not there; `ready` hears of it once it has come."""
    key = reference_key(compose)
    if not key:
        view.setProperty("reference", "")
        view.waiting = NO_CROP
        view.show_levels(None, (1, 1))
        return
    size = (compose.width_mm, compose.height_mm)
    if view.property("reference") != key:
        view.setProperty("reference", key)
        view.waiting = _READING
        view.show_levels(None, size)
    elif view.levels is not None:
        return

    def arrived(shown: Shown) -> None:
        if view.property("reference") == key:
            view.show_levels(shown.levels, size)
            ready(shown)

    references.want(compose, asker, arrived)


def beside_or_above(compose: Compose) -> QBoxLayout.Direction:
    """Two pictures of a lying canvas stand above each other, else beside: both are then as large as they go."""
    return QBoxLayout.Direction.TopToBottom if compose.lies else QBoxLayout.Direction.LeftToRight
