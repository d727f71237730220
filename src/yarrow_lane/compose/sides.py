"""The edges of a stretched canvas, its frame, and the mount of a work on paper: what they measure."""

from dataclasses import dataclass
from typing import Literal

from yarrow_lane.compose.ground import Lab
from yarrow_lane.measure.trouble import Trouble

SideFinish = Literal["undecided", "wrapped", "dark", "colour"]
SIDE_FINISHES: tuple[SideFinish, ...] = ("undecided", "wrapped", "dark", "colour")
FrameKind = Literal["none", "floating"]
DEPTHS_MM = (0.0, 18.0, 38.0)  # panel or paper, slim and deep stretcher: common practice, about ¾ and 1½ inches
WRAP_LOST_MM = 3.0  # the staples' turn at the back takes so much of what goes round: our choice


class SidesTrouble(Trouble):
    """Measures that cannot be."""


@dataclass(frozen=True)
class Sides:
    """`depth_mm` of the stretcher; `gap_mm` between canvas and floating frame, `bar_mm` its face; colours CIELAB.

    `mount_mm` is the width of a mount round a work on paper, `mount_foot_mm` what the lower side has more; 0 for none.
    """

    finish: SideFinish = "undecided"
    depth_mm: float = 18.0
    colour: Lab = (18.0, 2.0, 3.0)
    frame: FrameKind = "none"
    gap_mm: float = 6.0
    bar_mm: float = 12.0
    bar_colour: Lab = (30.0, 10.0, 16.0)
    mount_mm: float = 0.0
    mount_foot_mm: float = 0.0


@dataclass(frozen=True)
class Outer:
    """What a canvas measures with what is round it, mm; `from_left` and `from_top` are where the picture lies in it."""

    width_mm: float
    height_mm: float
    from_left: float
    from_top: float


def outer(sides: Sides, width_mm: float, height_mm: float) -> Outer:
    """The outer size, with mount and frame."""
    round_mm = sides.mount_mm + (sides.gap_mm + sides.bar_mm if sides.frame == "floating" else 0.0)
    return Outer(width_mm + 2 * round_mm, height_mm + 2 * round_mm + sides.mount_foot_mm, round_mm, round_mm)


def picture_round_mm(sides: Sides) -> float:
    """How much picture beyond the front is wanted on each side: the depth and the turn at the back; 0 unless it is wrapped."""
    return sides.depth_mm + WRAP_LOST_MM if sides.finish == "wrapped" else 0.0


def cloth_mm(sides: Sides, width_mm: float, height_mm: float, hand_mm: float = 50.0) -> tuple[float, float]:
    """Cloth to stretch it: front, both edges and a hand's grip behind (`hand_mm` each side: common practice)."""
    more = 2 * (sides.depth_mm + hand_mm)
    return width_mm + more, height_mm + more


def paint_area_cm2(sides: Sides, width_mm: float, height_mm: float) -> float:
    """The area of the four edges."""
    return 2 * (width_mm + height_mm) * sides.depth_mm / 100


def checked(sides: Sides) -> Sides:
    """The same; raises `SidesTrouble` for measures no carpenter makes."""
    limits = (
        ("the depth", sides.depth_mm, 100.0),
        ("the gap", sides.gap_mm, 50.0),
        ("the frame's face", sides.bar_mm, 200.0),
        ("the mount", sides.mount_mm, 300.0),
    )
    for what, mm, most in limits:
        if not 0 <= mm <= most:
            raise SidesTrouble(f"{what.capitalize()} was not taken", f"{mm:g} mm is outside 0 to {most:g} mm", "write it again")
    return sides


def frame_words(sides: Sides) -> str:
    """What is round it, in words."""
    parts = []
    if sides.mount_mm:
        parts.append("a mount")
    if sides.frame == "floating":
        parts.append("a floating frame")
    return " and ".join(parts) or "no frame"
