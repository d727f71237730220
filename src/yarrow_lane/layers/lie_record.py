"""The lie of the fur as the painter drew it: strokes root to tip, partings, places where hair comes at the viewer."""

from dataclasses import dataclass, replace
from itertools import pairwise

from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.trouble import Trouble


class LieTrouble(Trouble):
    """A stroke that says nothing."""


@dataclass(frozen=True)
class LieStroke:
    """A stroke drawn from root to tip, canvas mm; one that was drawn along a single hair tells its length too."""

    points: Polygon
    one_hair: bool = False


@dataclass(frozen=True)
class Lie:
    """What the painter said of the lie; all the rest is worked out. `dots` are places with their radius where hair points out."""

    strokes: tuple[LieStroke, ...] = ()
    partings: tuple[Polygon, ...] = ()
    dots: tuple[tuple[Point, float], ...] = ()

    @property
    def touched(self) -> bool:
        """Whether the painter has said anything."""
        return bool(self.strokes or self.partings or self.dots)


_LEAST_MM = 2.0  # our choice: a shorter stroke is a slip of the hand


def _length(points: Polygon) -> float:
    return float(sum(((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2) ** 0.5 for a, b in pairwise(points)))


def add_stroke(lie: Lie, points: Polygon, one_hair: bool = False) -> Lie:
    """One more stroke; raises `LieTrouble` for one too short to have a direction."""
    if _length(points) < _LEAST_MM:
        raise LieTrouble(
            "The stroke was not taken", "it is too short to show a direction", "draw from root to tip, a few mm at least"
        )
    return replace(lie, strokes=(*lie.strokes, LieStroke(tuple(points), one_hair)))


def add_parting(lie: Lie, points: Polygon) -> Lie:
    """A line on both sides of which hair falls apart; raises `LieTrouble` for one without length."""
    if _length(points) < _LEAST_MM:
        raise LieTrouble("The parting was not taken", "it has no length", "draw along it")
    return replace(lie, partings=(*lie.partings, tuple(points)))


def add_dots(lie: Lie, at: Point, radius_mm: float) -> Lie:
    """A place where hair comes at the viewer."""
    return replace(lie, dots=(*lie.dots, (at, radius_mm)))


def without_last(lie: Lie, at: Point, reach_mm: float) -> Lie:
    """Take off what was drawn nearest to a point within reach; the same lie when nothing lies there."""

    def near(points: Polygon) -> float:
        return min((((p[0] - at[0]) ** 2 + (p[1] - at[1]) ** 2) ** 0.5 for p in points), default=float("inf"))

    found: list[tuple[float, str, int]] = []
    found += [(near(s.points), "strokes", n) for n, s in enumerate(lie.strokes)]
    found += [(near(p), "partings", n) for n, p in enumerate(lie.partings)]
    found += [(max(0.0, near((c,)) - r), "dots", n) for n, (c, r) in enumerate(lie.dots)]
    best = min(found, default=(float("inf"), "", 0))
    if best[0] > reach_mm:
        return lie
    _, name, n = best
    rest = tuple(x for k, x in enumerate(getattr(lie, name)) if k != n)
    return replace(lie, **{name: rest})
