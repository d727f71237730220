"""What changed between two compositions, in the painter's words with mm; also what is too small to see.

Values are compared, not pictures. Only equal compositions have nothing to say.
"""

import math
from dataclasses import dataclass

import numpy as np

from yarrow_lane.compose import pieces
from yarrow_lane.compose.composition import Compose
from yarrow_lane.compose.cutting.outline import filled
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.ground import Ground, Lab
from yarrow_lane.compose.pieces import Move, Piece
from yarrow_lane.compose.proofs import as_approved
from yarrow_lane.compose.seen_from import smallest_mm
from yarrow_lane.compose.sides import Sides, frame_words
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.warm import warm_and_pink
from yarrow_lane.measure.kept import kept

# What is seen: all our choice. 1 mm is two breadths of a fine stroke.
_MM, _SIZE, _TURN_DEG, _COLOUR, _AREA_CM2 = 1.0, 0.01, 0.5, 2.0, 0.05
_GREYS = (50.0, 25.0, 75.0)


@dataclass(frozen=True)
class Change:
    """One sentence without its full stop; `seen` unless it is too small to see from where the client looks."""

    words: str
    seen: bool


@kept(64)
def changes(before: Compose, after: Compose) -> tuple[Change, ...]:
    """Every difference; none only for compositions the client sees alike."""
    one, two = as_approved(before), as_approved(after)
    if one == two:
        return ()
    seen_mm = max(_MM, smallest_mm(after.wall.distance_mm))
    found = [*_canvas(one, two), *_who(one, two), *_order(one, two)]
    for piece in one.pieces:
        other = next((p for p in two.pieces if p.id == piece.id), None)
        if other is not None and other != piece:
            found += _piece(piece, other, seen_mm)
    found += _behind(one, two, seen_mm)
    found += _parts(one, two)
    if one.sides != two.sides:
        found += _sides(one.sides, two.sides)
    return tuple(found) or (Change("something changed that has no words", False),)


def _canvas(one: Compose, two: Compose) -> list[Change]:
    if (one.width_mm, one.height_mm) == (two.width_mm, two.height_mm):
        return []
    sizes = (f"{c.width_mm / 10:g} × {c.height_mm / 10:g} cm" for c in (one, two))
    seen = max(abs(one.width_mm - two.width_mm), abs(one.height_mm - two.height_mm)) >= _MM
    return [Change("canvas {} became {}".format(*sizes), seen)]


def _who(one: Compose, two: Compose) -> list[Change]:
    there, now = {p.id: p for p in one.pieces}, {p.id: p for p in two.pieces}
    gone = [Change(f"{p.name} taken off", True) for i, p in there.items() if i not in now]
    return gone + [Change(f"{p.name} added", True) for i, p in now.items() if i not in there]


def _order(one: Compose, two: Compose) -> list[Change]:
    common = {p.id for p in one.pieces} & {p.id for p in two.pieces}
    was = [p.id for p in one.pieces if p.id in common]
    found = []
    names = {p.id: p.name for p in two.pieces}
    order = [p.id for p in two.pieces if p.id in common]
    for place, piece_id in enumerate(order):
        passed = [o for o in order[:place] if was.index(o) > was.index(piece_id)]
        found += [Change(f"{names[piece_id]} now stands before {names[o]}", True) for o in passed]
    return found


def _piece(one: Piece, two: Piece, seen_mm: float) -> list[Change]:
    name = two.name
    found = []
    if one.photo_id != two.photo_id:
        return [Change(f"{name} comes from another photograph", True)]
    if one.name != two.name:
        found.append(Change(f"{one.name} is now called {name}", False))
    # The sitter's middle is what moves to the eye; an anchor may lie anywhere.
    middle = one.bounds.centre
    (x0, y0), (x1, y1) = pieces.to_canvas(one, middle), pieces.to_canvas(two, middle)
    far = math.hypot(x1 - x0, y1 - y0)
    if far > 1e-6:
        words = _way(x1 - x0, y1 - y0, 0.7 * seen_mm) if far >= seen_mm else f"{far:.2g} mm, too little to see"
        found.append(Change(f"{name} moved {words or f'{far:.1f} mm'}", far >= seen_mm))
    size = two.mm_per_px / one.mm_per_px - 1
    if abs(size) > 1e-9:
        word = "larger" if size > 0 else "smaller"
        found.append(Change(f"{name} {_share(abs(size))} {word}", abs(size) >= _SIZE))
    turn = (two.turn_deg - one.turn_deg + 180) % 360 - 180
    if abs(turn) > 1e-9:
        rim = math.radians(abs(turn)) * max(two.bounds.width, two.bounds.height) * two.mm_per_px / 2
        way = "clockwise" if turn > 0 else "against the clock"
        seen = abs(turn) >= _TURN_DEG or rim >= 2 * seen_mm
        found.append(Change(f"{name} turned {abs(turn):.2g}° {way}", seen))
    if one.mirrored != two.mirrored:
        found.append(Change(f"{name} mirrored", True))
    if one.move != two.move:
        found.append(_tone(name, one.move, two.move))
    if one.outline != two.outline:
        found.append(_outline(name, one, two, seen_mm))
    return found or [Change(f"{name} is anchored elsewhere", False)]


def _way(dx: float, dy: float, least: float) -> str:
    words = []
    if abs(dx) >= least:
        words.append(f"{abs(dx):.0f} mm {'right' if dx > 0 else 'left'}")
    if abs(dy) >= least:
        words.append(f"{abs(dy):.0f} mm {'down' if dy > 0 else 'up'}")
    return " and ".join(words)


def _share(share: float) -> str:
    return f"{100 * share:.0f} %" if share >= 0.1 else f"{100 * share:.2g} %"


def tone_words(one: Lab, two: Lab) -> str:
    """From one colour to another: value in steps, warm and cool, pink and green; empty below what is seen."""
    light = two[0] - one[0]
    warm, pink = warm_and_pink(two[1] - one[1], two[2] - one[2])
    words = []
    if abs(light) >= _COLOUR:
        steps = abs(light) / 10
        count = f"{steps:.1f} steps" if abs(steps - 1) >= 0.05 else "one step"
        words.append(f"{'lighter' if light > 0 else 'darker'} by {count}")
    if abs(warm) >= _COLOUR:
        words.append("warmer" if warm > 0 else "cooler")
    if abs(pink) >= _COLOUR:
        words.append("pinker" if pink > 0 else "greener")
    return ", ".join(words)


def _grey_after(move: Move, lightness: float) -> Lab:
    light = moved_light(linear_from_lab(np.array([[lightness, 0.0, 0.0]])), move)
    found = lab_from_linear(light)[0]
    return float(found[0]), float(found[1]), float(found[2])


def _tone(name: str, one: Move, two: Move) -> Change:
    said = (tone_words(_grey_after(one, g), _grey_after(two, g)) for g in _GREYS)
    words = next((w for w in said if w), "")
    return Change(f"{name} {words}" if words else f"colours of {name} changed, too little to see", bool(words))


def _outline(name: str, one: Piece, two: Piece, seen_mm: float) -> Change:
    points = np.array([p for piece in (one, two) for r in piece.outline for p in r.points])
    low = points.min(axis=0) - 4
    scale = min(1.0, 1200 / float(np.max(np.ptp(points, axis=0)) + 8))
    width, height = (int(v) for v in np.ceil(np.ptp(points, axis=0) * scale) + 9 * scale + 2)
    masks = [filled([np.array(r.points) - low for r in p.outline], width, height, scale) for p in (one, two)]
    area = (two.mm_per_px / scale) ** 2 / 100
    more, less = (float(((a > b).sum()) * area) for a, b in ((masks[1], masks[0]), (masks[0], masks[1])))
    seen = more + less >= max(_AREA_CM2, seen_mm**2 / 100)
    words = f"{more:.1f} cm² more, {less:.1f} cm² less" if seen else "too little to see"
    return Change(f"outline of {name} changed: {words}", seen)


def _behind(one: Compose, two: Compose, seen_mm: float) -> list[Change]:
    found = []
    if one.ground.kind != two.ground.kind:
        return [Change(f"background: {one.ground.kind} became {two.ground.kind}", True)]
    if one.ground.kind == "photograph":
        found += _photo_behind(one, two, seen_mm)
    if one.ground == two.ground:
        return found
    a, b = one.ground, two.ground
    if a.kind == "photograph":
        if a.blur_mm != b.blur_mm:
            word = "softer" if b.blur_mm > a.blur_mm else "sharper"
            seen = abs(b.blur_mm - a.blur_mm) >= max(seen_mm, 0.1 * a.blur_mm)
            found.append(Change(f"background {word}: blurred by {b.blur_mm:g} mm instead of {a.blur_mm:g} mm", seen))
        if a.move != b.move:
            found.append(_tone("the background", a.move, b.move))
        return found or [Change("background set otherwise, not seen", False)]
    return found + _plain_ground(a, b)


def _plain_ground(a: Ground, b: Ground) -> list[Change]:
    found = []
    ends = (0,) if a.kind == "colour" else (0, 1)
    for end in ends:
        if a.colours[end] != b.colours[end]:
            which = "background" if a.kind == "colour" else f"background at the {('near', 'far')[end]} end"
            words = tone_words(a.colours[end], b.colours[end])
            found.append(Change(f"{which} {words or 'changed, too little to see'}", bool(words)))
    if a.kind == "gradient" and a.degrees != b.degrees:
        turn = abs((b.degrees - a.degrees + 180) % 360 - 180)
        found.append(Change(f"background gradient turned {turn:.2g}°", turn >= 3))
    return found or [Change("background set otherwise, not seen", False)]


def _photo_behind(one: Compose, two: Compose, seen_mm: float) -> list[Change]:
    a, b = one.behind, two.behind
    if a == b:
        return []
    if a is None or b is None:
        return [Change(f"the photograph behind was {'laid' if a is None else 'taken away'}", True)]
    if a.photo_id != b.photo_id:
        return [Change("background: another photograph", True)]
    found = []
    scale = b.crop.width / two.width_mm
    size = (a.crop.width / one.width_mm) / scale - 1
    if abs(size) > 1e-9:
        found.append(Change(f"photograph {_share(abs(size))} {'larger' if size > 0 else 'smaller'}", abs(size) >= _SIZE))
    dx, dy = (a.crop.centre[0] - b.crop.centre[0]) / scale, (a.crop.centre[1] - b.crop.centre[1]) / scale
    far = math.hypot(dx, dy)
    if far > 1e-9:
        words = _way(dx, dy, 0.7 * seen_mm) if far >= seen_mm else f"{far:.2g} mm, too little to see"
        found.append(Change(f"photograph moved {words or f'{far:.1f} mm'}", far >= seen_mm))
    return found or [Change("crop cut otherwise", True)]


def _parts(one: Compose, two: Compose) -> list[Change]:
    """Parts that are recoloured; as plain ones they are as good as not there."""
    was, now = ({r.id: r for r in c.recoloured if not r.move.plain} for c in (one, two))
    found = []
    for part_id in sorted(was.keys() | now.keys()):
        a, b = was.get(part_id), now.get(part_id)
        if a == b:
            continue
        name = (b or a).name  # type: ignore[union-attr]
        if a is not None and b is not None and a.outline != b.outline:
            found.append(Change(f"the part called {name} has another outline", True))
        else:
            found.append(_tone(name, a.move if a else Move(), b.move if b else Move()))
    if not found and one.recoloured != two.recoloured:
        found.append(Change("parts to be recoloured were drawn, not changed yet", False))
    return found


def _sides(one: Sides, two: Sides) -> list[Change]:
    found = []
    if one.finish != two.finish:
        found.append(Change(f"edges: {two.finish} instead of {one.finish}", True))
    if one.depth_mm != two.depth_mm:
        found.append(
            Change(f"{two.depth_mm:g} mm deep instead of {one.depth_mm:g} mm", abs(one.depth_mm - two.depth_mm) >= _MM)
        )
    if one.colour != two.colour and two.finish in ("colour", "dark"):
        words = tone_words(one.colour, two.colour)
        found.append(Change(f"edges {words or 'in another colour, too little to see'}", bool(words)))
    if frame_words(one) != frame_words(two):
        found.append(Change(f"{frame_words(two)} instead of {frame_words(one)}", True))
    return found or [Change("frame or mount set otherwise", frame_words(two) != "no frame")]
