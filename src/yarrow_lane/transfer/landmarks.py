"""Eyes and landmarks marked at Intake, where they lie on the canvas."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.places import BEHIND, places_of_px
from yarrow_lane.intake.photos import Photo
from yarrow_lane.intake.sides import sitters_own
from yarrow_lane.measure.kept import kept
from yarrow_lane.measure.plane import Circle, Point

# All our choice.
_EYE_SHARE = 0.28  # of the distance between both eyes: what belongs to an eye
_FEWEST_MM, _MOST_MM, _ALONE_MM = 8.0, 25.0, 18.0
_ACROSS = {"left": "right", "right": "left"}
_FEATURES = ("nose tip", "beak tip", "left mouth corner", "right mouth corner")


@dataclass(frozen=True)
class Place:
    """A place of the canvas, mm, named by the side the viewer sees; `sitter` is the piece's name where there are several."""

    name: str
    at: Point
    piece_id: int = BEHIND
    sitter: str = ""

    @property
    def full_name(self) -> str:
        """As it is told: left and right are the sitter's own."""
        own = sitters_own(self.name)
        return f"{self.sitter}'s {own}" if self.sitter else own


@kept(2)  # asked for at every refresh of the room
def places_on(compose: Compose, photos: Sequence[Photo]) -> tuple[Place, ...]:
    """Every mark that is seen on the canvas; mirrored sitters have left and right as they are seen now."""
    found = []
    several = len(compose.pieces) > 1
    for photo in photos:
        marks = [(f"{e.side} eye", e.x, e.y) for e in photo.eyes] + [(m.name, m.x, m.y) for m in photo.landmarks]
        for name, x, y in marks:
            for piece_id, at in places_of_px(compose, photo.id, (x, y)):
                piece = compose.piece(piece_id) if piece_id != BEHIND else None
                said = _other_side(name) if piece is not None and piece.mirrored else name
                found.append(Place(said, at, piece_id, piece.name if piece is not None and several else ""))
    return tuple(found)


def _other_side(name: str) -> str:
    first, _, rest = name.partition(" ")
    return f"{_ACROSS.get(first, first)} {rest}".strip()


@kept(2)
def circles_on(places: Sequence[Place]) -> tuple[Circle, ...]:
    """Round eyes, noses and mouths: what every school draws with most care. Centre and radius, canvas mm."""
    found: list[Circle] = []
    for piece_id in sorted({p.piece_id for p in places}):
        own = [p for p in places if p.piece_id == piece_id]
        eyes = [p.at for p in own if p.name.endswith(" eye")]
        radius = _EYE_SHARE * math.dist(eyes[0], eyes[1]) if len(eyes) == 2 else _ALONE_MM
        radius = min(max(radius, _FEWEST_MM), _MOST_MM)
        found += [(eye, radius) for eye in eyes]
        found += [(p.at, 1.3 * radius) for p in own if p.name in _FEATURES[:2]]
        mouth = [p.at for p in own if p.name in _FEATURES[2:]]
        if len(mouth) == 2:
            found.append(
                (((mouth[0][0] + mouth[1][0]) / 2, (mouth[0][1] + mouth[1][1]) / 2), max(radius, math.dist(*mouth) / 2))
            )
    return tuple(found)


def head_mm(places: Sequence[Place]) -> float | None:
    """The largest head, crown to chin, on the canvas; None where no sitter has both."""
    lengths = []
    for piece_id in {p.piece_id for p in places}:
        at = {p.name: p.at for p in places if p.piece_id == piece_id}
        if "crown" in at and "chin" in at:
            lengths.append(math.dist(at["crown"], at["chin"]))
    return max(lengths, default=None)
