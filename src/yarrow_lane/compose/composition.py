"""What the canvas shows: its size, the photograph framed on it, and the sitters placed before it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.known import Known
from yarrow_lane.compose.pieces import Piece, PieceTrouble
from yarrow_lane.compose.recolour import Recoloured
from yarrow_lane.compose.sides import Sides
from yarrow_lane.compose.wall import Wall
from yarrow_lane.lane.part import Part, Plain, as_it_was
from yarrow_lane.measure.lengths import length_text
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble

# Our choice: smaller than a playing card or larger than a wall is a slip of the pen.
SMALLEST_MM = 40.0
LARGEST_MM = 4000.0
# Our choice: a crop narrower than this many pixels shows nothing to paint from.
NARROWEST_CROP_PX = 32.0


class ComposeTrouble(Trouble):
    """A size or crop that cannot be."""


@dataclass(frozen=True)
class Framed:
    """A photograph as the background; `crop` in its upright px fills the canvas and has its proportion."""

    photo_id: str
    crop: Rect


@dataclass(frozen=True)
class Focus:
    """Where the eye is to go, canvas mm: within `radius_mm` everything is told, beyond it less and less."""

    at_mm: Point
    radius_mm: float


@dataclass(frozen=True)
class Compose:
    """Width and height of the canvas in mm, and what fills it; `background` is None until a crop is laid.

    `pieces` lie before it, the last one in front. With a `ground` that is no photograph the framed one is kept but not seen.
    `next_piece` is the next piece's or recoloured part's id and only grows. `meant` are pieces of advice refused, by their names.
    """

    width_mm: float = 0.0
    height_mm: float = 0.0
    format_name: str = ""
    background: Framed | None = None
    ground: Ground = Ground()
    pieces: tuple[Piece, ...] = ()
    next_piece: int = 1
    recoloured: tuple[Recoloured, ...] = ()
    known: tuple[Known, ...] = ()
    focus: Focus | None = None
    sides: Sides = Sides()
    wall: Wall = Wall()
    meant: tuple[str, ...] = ()

    @property
    def sized(self) -> bool:
        return self.width_mm > 0 and self.height_mm > 0

    @property
    def lies(self) -> bool:
        """Whether it is wider than high."""
        return self.width_mm > self.height_mm

    @property
    def behind(self) -> Framed | None:
        """The photograph that is seen behind the sitters."""
        return self.background if self.ground.kind == "photograph" else None

    @property
    def framed(self) -> bool:
        """Whether there is something to paint from: a photograph laid, or a sitter placed on a plain ground."""
        return self.sized and (self.behind is not None or (self.ground.kind != "photograph" and bool(self.pieces)))

    def piece(self, piece_id: int) -> Piece:
        """Raises `PieceTrouble` when it is not there."""
        for piece in self.pieces:
            if piece.id == piece_id:
                return piece
        raise PieceTrouble("That sitter is not on the canvas", "it was taken off", "place it again")

    @property
    def proportion(self) -> float:
        """Width over height."""
        return self.width_mm / self.height_mm

    @property
    def canvas(self) -> Rect:
        """The canvas in its own mm."""
        return Rect(0.0, 0.0, self.width_mm, self.height_mm)


def crop_scale(compose: Compose) -> float:
    """Photograph px on each mm of canvas; raises `ComposeTrouble` without a crop."""
    if compose.background is None or not compose.sized:
        raise ComposeTrouble("Nothing was measured", "no crop is laid", "choose the size and lay the crop first")
    return compose.background.crop.width / compose.width_mm


def to_canvas(compose: Compose, point: Point) -> Point:
    """Px of the framed photograph to canvas mm, from the top left corner; raises `ComposeTrouble` without a crop."""
    scale = crop_scale(compose)
    assert compose.background is not None
    crop = compose.background.crop
    return (point[0] - crop.x) / scale, (point[1] - crop.y) / scale


def to_photo(compose: Compose, point: Point) -> Point:
    """Canvas mm to px of the framed photograph; raises `ComposeTrouble` without a crop."""
    scale = crop_scale(compose)
    assert compose.background is not None
    crop = compose.background.crop
    return crop.x + point[0] * scale, crop.y + point[1] * scale


def set_size(compose: Compose, width_mm: float, height_mm: float, name: str = "", photo_size: Point | None = None) -> Compose:
    """Choose the canvas; a crop already there keeps its centre and takes the new proportion.

    `photo_size` is that of the framed photograph, upright px. Raises `ComposeTrouble` outside 4 cm to 4 m.
    """
    for side in (width_mm, height_mm):
        if not SMALLEST_MM <= side <= LARGEST_MM:
            raise ComposeTrouble(
                "That size was not taken", f"{length_text(side)} is outside 4 cm to 4 m", "write the size again"
            )
    sized = replace(compose, width_mm=float(width_mm), height_mm=float(height_mm), format_name=name)
    if compose.sized and sized.canvas != compose.canvas:
        sized = _fitted(sized, compose)
    if compose.background is None or photo_size is None:
        return replace(sized, background=None)
    crop = compose.background.crop
    return frame(sized, compose.background.photo_id, photo_size, crop.width, crop.centre)


def _fitted(sized: Compose, before: Compose) -> Compose:
    """Sitters, focus and recoloured parts on another canvas: as large as they go, about its middle, never squeezed."""
    scale = min(sized.width_mm / before.width_mm, sized.height_mm / before.height_mm)
    (x0, y0), (x1, y1) = before.canvas.centre, sized.canvas.centre

    def there(at: Point) -> Point:
        return x1 + (at[0] - x0) * scale, y1 + (at[1] - y0) * scale

    pieces = tuple(replace(p, at_mm=there(p.at_mm), mm_per_px=p.mm_per_px * scale) for p in before.pieces)
    parts = tuple(replace(r, outline=tuple(there(p) for p in r.outline), soft_mm=r.soft_mm * scale) for r in before.recoloured)
    focus = Focus(there(before.focus.at_mm), before.focus.radius_mm * scale) if before.focus is not None else None
    return replace(sized, pieces=pieces, recoloured=parts, focus=focus)


def turn(compose: Compose, photo_size: Point | None = None) -> Compose:
    """Upright to lying and back."""
    return set_size(compose, compose.height_mm, compose.width_mm, compose.format_name, photo_size)


def largest_crop_width(compose: Compose, photo_size: Point) -> float:
    """The widest crop of the canvas's proportion that the photograph holds, px; raises `ComposeTrouble` without a size."""
    if not compose.sized:
        raise ComposeTrouble("The crop was not laid", "the canvas has no size yet", "choose a size first")
    return min(photo_size[0], photo_size[1] * compose.proportion)


def frame(compose: Compose, photo_id: str, photo_size: Point, width_px: float, centre: Point) -> Compose:
    """Lay the crop: so wide, about that centre, moved and shrunk to stay on the photograph.

    Never stretched: its height follows from the canvas. Raises `ComposeTrouble` without a size.
    """
    if not compose.sized:
        raise ComposeTrouble("The crop was not laid", "the canvas has no size yet", "choose a size first")
    most = largest_crop_width(compose, photo_size)
    width = min(max(width_px, min(NARROWEST_CROP_PX, most)), most)
    height = width / compose.proportion
    x = min(max(0.0, centre[0] - width / 2), photo_size[0] - width)
    y = min(max(0.0, centre[1] - height / 2), photo_size[1] - height)
    return replace(compose, background=Framed(photo_id, Rect(x, y, width, height)))


def _background(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Before version 1 photograph and crop lay side by side in the part."""
    rest = {name: value for name, value in plain.items() if name not in ("photo_id", "crop")}
    framed = plain.get("photo_id") and plain.get("crop")
    return {**rest, "background": {"photo_id": plain["photo_id"], "crop": plain["crop"]} if framed else None}


# Version 2 knows pieces, a ground, sides and the wall.
COMPOSE = Part("compose", Compose, "Compose", (_background, as_it_was))
