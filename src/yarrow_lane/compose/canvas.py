"""The canvas and the crop of the lead photograph that fills it."""

from dataclasses import dataclass, replace

from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble

# Usable pixels per mm of canvas: our choice, a 0.5 mm stroke needs two pixels.
DETAIL_GOOD_PX_MM = 6.0
DETAIL_WORKABLE_PX_MM = 4.0
DETAIL_POOR_PX_MM = 2.5
# Our choice: smaller than a playing card or larger than a wall is a slip of the pen.
SMALLEST_MM = 40.0
LARGEST_MM = 4000.0
# Our choice: a crop narrower than this many pixels shows nothing to paint from.
NARROWEST_CROP_PX = 32.0


class ComposeTrouble(Trouble):
    """A size or crop that cannot be."""


@dataclass(frozen=True)
class Compose:
    """Width and height of the canvas in mm; the crop on the photograph in upright px.

    `crop` always has the canvas's proportion and lies within the photograph.
    """

    width_mm: float = 0.0
    height_mm: float = 0.0
    format_name: str = ""
    photo_id: str = ""
    crop: Rect | None = None

    @property
    def sized(self) -> bool:
        return self.width_mm > 0 and self.height_mm > 0

    @property
    def framed(self) -> bool:
        return self.sized and self.crop is not None and bool(self.photo_id)

    @property
    def proportion(self) -> float:
        """Width over height."""
        return self.width_mm / self.height_mm

    @property
    def px_per_mm(self) -> float:
        """Photograph pixels on each mm of canvas; needs a crop."""
        assert self.crop is not None
        return self.crop.width / self.width_mm

    def to_canvas(self, point: Point) -> Point:
        """Photograph px to canvas mm, from the top left corner; needs a crop."""
        assert self.crop is not None
        return (point[0] - self.crop.x) / self.px_per_mm, (point[1] - self.crop.y) / self.px_per_mm

    def to_photo(self, point: Point) -> Point:
        """Canvas mm to photograph px; needs a crop."""
        assert self.crop is not None
        return self.crop.x + point[0] * self.px_per_mm, self.crop.y + point[1] * self.px_per_mm


def set_size(compose: Compose, width_mm: float, height_mm: float, name: str = "", photo_size: Point | None = None) -> Compose:
    """Choose the canvas; a crop already there keeps its centre and takes the new proportion.

    Raises `ComposeTrouble` outside 4 cm to 4 m.
    """
    for side in (width_mm, height_mm):
        if not SMALLEST_MM <= side <= LARGEST_MM:
            raise ComposeTrouble("That size was not taken", f"{side / 10:g} cm is outside 4 cm to 4 m", "write the size again")
    sized = replace(compose, width_mm=float(width_mm), height_mm=float(height_mm), format_name=name)
    if compose.crop is None or photo_size is None:
        return replace(sized, crop=None)
    return frame(sized, compose.photo_id, photo_size, compose.crop.width, compose.crop.centre)


def turn(compose: Compose, photo_size: Point | None = None) -> Compose:
    """Upright to lying and back."""
    return set_size(compose, compose.height_mm, compose.width_mm, compose.format_name, photo_size)


def largest_crop_width(compose: Compose, photo_size: Point) -> float:
    """The widest crop of the canvas's proportion that the photograph holds, px."""
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
    return replace(compose, photo_id=photo_id, crop=Rect(x, y, width, height))


def detail_words(px_per_mm: float) -> str:
    """What so many photograph pixels per mm of canvas allow."""
    if px_per_mm >= DETAIL_GOOD_PX_MM:
        return "good"
    if px_per_mm >= DETAIL_WORKABLE_PX_MM:
        return "workable"
    if px_per_mm >= DETAIL_POOR_PX_MM:
        return "thin: big shapes hold, hairs do not"
    return "poor: values and big shapes only"
