"""Where the sitters lie on the canvas, as well as the commission knows."""

from yarrow_lane.commission.commission import Commission
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.reference import outline_key
from yarrow_lane.intake.brief import Sitter
from yarrow_lane.intake.photos import Photo
from yarrow_lane.layers.kinds import is_ground
from yarrow_lane.layers.regions import Region
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.outlines import polygon_holds
from yarrow_lane.measure.plane import Circle, Point, Polygon
from yarrow_lane.palette.sitters import head_round
from yarrow_lane.transfer.landmarks import circles_on, places_on

Rings = tuple[Polygon, ...]


def rings_of(c: Commission, sitter_id: int) -> Rings:
    """The sitter's outlines on the canvas: cut-outs, else regions that are no background, else an oval round the eyes; none for the whole.

    0 is every sitter.
    """
    alone = len(c.brief.sitters) == 1
    return _rings(c.compose, c.layers.regions, c.intake.photos, 0 if alone else sitter_id)


@kept(8)  # asked for at every refresh, and a change of the palette changes none of this
def _rings(compose: Compose, regions: tuple[Region, ...], photos: tuple[Photo, ...], sitter_id: int) -> Rings:
    pieces = [p for p in compose.pieces if not sitter_id or p.sitter_id == sitter_id]
    rings = [ring for piece in pieces for ring in rings_of_piece(piece)]
    rings = rings or [ring for r in regions if not is_ground(r.kind) for ring in r.outers]
    if not rings:
        oval = head_round([p.at for p in places_on(compose, photos) if p.name.endswith(" eye")])
        rings = [oval] if oval is not None else []
    return tuple(rings)


@kept(16)
def rings_key(rings: Rings) -> str:
    """A short name of outlines."""
    return outline_key(rings)


def rings_of_piece(piece: Piece) -> Rings:
    return tuple(tuple((float(x), float(y)) for x, y in curve(ring, 8)) for ring in piece.outline_mm)


def sitter_at(c: Commission, at_mm: Point) -> int:
    """Whose cut-out holds that place, the one in front; 0 for nobody's."""
    in_front_first = reversed(c.compose.pieces)
    return next((p.sitter_id for p in in_front_first if any(polygon_holds(r, at_mm) for r in rings_of_piece(p))), 0)


def care_of(c: Commission) -> tuple[Circle, ...]:
    """Eyes, nose and mouth on the canvas: small shapes stay there, and lines count more."""
    return circles_on(places_on(c.compose, c.intake.photos))


def eyes_of(c: Commission) -> tuple[tuple[str, Circle], ...]:
    """The eyes by name, as wide as an eye is."""
    radii = dict(care_of(c))
    places = places_on(c.compose, c.intake.photos)
    return tuple((p.full_name, (p.at, radii[p.at])) for p in places if "eye" in p.name and p.at in radii)


def not_placed(c: Commission) -> tuple[Sitter, ...]:
    """Those of the brief who are not among the cut-outs, in its order."""
    placed = {p.sitter_id for p in c.compose.pieces}
    return tuple(s for s in c.brief.sitters if s.id not in placed)
