"""What Layers is told of the sitters on the canvas before a region is drawn: cut-outs, eyes, landmarks, whose they are."""

from collections.abc import Sequence

from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.eyes import eyes_on_canvas
from yarrow_lane.commission.sitters import rings_of_piece
from yarrow_lane.compose.places import BEHIND, photo_px_per_mm
from yarrow_lane.intake.brief import Sitter
from yarrow_lane.layers.kinds import facts_of, is_ground
from yarrow_lane.layers.play.scene import PlayArea
from yarrow_lane.layers.proposing.marks import SitterOnCanvas
from yarrow_lane.layers.regions import Region, middle_of
from yarrow_lane.measure.plane import Circle, Point
from yarrow_lane.transfer.landmarks import places_on

_GLINT_MM = 0.8  # where nobody marked a glint: its radius at the iris's upper left, a guess (our choice)
_GLINT_SHARE, _GLINT_AT = 0.12, (-0.3, -0.35)


def sitters_on_canvas(c: Commission) -> tuple[SitterOnCanvas, ...]:
    """Each sitter that is seen, back to front; a photograph as it is shows the brief's first, or the one it is said to show."""
    places = places_on(c.compose, c.intake.photos)
    radii = {(e.piece_id, e.at_mm): e for e in eyes_on_canvas(c)}
    found = []
    for piece_id in (BEHIND, *(p.id for p in c.compose.pieces)):
        own = [p for p in places if p.piece_id == piece_id]
        piece = c.compose.piece(piece_id) if piece_id != BEHIND else None
        if piece is None and not own:
            continue
        sitter = _whose(c, piece.sitter_id if piece is not None else 0, piece_id)
        eyes = []
        for place in own:
            eye = radii.get((piece_id, place.at))
            if place.name.endswith(" eye") and eye is not None:
                side = place.name.split()[0]
                eyes.append((side, *place.at, eye.eye.radius_px / photo_px_per_mm(c.compose, piece_id)))
        points = [(p.name, *p.at) for p in own if not p.name.endswith(" eye")]
        found.append(
            SitterOnCanvas(
                sitter.kind if sitter is not None else "other", sitter.id if sitter is not None else 0,
                sitter.name if sitter is not None else "", piece is not None and piece.mirrored, tuple(eyes), tuple(points),
                rings_of_piece(piece) if piece is not None else (),
            )
        )  # fmt: skip
    return tuple(found)


def _whose(c: Commission, sitter_id: int, piece_id: int) -> Sitter | None:
    if piece_id == BEHIND:
        shown = {
            p.sitter_id for p in c.intake.photos if c.compose.background is not None and p.id == c.compose.background.photo_id
        }
        sitter_id = next(iter(shown), 0)
    return c.brief.sitter(sitter_id) or next(iter(c.brief.sitters), None)


def noses_of(c: Commission) -> tuple[Point, ...]:
    """Tips of noses and beaks on the canvas: fur grows away from them."""
    tips = [p.at for p in places_on(c.compose, c.intake.photos) if p.name in ("nose tip", "beak tip")]
    return tuple(tips) or tuple(middle_of(r) for r in c.layers.regions if r.kind == "nose" and r.rings)


def levels_of(regions: Sequence[Region]) -> dict[int, int]:
    """Which fur lies over which by its part, whatever the lie: body, head, ears."""
    place = {"body": 1, "head": 2}
    return {r.id: 3 if r.part.endswith("ear") else place.get(r.part, 1 if r.part == "" else 2) for r in regions}


def focal_of(c: Commission) -> Point:
    """Where the viewer looks: as the painter said, else between the eyes, else a third from the top."""
    if c.layers.focal is not None:
        return c.layers.focal
    eyes = [middle_of(r) for r in c.layers.regions if r.kind == "eye" and r.rings] or [e.at_mm for e in eyes_on_canvas(c)]
    if eyes:
        return sum(x for x, _ in eyes) / len(eyes), sum(y for _, y in eyes) / len(eyes)
    return c.compose.width_mm / 2, c.compose.height_mm / 3


def play_areas(c: Commission, regions: Sequence[Region]) -> tuple[PlayArea, ...]:
    """The regions as Play paints them; irises from the marks, glints where they are usual."""
    marked = eyes_on_canvas(c)
    found = []
    for region in regions:
        facts = facts_of(region.kind)
        iris: Circle | None = None
        glints: tuple[Circle, ...] = ()
        if region.kind == "eye" and region.rings:
            bounds = region.bounds
            near = min(marked, key=lambda e: _apart(e.at_mm, bounds.centre), default=None)
            inside = near is not None and bounds.holds(near.at_mm)
            at = near.at_mm if near is not None and inside else bounds.centre
            radius = (
                near.eye.radius_px / photo_px_per_mm(c.compose, near.piece_id)
                if near is not None and inside
                else bounds.height / 2
            )
            iris = (at, radius)
            glint = (at[0] + _GLINT_AT[0] * radius, at[1] + _GLINT_AT[1] * radius)
            glints = ((glint, max(_GLINT_MM, _GLINT_SHARE * radius)),)
        depth = 0 if is_ground(region.kind) else facts.depth
        found.append(
            PlayArea(region.id, region.kind, facts.family, facts.hairy, region.part, depth, iris, glints, region.lines)
        )  # fmt: skip
    return tuple(found)


def _apart(a: Point, b: Point) -> float:
    return (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2
