"""What is known of a painting once its photographs were measured against the reference."""

from dataclasses import dataclass

from yarrow_lane.check.drawing import Moved
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.paint.seen import Lab
from yarrow_lane.transfer.proof.split import Whole


@dataclass(frozen=True)
class AreaAsked:
    """A region as it is asked about: its name, rings in canvas mm, whether paint lies on it yet, and whether it is a background."""

    id: int
    name: str
    rings: tuple[Polygon, ...]
    painted: bool = True
    behind: bool = False


@dataclass(frozen=True)
class ColourFault:
    """Paint of one place is off: `value` L* lighter (negative darker) and `warmth` Lab units warmer (negative cooler), 0 where that
    holds; its middle, mm, its size, mm², its region (0 for none) and outline, the Lab wanted and seen; `sd` of the larger one.
    """

    at: Point
    mm2: float
    area_id: int
    value: float
    warmth: float
    sd: float
    wanted: Lab
    seen: Lab
    outline: Polygon


@dataclass(frozen=True)
class HiddenShare:
    """What part of an even fault over a region this photograph could not show."""

    area_id: int
    name: str
    share: float


@dataclass(frozen=True)
class AreaOff:
    """How far a whole region is off in the middle: L* lighter, Lab units warmer."""

    area_id: int
    name: str
    value: float
    warmth: float


@dataclass(frozen=True, eq=False)
class Measured:
    """All that was found.

    `flat` is the canvas straightened and its light evened, (H, W, 3). Of each photograph: `weak` sides not well seen, `greys` groups read.
    `all_round` is whether broad statements are safe, `by_sheet` whether a white sheet told the light. `colour` and `moved` are what is off,
    beyond the `whole` and the noise of places; `hidden` what a fault of each region would not show; `painted` the share that is judged,
    `shone_at` spots left out as shine; what is not told `holds` within so much L*. `areas` are regions in the middle, the whole first,
    `soft_edges` places whose border is softer than the reference's, and how many times.
    """

    flat: Picture
    weak: tuple[tuple[str, ...], ...]
    greys: tuple[int, ...]
    all_round: bool
    by_sheet: bool
    colour: tuple[ColourFault, ...]
    whole: Whole
    moved: tuple[Moved, ...]
    noise_mm: float
    hidden: tuple[HiddenShare, ...]
    painted: float
    shone_at: tuple[Point, ...]
    holds: float
    areas: tuple[AreaOff, ...]
    soft_edges: tuple[tuple[Point, float], ...]

    @property
    def bytes(self) -> int:
        """How much memory it holds."""
        return self.flat.nbytes
