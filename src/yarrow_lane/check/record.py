"""What Check keeps: photographs of the painting in time, what the painter refused to mend, and what is to be mended next."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

from yarrow_lane.canvas_photo.taken import Taken, with_newest
from yarrow_lane.canvas_photo.taken import with_corner as corner_moved
from yarrow_lane.lane.part import Part, Plain
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.trouble import Trouble

Kind = Literal["value", "warmth", "drawing"]
_NEAR_MM, _OF_SIZE = 18.0, 0.6  # within which the next photograph's fault is the same one (measured: 0.9 of them are found so)


class CheckTrouble(Trouble):
    """Something to compare is missing."""


@dataclass(frozen=True)
class PaintingPhoto(Taken):
    """A photograph of the painting; `accepted` once the painter agreed to its corners. `second` says that it shows the same state as the one before, with lamp or camera moved; `sheet` is one of a white sheet in its light."""

    accepted: bool = False
    second: bool = False
    sheet_id: str = ""
    sheet_name: str = ""


@dataclass(frozen=True)
class MeantSo:
    """A fault the painter refused to mend: its kinds with their signs, where it lies, and how large it is, mm."""

    kinds: tuple[tuple[Kind, int], ...]
    at: Point
    mm: float


@dataclass(frozen=True)
class ToMend:
    """A line chosen for the last list: its words, where and how large, mm, what kinds, and how long it takes, minutes; `found_in` is the
    photograph it was seen in.
    """

    words: str
    at: Point
    kinds: tuple[tuple[Kind, int], ...]
    minutes: float
    found_in: str = ""
    mm: float = 0.0

    @property
    def about(self) -> str:
        """What the easel's clock knows it by."""
        return f"mend {self.words}"


@dataclass(frozen=True)
class Check:
    """Photographs in the order they came, the newest last; `seen` are things to mend in the painter's own words, `made_from` the reference
    they were compared with.
    """

    photos: tuple[PaintingPhoto, ...] = ()
    seen: tuple[str, ...] = ()
    meant_so: tuple[MeantSo, ...] = ()
    to_mend: tuple[ToMend, ...] = ()
    made_from: str = ""

    @property
    def newest(self) -> PaintingPhoto | None:
        """The last photograph."""
        return self.photos[-1] if self.photos else None

    @property
    def photo_id(self) -> str:
        """The last photograph's; "" without one."""
        return self.photos[-1].photo_id if self.photos else ""

    @property
    def at(self) -> datetime | None:
        """When the last one came."""
        return self.photos[-1].at if self.photos else None

    @property
    def together(self) -> tuple[PaintingPhoto, ...]:
        """The last one, and the one before of the same state, if there is one; the first of them first."""
        if len(self.photos) > 1 and self.photos[-1].second:
            return self.photos[-2:]
        return self.photos[-1:]


def middle_of(size_px: tuple[int, int], proportion: float) -> Polygon:
    """The corners of the middle of a photograph at the canvas's proportion: where a painting lies that fills it."""
    width, height = size_px
    across, down = (width, width / proportion) if width / height < proportion else (height * proportion, height)
    left, top = (width - across) / 2, (height - down) / 2
    return (left, top), (left + across, top), (left + across, top + down), (left, top + down)


def _in_time(plain: Plain, others: Mapping[str, Plain]) -> Plain:
    """Before version 2 only the newest photograph was kept, and looked at by the middle of it."""
    rest = {"seen": plain.get("seen", ())}
    if not plain.get("photo_id") or plain.get("at") is None:
        return rest
    width, height = plain.get("size_px", (0, 0))
    compose = others.get("compose", {})
    wide, high = compose.get("width_mm") or width, compose.get("height_mm") or height
    corners = [list(corner) for corner in middle_of((width, height), wide / high)] if width and height and high else []
    photo = {
        "photo_id": plain["photo_id"], "name": plain.get("photo_name", ""), "size_px": [width, height], "at": plain["at"],
        "corners": corners,
    }  # fmt: skip
    return {**rest, "photos": [photo], "made_from": plain.get("made_from", "")}


CHECK = Part("check", Check, "Check", (lambda plain, _: plain, _in_time))  # version 1 added `made_from`, 2 photographs in time


def with_photo(check: Check, taken: Taken, second: bool = False, accepted: bool = False) -> Check:
    """A new photograph is the newest; what was seen and refused stays."""
    second = second and bool(check.photos)
    photo = PaintingPhoto(taken.photo_id, taken.name, taken.size_px, taken.at, taken.corners, accepted, second)
    return replace(check, photos=with_newest(check.photos, photo), made_from="")


def _newest(check: Check, change: PaintingPhoto) -> Check:
    return replace(check, photos=(*check.photos[:-1], change))


def _last(check: Check) -> PaintingPhoto:
    if check.newest is None:
        raise CheckTrouble("Nothing was changed", "there is no photograph of the painting yet", "take one in")
    return check.newest


def with_corner(check: Check, number: int, to: Point) -> Check:
    """One corner of the newest put elsewhere. Raises `CheckTrouble` without one."""
    return _newest(check, corner_moved(_last(check), number, to))


def accepted(check: Check, yes: bool = True) -> Check:
    """The corners of the newest are right, or are looked at again."""
    return _newest(check, replace(_last(check), accepted=yes))


def with_sheet(check: Check, photo_id: str, name: str) -> Check:
    """A photograph of a white sheet in the same place and light belongs to the newest."""
    return _newest(check, replace(_last(check), sheet_id=photo_id, sheet_name=name))


def note_seen(check: Check, text: str) -> Check:
    """Write down one thing to mend; raises `CheckTrouble` when nothing is written."""
    if not text.strip():
        raise CheckTrouble("Nothing was noted", "no words are written", "write what you see")
    return replace(check, seen=(*check.seen, text.strip()))


def same_place(kinds: Sequence[tuple[Kind, int]], at: Point, mm: float, other: MeantSo | ToMend) -> bool:
    """Whether a fault of those kinds is the one the painter spoke of."""
    reach = max(_NEAR_MM, _OF_SIZE * max(mm, other.mm))
    near = (at[0] - other.at[0]) ** 2 + (at[1] - other.at[1]) ** 2 <= reach**2
    return near and bool(set(kinds) & set(other.kinds))


def refuse(check: Check, fault: MeantSo) -> Check:
    """It is meant so, in every photograph to come; and it is not to be mended."""
    left = tuple(t for t in check.to_mend if not same_place(fault.kinds, fault.at, fault.mm, t))
    return replace(check, meant_so=(*check.meant_so, fault), to_mend=left)


def no_longer_meant(check: Check, fault: MeantSo) -> Check:
    """It counts as a fault again."""
    return replace(check, meant_so=tuple(m for m in check.meant_so if m != fault))


def mend(check: Check, line: ToMend) -> Check:
    """It goes on the list of what to mend, once."""
    rest = tuple(t for t in check.to_mend if t.words != line.words)
    return replace(check, to_mend=(*rest, line))


def not_mend(check: Check, words: str) -> Check:
    """It does not."""
    return replace(check, to_mend=tuple(t for t in check.to_mend if t.words != words))
