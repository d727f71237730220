"""The photograph of the painting beside the crop."""

from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.lane.part import Part
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble


class CheckTrouble(Trouble):
    """Something to compare is missing."""


@dataclass(frozen=True)
class Check:
    """The newest photograph of the painting (content hash, upright px), what was seen, and the reference beside it."""

    photo_id: str = ""
    photo_name: str = ""
    size_px: tuple[int, int] = (0, 0)
    at: datetime | None = None
    seen: tuple[str, ...] = ()
    made_from: str = ""


CHECK = Part("check", Check, "Check", (lambda plain, _: plain,))  # version 1 added `made_from`


def put_painting(check: Check, photo_id: str, name: str, size_px: tuple[int, int], at: datetime) -> Check:
    """A new photograph of the painting takes the place of the old; what was seen stays."""
    return replace(check, photo_id=photo_id, photo_name=name, size_px=size_px, at=at, made_from="")


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
