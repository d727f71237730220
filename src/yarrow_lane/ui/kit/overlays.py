"""What can lie over a picture, as plain values in the picture's own units: no Qt, painted by `ui/paint/overlays.py`."""

from dataclasses import dataclass
from typing import Literal

from yarrow_lane.measure.plane import Point, Polygon, Rect

# White, grey-white, the yellow of where we are, black alone, what is off and what holds.
Ink = Literal["light", "faint", "here", "dark", "off", "holds"]
Line = Literal["solid", "dashes", "dots"]
Colour = tuple[int, int, int]


@dataclass(frozen=True)
class Lattice:
    """Upright lines at `xs`, level ones at `ys`, over `area`; the names of `columns` stand above them, those of `rows` to the left."""

    area: Rect
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    ink: Ink = "light"
    weight: float = 1.0
    columns: tuple[tuple[float, str], ...] = ()
    rows: tuple[tuple[float, str], ...] = ()


@dataclass(frozen=True)
class Outline:
    """A line through points; `closed` joins the ends, `filled` lays a veil of light over what it encloses, `flat` a colour."""

    points: Polygon
    ink: Ink = "light"
    weight: float = 1.4
    line: Line = "solid"
    closed: bool = True
    filled: bool = False
    flat: Colour | None = None


@dataclass(frozen=True)
class Box:
    """An upright rectangle."""

    rect: Rect
    ink: Ink = "light"
    weight: float = 1.4
    line: Line = "solid"


@dataclass(frozen=True)
class Ring:
    """A circle; `fill` paints it, `radius_px` gives it a size on the screen instead of `radius` in the picture's units."""

    centre: Point
    radius: float = 0.0
    ink: Ink = "light"
    weight: float = 2.0
    fill: Colour | None = None
    radius_px: float = 0.0
    line: Line = "solid"


@dataclass(frozen=True)
class Cross:
    """A point that was marked."""

    at: Point


@dataclass(frozen=True)
class Grip:
    """Where a hand can take hold."""

    at: Point


@dataclass(frozen=True)
class Words:
    """Words at a point, moved by `shift` px of the screen; `side` is where they stand, "left", "right" or "over" it.

    Words that would cover those laid before them are left out; zooming in makes room.
    """

    at: Point
    text: str
    side: Literal["left", "right", "over"] = "right"
    shift: tuple[float, float] = (0.0, 0.0)
    clear_of: float = 0.0  # this much of the picture's units away from the point


@dataclass(frozen=True)
class Arrow:
    """From `degrees` clockwise of twelve towards `to`, ending `reach` away from it; broken while it is not sure."""

    to: Point
    degrees: float
    reach: float
    sure: bool
    words: str


@dataclass(frozen=True)
class Veil:
    """Everything but what an outline encloses is dimmed."""

    around: Polygon
    opacity: int = 165


@dataclass(frozen=True)
class Wash:
    """A rectangle washed over with a colour; with `tick` it carries a mark that it is done."""

    rect: Rect
    colour: Colour
    opacity: int = 255
    tick: bool = False


@dataclass(frozen=True)
class Drawn:
    """Lines as a hand has drawn or will draw them; the `lost` ones are broken. One colour, no second line under it."""

    paths: tuple[Polygon, ...]
    lost: tuple[Polygon, ...] = ()
    colour: Colour = (40, 32, 28)
    weight: float = 1.2


@dataclass(frozen=True)
class Ticks:
    """Short strokes across ruled lines: each a place, and whether the ruled line there is upright. Dots with `dots`."""

    marks: tuple[tuple[Point, bool], ...]
    colour: Colour = (140, 42, 24)
    dots: bool = False


@dataclass(frozen=True)
class Badge:
    """A number in a circle, moved by `shift` px of the screen; the chosen one is where we are, an `aside` one counts no more."""

    at: Point
    text: str
    chosen: bool = False
    aside: bool = False
    shift: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Way:
    """From where something lies to where it belongs: a shaft with a head; dark under its colour."""

    of: Point
    to: Point
    ink: Ink = "off"
    weight: float = 2.4


Overlay = Badge | Way | Drawn | Ticks | Lattice | Outline | Box | Ring | Cross | Grip | Words | Arrow | Veil | Wash
