"""Where a sitter lies on the canvas, as well as the commission knows."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.palette.sitters import head_round
from yarrow_lane.transfer.landmarks import places_on


@kept(8)
def rings_of(c: Commission, sitter_id: int) -> tuple[Polygon, ...]:
    """The sitter's outlines on the canvas: cut-outs, else regions that are no background, else an oval round the eyes; none for the whole."""
    pieces = [p for p in c.compose.pieces if not sitter_id or p.sitter_id == sitter_id or len(c.brief.sitters) == 1]
    rings = [tuple((float(x), float(y)) for x, y in curve(ring, 8)) for p in pieces for ring in p.outline_mm]
    if not rings:
        rings = [r.outline for r in c.layers.regions if r.kind != "background"]
    if not rings:
        oval = head_round([p.at for p in places_on(c.compose, c.intake.photos) if p.name.endswith(" eye")])
        rings = [oval] if oval is not None else []
    return tuple(rings)
