"""The passes of a painting: its regions, the school and the painter's own order, put together."""

from typing import TYPE_CHECKING

from yarrow_lane.intake.brief import Medium
from yarrow_lane.layers import coverage
from yarrow_lane.layers.grammar import grammar
from yarrow_lane.layers.own_order import OwnOrder, applied
from yarrow_lane.layers.passes import Area, Pass, sequence_of
from yarrow_lane.layers.regions import Layers, Region, School, spread_of
from yarrow_lane.layers.rules import Warned, on_ground, warnings_of
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.late import late
from yarrow_lane.measure.plane import Rect, polygon_bounds
from yarrow_lane.paint.drying import Climate

if TYPE_CHECKING:
    import shapely
else:
    shapely = late("shapely")

# Our choice: a painting in a dozen blocks; single squares would be hundreds of sittings.
_BLOCKS_SHORT, _BLOCKS_LONG = 3, 4
_LEAST_SHARE = 0.01  # our choice: less of a region in a block is painted with its neighbour


def blocks_of(canvas: Rect) -> tuple[Rect, ...]:
    """The blocks of squares of a painting done square by square, row by row from the top."""
    wide = canvas.width > canvas.height
    columns, rows = (_BLOCKS_LONG, _BLOCKS_SHORT) if wide else (_BLOCKS_SHORT, _BLOCKS_LONG)
    w, h = canvas.width / columns, canvas.height / rows
    return tuple(Rect(canvas.x + x * w, canvas.y + y * h, w, h) for y in range(rows) for x in range(columns))


@kept(16)
def areas_of(regions: tuple[Region, ...], school: School) -> tuple[Area, ...]:
    """What the sequence knows of the regions; shares of squares only where the school works by them."""
    spread = spread_of(regions)
    squares: dict[int, tuple[tuple[int, float], ...]] = {}
    if "divide" in grammar()["round"][school.round]:
        corners = [p for r in regions for ring in r.rings for p in ring]
        blocks = blocks_of(polygon_bounds(corners)) if corners else ()
        squares = {r.id: _shares(r, blocks) for r in regions if r.rings}
    return tuple(
        Area(
            r.id, r.name, r.kind, spread.cm2[r.id], frozenset(spread.neighbours[r.id]), r.sitter_id, r.part,
            squares.get(r.id, ()),
        )
        for r in regions
    )  # fmt: skip


def _shares(region: Region, blocks: tuple[Rect, ...]) -> tuple[tuple[int, float], ...]:
    shape = coverage.ground_of(region.rings)
    cut = shapely.intersection(shape, [shapely.box(b.x, b.y, b.right, b.bottom) for b in blocks])
    shares = shapely.area(cut) / shape.area
    found = [(n, float(s)) for n, s in enumerate(shares) if s >= _LEAST_SHARE]
    total = sum(s for _, s in found)
    return tuple((n, s / total) for n, s in found)


def sequence(layers: Layers, medium: Medium, climate: Climate) -> tuple[Pass, ...]:
    """Every pass in the order of painting; kept for the last few states, as many views ask.

    Raises `SequenceTrouble` for rules in a circle or a kind without a recipe.
    """
    return _sequence(layers.regions, layers.school, layers.own, medium, climate)


@kept(64)
def _sequence(
    regions: tuple[Region, ...], school: School, own: OwnOrder, medium: Medium, climate: Climate
) -> tuple[Pass, ...]:  # fmt: skip
    areas = areas_of(regions, school)
    return applied(sequence_of(areas, school, medium, climate), areas, school, climate, own)


def warned(layers: Layers, medium: Medium, climate: Climate, ground: float | None = None) -> tuple[Warned, ...]:
    """What the present order breaks, and why that matters; `ground` is the lightness (L*) of what lies beneath, where it is known."""
    return _warned(layers.regions, layers.school, layers.own, medium, climate, ground)


@kept(64)
def _warned(
    regions: tuple[Region, ...], school: School, own: OwnOrder, medium: Medium, climate: Climate, ground: float | None
) -> tuple[Warned, ...]:  # fmt: skip
    passes = _sequence(regions, school, own, medium, climate)
    found = warnings_of(passes, areas_of(regions, school), school, medium)
    return found if ground is None else (*on_ground(passes, ground), *found)
