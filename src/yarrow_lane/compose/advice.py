"""Advice on the composition, computed from outlines and landmarks: each with its number and one move that would mend it.

Thresholds are our choice unless another source is named; what is common practice is said beside it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from yarrow_lane.compose import pieces
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.cutting.outline import curve
from yarrow_lane.compose.pieces import Piece
from yarrow_lane.compose.places import BEHIND, Seen, place_of
from yarrow_lane.intake.photos import Photo
from yarrow_lane.measure.lengths import Unit, length_text
from yarrow_lane.measure.outlines import clip_to_rect, polygon_area
from yarrow_lane.measure.plane import Point, Polygon, Rect, polygon_bounds

HEAD_ROOM = (0.04, 0.16)  # of the height; that a head is clear of the edge is common practice
EYE_LINE = (0.28, 0.45)  # of the height, from the top: about the upper third is common practice
GAZE = 1.25  # room before the face over room behind the eyes; that there is to be more before it is common practice
LOOKS_ASIDE = 0.25  # nose off the middle of the eyes, in distances of the eyes
SHARE = (0.28, 0.75)  # of the canvas
TOUCH = 0.012  # of the shorter side: nearer an edge without crossing it is a kiss
EARS = 1.5  # eye-to-chin lengths above the eyes: what stands higher is an ear, and says nothing of the eye line
PAST_MM = 1.0  # a move goes a little further than to the edge of what is good
JOINT = 0.35  # of the head's length: a cut so near the chin is a cut at the neck

Where = Literal["cut nose", "cut joint", "gaze", "head room", "eye line", "touch", "share", "balance"]
GRAVEST_FIRST = get_args(Where)  # our choice: what the edge cuts off first, taste last


@dataclass(frozen=True)
class Face:
    """Landmarks of one sitter on the canvas, mm; `piece_id` is `BEHIND` for the photograph behind. None where not marked."""

    piece_id: int
    name: str
    eyes: tuple[Point, ...] = ()
    nose: Point | None = None
    crown: Point | None = None
    chin: Point | None = None
    outline: tuple[Polygon, ...] = ()

    @property
    def eye_middle(self) -> Point | None:
        if not self.eyes:
            return None
        return sum(x for x, _ in self.eyes) / len(self.eyes), sum(y for _, y in self.eyes) / len(self.eyes)

    @property
    def look(self) -> float:
        """Which way it looks: 0 straight, positive right, in distances of the eyes; 0 where it cannot be told."""
        middle = self.eye_middle
        if middle is None or self.nose is None or len(self.eyes) < 2:
            return 0.0
        return (self.nose[0] - middle[0]) / max(1e-6, math.dist(*self.eyes[:2]))


@dataclass(frozen=True)
class Advice:
    """One sentence, its room drawn on the canvas (mm), and the move that would mend it (right, down, mm; scale), (0, 0, 1) for none.

    `name` names it among those of one composition, so that it can be refused for good.
    """

    name: str
    kind: Where
    piece_id: int
    words: str
    why: str = ""
    across_mm: float = 0.0
    down_mm: float = 0.0
    factor: float = 1.0
    room: Rect | None = None

    @property
    def is_trifle(self) -> bool:
        """A move nobody would make: under 5 mm, our choice."""
        return self.can_be_done and self.factor == 1.0 and max(abs(self.across_mm), abs(self.down_mm)) < 5.0

    @property
    def can_be_done(self) -> bool:
        return (self.across_mm, self.down_mm, self.factor) != (0.0, 0.0, 1.0)


def faces(compose: Compose, photos: Sequence[Photo]) -> tuple[Face, ...]:
    """Every sitter with marks: those placed, else the one in the photograph behind."""
    by_id = {p.id: p for p in photos}
    if compose.pieces:
        found = [_face(compose, p.id, p.name, by_id.get(p.photo_id), _curves(p)) for p in compose.pieces]
    elif compose.behind is not None and compose.sized:
        found = [_face(compose, BEHIND, "", by_id.get(compose.behind.photo_id), ())]
    else:
        found = []
    return tuple(f for f in found if f is not None)


def _curves(piece: Piece) -> tuple[Polygon, ...]:
    return tuple(tuple((float(x), float(y)) for x, y in curve(ring, 4)) for ring in piece.outline_mm)


def _face(compose: Compose, piece_id: int, name: str, photo: Photo | None, outline: tuple[Polygon, ...]) -> Face | None:
    if photo is None:
        return None

    def placed(x: float, y: float) -> Point | None:
        return place_of(compose, Seen(piece_id, photo.id, (x, y)))

    piece = compose.piece(piece_id) if piece_id != BEHIND else None

    def its_own(x: float, y: float) -> bool:
        # Two sitters of one photograph: a mark belongs to the one it lies on, or near.
        if piece is None:
            return True
        box = piece.bounds
        return Rect(box.x - 4, box.y - 4, box.width + 8, box.height + 8).holds((x, y))

    marks = {m.name: placed(m.x, m.y) for m in photo.landmarks if its_own(m.x, m.y)}
    eyes = tuple(p for e in photo.eyes if its_own(e.x, e.y) and (p := placed(e.x, e.y)) is not None)
    nose = marks.get("nose tip") or marks.get("beak tip")
    return Face(piece_id, name, eyes, nose, marks.get("crown"), marks.get("chin"), outline)


def advice(compose: Compose, found: Sequence[Face], unit: Unit) -> tuple[Advice, ...]:
    """What could be better, the gravest first; what was refused is left out."""
    if not compose.framed:
        return ()
    said: list[Advice] = []
    for face in found:
        said += [*_cuts(compose, face, unit), *_gaze(compose, face, unit), *_head(compose, face, unit)]
        said += [*_touches(compose, face, unit), *_share(compose, face)]
    said += _balance(compose, found, unit)
    said.sort(key=lambda a: GRAVEST_FIRST.index(a.kind))
    return tuple(a for a in said if a.name not in compose.meant and not a.is_trifle)


def _who(face: Face) -> str:
    return face.name or "The sitter"


def _gaze(compose: Compose, face: Face, unit: Unit) -> list[Advice]:
    look, middle = face.look, face.eye_middle
    if abs(look) <= LOOKS_ASIDE or face.nose is None or middle is None:
        return []
    width = compose.width_mm
    right = look > 0
    ahead, behind = (width - face.nose[0], middle[0]) if right else (face.nose[0], width - middle[0])
    if ahead >= behind * GAZE or ahead <= 0:
        return []
    by = (behind * GAZE - ahead) / (1 + GAZE) + PAST_MM
    side = "left" if right else "right"
    where = f"{length_text(ahead, unit, 0)} before the nose, {length_text(behind, unit, 0)} behind the eyes"
    room = Rect(face.nose[0] if right else 0.0, face.nose[1] - 10, ahead, 20)
    words = f"Tight before {_who(face)}'s nose: move it {length_text(by, unit, 0)} {side}" if face.name else (
        f"Tight before the nose: move the picture {length_text(by, unit, 0)} {side}"
    )  # fmt: skip
    return [Advice(f"gaze {face.piece_id}", "gaze", face.piece_id, words, where, -by if right else by, 0.0, 1.0, room)]


def _head(compose: Compose, face: Face, unit: Unit) -> list[Advice]:
    height = compose.height_mm
    tops = [y for ring in face.outline for _, y in ring] + ([face.crown[1]] if face.crown else [])
    said = []
    if tops:
        top = min(tops)
        cut = top < -0.005 * height
        if not cut and top < HEAD_ROOM[0] * height:
            by = HEAD_ROOM[0] * height - top + PAST_MM
            words = f"Only {length_text(max(0.0, top), unit, 0)} above {face.name or 'the head'}: lower it by {length_text(by, unit, 0)}"
            room = Rect(0, 0, compose.width_mm, max(1.0, top))
            said.append(Advice(f"head room {face.piece_id}", "head room", face.piece_id, words, "", 0.0, by, 1.0, room))
        elif top > HEAD_ROOM[1] * height and len(compose.pieces) <= 1:
            by = top - HEAD_ROOM[1] * height + PAST_MM
            words = f"{length_text(top, unit, 0)} above {face.name or 'the head'}: raise it by {length_text(by, unit, 0)}, or come nearer"
            room = Rect(0, 0, compose.width_mm, top)
            said.append(Advice(f"head room {face.piece_id}", "head room", face.piece_id, words, "", 0.0, -by, 1.0, room))
    middle = face.eye_middle
    if middle is not None and len(compose.pieces) <= 1 and not said:
        high = tops and face.chin is not None and middle[1] - min(tops) > EARS * abs(face.chin[1] - middle[1])
        line = middle[1] / height
        if not high and not EYE_LINE[0] <= line <= EYE_LINE[1]:
            wanted = EYE_LINE[0] if line < EYE_LINE[0] else EYE_LINE[1]
            by = wanted * height - middle[1]
            by += math.copysign(PAST_MM, by)
            words = f"The eyes lie {line:.0%} down: move it {length_text(abs(by), unit, 0)} {'down' if by > 0 else 'up'}"
            why = f"the upper third is at {length_text(height / 3, unit, 0)}"
            room = Rect(0, min(middle[1], wanted * height), compose.width_mm, abs(by))
            said.append(Advice(f"eye line {face.piece_id}", "eye line", face.piece_id, words, why, 0.0, by, 1.0, room))
    return said


def _cuts(compose: Compose, face: Face, unit: Unit) -> list[Advice]:
    said = []
    canvas = compose.canvas
    if face.nose is not None and not canvas.holds(face.nose):
        x, y = face.nose
        across = -x + 0.05 * canvas.width if x < 0 else canvas.width * 0.95 - x if x > canvas.width else 0.0
        down = -y + 0.05 * canvas.height if y < 0 else canvas.height * 0.95 - y if y > canvas.height else 0.0
        ways = [f"{length_text(abs(across), unit, 0)} {'right' if across > 0 else 'left'}"] if across else []
        ways += [f"{length_text(abs(down), unit, 0)} {'down' if down > 0 else 'up'}"] if down else []
        whose = f"{face.name}'s" if face.name else "the"
        words = f"The edge cuts {whose} nose off: move {'it' if face.name else 'the picture'} {' and '.join(ways)}"
        said.append(Advice(f"nose {face.piece_id}", "cut nose", face.piece_id, words, "", across, down))
    if face.crown is not None and face.chin is not None and face.outline:
        head = math.dist(face.crown, face.chin)
        below = canvas.height - face.chin[1]
        reaches = max(y for ring in face.outline for _, y in ring)
        if 0 <= below < JOINT * head and reaches > canvas.height - 0.5:
            by = JOINT * head - below + PAST_MM
            words = f"The lower edge cuts {face.name or 'the sitter'} at the neck: raise it by {length_text(by, unit, 0)}"
            said.append(Advice(f"neck {face.piece_id}", "cut joint", face.piece_id, words, "", 0.0, -by))
    return said


def _touches(compose: Compose, face: Face, unit: Unit) -> list[Advice]:
    if not face.outline:
        return []
    canvas, box = compose.canvas, polygon_bounds(p for ring in face.outline for p in ring)
    near = TOUCH * min(canvas.width, canvas.height)
    said = []
    for side, away, across, down in (
        ("left", box.x, 1, 0),
        ("right", canvas.width - box.right, -1, 0),
        ("lower", canvas.height - box.bottom, 0, -1),
        ("upper", box.y, 0, 1),
    ):
        if 0.3 < away < near:
            by = 2 * near - away + PAST_MM
            words = (
                f"{_who(face)} all but touches the {side} edge: let it run off, or keep {length_text(2 * near, unit, 0)} clear"
            )
            # Running off the edge keeps the sitter's size; that is common practice rather than squeezing.
            said.append(Advice(f"touch {side} {face.piece_id}", "touch", face.piece_id, words, "", across * by, down * by))
    return said


def covered_share(compose: Compose, rings: Sequence[Polygon]) -> float:
    """Share of the canvas a sitter covers, 0 to 1; holes count as covered."""
    area = sum(polygon_area(clip_to_rect(ring, compose.canvas)) for ring in rings[:1])
    return area / (compose.width_mm * compose.height_mm)


def _share(compose: Compose, face: Face) -> list[Advice]:
    if len(compose.pieces) != 1 or not face.outline:
        return []
    share = covered_share(compose, face.outline)
    if SHARE[0] <= share <= SHARE[1]:
        return []
    wanted = SHARE[0] if share < SHARE[0] else SHARE[1]
    factor = _factor_for(compose, face.outline, wanted + (0.01 if share < SHARE[0] else -0.01))
    what = "come nearer" if share < SHARE[0] else "draw it smaller, nothing is left round it"
    words = f"{_who(face)} fills {share:.0%} of the canvas: {what}"
    return [Advice(f"share {face.piece_id}", "share", face.piece_id, words, "", 0.0, 0.0, factor)]


def _factor_for(compose: Compose, rings: Sequence[Polygon], wanted: float) -> float:
    """How much larger or smaller, its foot staying, a sitter covers that share: what grows off the canvas does not count."""
    box = polygon_bounds(p for ring in rings for p in ring)
    x, y = box.centre[0], box.bottom
    low, high = 0.1, 4.0
    for _ in range(16):
        factor = math.sqrt(low * high)
        after = tuple(tuple((x + (px - x) * factor, y + (py - y) * factor) for px, py in ring) for ring in rings[:1])
        low, high = (factor, high) if covered_share(compose, after) < wanted else (low, factor)
    return math.sqrt(low * high)


def _balance(compose: Compose, found: Sequence[Face], unit: Unit) -> list[Advice]:
    """One sitter whose weight lies to one side, with no look the other way to answer it."""
    drawn = [f for f in found if f.outline]
    if len(drawn) != 1 or abs(drawn[0].look) > LOOKS_ASIDE:
        return []
    ring = clip_to_rect(drawn[0].outline[0], compose.canvas)
    if len(ring) < 3:
        return []
    off = _centroid(np.asarray(ring))[0] - compose.width_mm / 2
    if abs(off) <= 0.14 * compose.width_mm:
        return []
    side, back = ("right", "left") if off > 0 else ("left", "right")
    by = abs(off) - 0.07 * compose.width_mm
    words = f"{_who(drawn[0])} weighs {length_text(abs(off), unit, 0)} {side} of the middle: move it {length_text(by, unit, 0)} {back}"
    return [Advice(f"balance {drawn[0].piece_id}", "balance", drawn[0].piece_id, words, "", -math.copysign(by, off))]


def _centroid(points: NDArray[np.float64]) -> Point:
    x, y = points.T
    cross = x * np.roll(y, -1) - np.roll(x, -1) * y
    area = cross.sum() / 2
    if abs(area) < 1e-9:
        return float(x.mean()), float(y.mean())
    return (
        float(((x + np.roll(x, -1)) * cross).sum() / (6 * area)),
        float(((y + np.roll(y, -1)) * cross).sum() / (6 * area)),
    )


def done(compose: Compose, wanted: Advice, photo_sizes: dict[str, Point]) -> Compose:
    """The composition after the proposed move: the sitter moved, or the crop where nobody is placed."""
    if wanted.piece_id != BEHIND:
        piece = compose.piece(wanted.piece_id)
        after = pieces.scaled(piece, wanted.factor, pieces.foot(piece))
        after = pieces.moved(after, wanted.across_mm, wanted.down_mm)
        return replace(compose, pieces=tuple(after if p.id == piece.id else p for p in compose.pieces))
    laid = compose.background
    if laid is None:
        return compose
    scale, crop = laid.crop.width / compose.width_mm, laid.crop
    width, height = photo_sizes[laid.photo_id]
    x = min(max(0.0, crop.x - wanted.across_mm * scale), width - crop.width)
    y = min(max(0.0, crop.y - wanted.down_mm * scale), height - crop.height)
    return replace(compose, background=Framed(laid.photo_id, Rect(x, y, crop.width, crop.height)))


def refused(compose: Compose, wanted: Advice) -> Compose:
    """Meant so: it is not said again."""
    return replace(compose, meant=(*compose.meant, wanted.name))


def falloff(away_mm: float, radius_mm: float, least: float = 0.35) -> float:
    """Share of detail and contrast at a distance from the focal point: 1 within its radius, `least` from four radii on."""
    t = min(1.0, max(0.0, (away_mm - radius_mm) / (3 * radius_mm))) if radius_mm > 0 else 1.0
    return 1 - (1 - least) * t * t * (3 - 2 * t)
