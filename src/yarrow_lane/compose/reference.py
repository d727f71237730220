"""The one reference picture: what the canvas is to show, at any scale. All later rooms see only this."""

import hashlib
from collections.abc import Callable

from yarrow_lane.compose.composition import Compose, ComposeTrouble, crop_scale, to_photo
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import SILENT, Progress
from yarrow_lane.measure.raster import Picture, piece

VERSION = 1  # raise it when the same composition renders to other pixels
Sources = Callable[[str], Picture]


def reference_key(compose: Compose) -> str:
    """A short name of the reference: equal compositions have equal names; empty while there is none."""
    if not compose.framed:
        return ""
    made_of = (VERSION, compose.width_mm, compose.height_mm, compose.background)
    return hashlib.sha256(repr(made_of).encode()).hexdigest()[:16]


def render(compose: Compose, sources: Sources, area_mm: Rect, px_per_mm: float, progress: Progress = SILENT) -> Picture:
    """The part `area_mm` of the canvas at `px_per_mm`, (H, W, 3) sRGB, averaged in linear light.

    `sources` gives the upright photograph of an id. The size is rounded to whole pixels and the area fills it exactly. Raises
    `ComposeTrouble` without a crop or for an area of no size, `Cancelled` when it is no longer wanted.
    """
    if compose.background is None or not compose.sized:
        raise ComposeTrouble("There is no reference", "no crop is laid", "choose the size and lay the crop at Compose first")
    if area_mm.width <= 0 or area_mm.height <= 0:
        raise ComposeTrouble("Nothing was shown", "the area has no size")
    left, top = to_photo(compose, (area_mm.x, area_mm.y))
    right, bottom = to_photo(compose, (area_mm.right, area_mm.bottom))
    width, height = (max(1, round(side * px_per_mm)) for side in (area_mm.width, area_mm.height))
    picture = sources(compose.background.photo_id)
    return piece(picture, Rect(left, top, right - left, bottom - top), width, height, progress)


def working_px_per_mm(compose: Compose, longer_px: int) -> float:
    """The scale at which the whole canvas is at most `longer_px` long and nothing is enlarged."""
    return min(longer_px / max(compose.width_mm, compose.height_mm), crop_scale(compose))


def photographs_of(compose: Compose) -> tuple[str, ...]:
    """The ids of all photographs the reference is made of."""
    return (compose.background.photo_id,) if compose.background is not None else ()
