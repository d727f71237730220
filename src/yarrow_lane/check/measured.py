"""What is known of a painting once its photographs were measured against the reference."""

from dataclasses import dataclass

import numpy as np

from yarrow_lane.check.drawing import Moved
from yarrow_lane.measure.plane import Point, Polygon
from yarrow_lane.measure.raster import Picture
from yarrow_lane.transfer.proof.split import Whole

Lab = tuple[float, float, float]


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
    """The whole of what was found. `flat` is the canvas straightened and its light evened, (H, W, 3) at `px_per_mm`; `corners` of each
    photograph as its sides meet; `weak` sides not well seen; `greys` groups read of each photograph; `all_round` whether broad statements
    are safe; `shone` the share of the canvas left out as shine; `rest` the middle difference, L*, `doubt` its noise; `areas` each painted region in the middle, the whole first;
    `soft_edges` places whose border is softer than the reference's, and how many times.
    """

    flat: Picture
    px_per_mm: float
    corners: tuple[Polygon, ...]
    bulges: tuple[float, ...]
    weak: tuple[tuple[str, ...], ...]
    greys: tuple[int, ...]
    all_round: bool
    evened_by: str
    colour: tuple[ColourFault, ...]
    whole: Whole
    moved: tuple[Moved, ...]
    noise_mm: float
    hidden: tuple[HiddenShare, ...]
    spoken: float
    shone: float
    shone_at: tuple[Point, ...]
    rest: float
    doubt: float
    alike: float
    areas: tuple[AreaOff, ...] = ()
    soft_edges: tuple[tuple[Point, float], ...] = ()

    @property
    def bytes(self) -> int:
        """How much memory it holds."""
        return int(np.asarray(self.flat).nbytes)
