"""Left and right as the sitter's own, whatever the turn of the head: the viewer's left is the right of a face seen from the front."""

import numpy as np

from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.layers.proposing.marks import Head, SitterMarks

_CLEAR = 0.2  # of the head's length from its middle: nearer an ear alone does not tell its side (our choice)


def own_side(marks: SitterMarks, head: Head | None, part: str, viewer: str) -> str:
    """The sitter's own "left" or "right" of an eye or ear marked on the viewer's side; "" where the marks do not tell.

    The order is taken across the head, so that a tilted or upside-down one is right too.
    """
    side = _side(marks, head, part, viewer)
    if side and marks.mirrored:
        return "left" if side == "right" else "right"
    return side


def _side(marks: SitterMarks, head: Head | None, part: str, viewer: str) -> str:
    if part == "eye":
        places = {s: np.array(e[:2]) for s, e in marks.eyes.items()}
    else:
        places = {s: p for s in ("left", "right") if (p := marks.point(f"{s} ear tip")) is not None}
    if head is None:
        return sitters_own("left" if viewer == "left" else "right")
    if len(places) == 2:
        first = min(places, key=lambda s: float(places[s] @ head.across))
        return "right" if viewer == first else "left"
    off = float((places[viewer] - (head.crown + head.chin) / 2) @ head.across)
    if part == "eye" and marks.tip is not None:
        facing = float((marks.tip - places[viewer]) @ head.across)
        return "right" if facing > 0 else "left"
    if abs(off) < _CLEAR * head.length:
        return ""
    return "right" if off < 0 else "left"
