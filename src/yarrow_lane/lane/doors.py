"""The nine doors of the lane."""

from dataclasses import dataclass
from typing import Literal

DOORS: tuple[str, ...] = ("Intake", "Compose", "Transfer", "Tone", "Palette", "Layers", "Easel", "Check", "Deliver")
State = Literal["shut", "waived", "ahead"]


@dataclass(frozen=True)
class Door:
    """`shut`: done by the facts; `waived`: the painter went on against them; `ahead`: still open.

    `fact` is the decision in one line, `wants` what is still missing (empty when shut), `stale` that it rests on an earlier
    composition.
    """

    name: str
    state: State
    fact: str
    wants: str = ""
    stale: str = ""


def door_now(doors: tuple[Door, ...]) -> Door:
    """Where the commission stands: the first door still ahead, else the last."""
    return next((d for d in doors if d.state == "ahead"), doors[-1])


def door_after(door: str) -> str:
    """The next door down the lane; the last one leads nowhere."""
    place = DOORS.index(door) + 1
    return DOORS[place] if place < len(DOORS) else ""
