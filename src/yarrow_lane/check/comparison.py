"""The photograph of the painting beside the crop."""

from dataclasses import dataclass, replace
from datetime import datetime

import numpy as np

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.raster import Picture
from yarrow_lane.measure.trouble import Trouble


class CheckTrouble(Trouble):
    """Something to compare is missing."""


@dataclass(frozen=True)
class Check:
    """The newest photograph of the painting (content hash, upright px), its trim, and what was seen."""

    photo_id: str = ""
    photo_name: str = ""
    size_px: tuple[int, int] = (0, 0)
    at: datetime | None = None
    seen: tuple[str, ...] = ()


def put_painting(check: Check, photo_id: str, name: str, size_px: tuple[int, int], at: datetime) -> Check:
    """A new photograph of the painting takes the place of the old; what was seen stays."""
    return replace(check, photo_id=photo_id, photo_name=name, size_px=size_px, at=at)


def note_seen(check: Check, text: str) -> Check:
    """Write down one thing to mend; raises `CheckTrouble` when nothing is written."""
    if not text.strip():
        raise CheckTrouble("Nothing was noted", "no words are written", "write what you see")
    return replace(check, seen=(*check.seen, text.strip()))


def painting_rect(size_px: tuple[int, int], proportion: float) -> Rect:
    """The middle of the photograph at the canvas's proportion: what is compared with the crop."""
    width, height = size_px
    across: Point = (width, width / proportion) if width / height < proportion else (height * proportion, height)
    return Rect((width - across[0]) / 2, (height - across[1]) / 2, across[0], across[1])


def grey(picture: Picture) -> Picture:
    """The picture in its lightness alone (L* spread over the grey codes of equal L*), (H, W, 3)."""
    lightness = lightness_from_srgb8(picture)
    levels = np.arange(256, dtype=np.uint8)
    ladder = lightness_from_srgb8(np.repeat(levels[None, :, None], 3, axis=2))[0]
    codes = np.searchsorted(ladder, lightness - 1e-3).clip(0, 255).astype(np.uint8)
    return np.repeat(codes[..., None], 3, axis=2)
