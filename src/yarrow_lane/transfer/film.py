"""Mask film: what it covers, larger or smaller than the sitter by an allowance, with corners a knife can follow."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from yarrow_lane.measure.late import late
from yarrow_lane.measure.outlines import shape_of
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.measure.trouble import Trouble

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

_FINE_MM = 0.1  # what a knife does not follow
_LEAST_MM2 = 25.0  # smaller pieces are not cut: our choice
_STEPS = 12  # to a quarter turn

# Common practice; where film, cutting and glue can hurt, the maker's words count.
ORDER = (
    "Only over paint that is dry through: film pulls off what is not.",
    "Print the outline, tape print and film on a cutting mat, cut both at once; turn the work, not the knife.",
    "Press the edge down from the middle outwards, twice round; lift one corner to see that nothing comes with it.",
    "Paint the background in several thin coats, each from the film outwards: a wet coat creeps under the edge.",
    "Peel while the last coat is just dry, flat back over itself; clean the border with a small brush.",
)
CAUTION = "Cut on a mat, away from the hand, with a fresh blade; cap the knife. Spray glue only outdoors or with extraction: see its safety data sheet."


class FilmTrouble(Trouble):
    """A film that cannot be cut."""


@dataclass(frozen=True)
class Film:
    """What it covers: sitters by piece id and regions by id (None: all sitters), mm larger (smaller when negative), corners rounded to
    that radius, mm.
    """

    pieces: tuple[int, ...] | None = None
    regions: tuple[int, ...] = ()
    allowance_mm: float = 1.0
    corner_mm: float = 2.0


def film_outlines(covered: Sequence[Sequence[Polygon]], film: Film, size_mm: tuple[float, float]) -> tuple[Polygon, ...]:
    """What is cut, canvas mm, the largest first: rings of what is covered together (each a list of rings, even-odd), grown by the
    allowance, every corner rounded, inside the canvas. Raises `FilmTrouble` when nothing is left.
    """
    shape = shapely.Polygon()
    for rings in covered:
        whole = shapely.Polygon()
        for ring in rings:
            whole = shapely.symmetric_difference(whole, shape_of(ring))
        shape = shapely.union(shape, whole)
    grown = shapely.buffer(shape, film.allowance_mm, quad_segs=_STEPS)
    radius = film.corner_mm
    if radius > 0:  # inner corners first, then outer ones: a knife turns in neither
        grown = shapely.buffer(shapely.buffer(grown, radius, quad_segs=_STEPS), -2 * radius, quad_segs=_STEPS)
        grown = shapely.buffer(grown, radius, quad_segs=_STEPS)
    on_canvas = shapely.intersection(grown, shapely.box(0, 0, *size_mm))
    parts = [p for p in shapely.get_parts(on_canvas) if isinstance(p, shapely.Polygon) and p.area >= _LEAST_MM2]
    rings = []
    for part in sorted(parts, key=lambda p: -p.area):
        fine = shapely.simplify(part, _FINE_MM)
        holes = [hole for hole in fine.interiors if shapely.Polygon(hole).area >= _LEAST_MM2]
        rings += [tuple((round(x, 2), round(y, 2)) for x, y in ring.coords) for ring in (fine.exterior, *holes)]
    if not rings:
        raise FilmTrouble("No film was laid out", "nothing is left of it", "choose a sitter, or make it larger")
    return tuple(rings)
