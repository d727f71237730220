"""One commission: the parts of the nine rooms as one immutable value."""

from dataclasses import dataclass, field, fields, replace
from datetime import date

from yarrow_lane.check.comparison import Check
from yarrow_lane.compose.canvas import Compose
from yarrow_lane.deliver.handover import Deliver
from yarrow_lane.easel.clock import Happening
from yarrow_lane.easel.session import Easel
from yarrow_lane.intake.brief import Brief
from yarrow_lane.intake.photos import Intake, Photo, take_away
from yarrow_lane.layers.regions import Layers
from yarrow_lane.measure.plane import Point, Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.palette.wells import Palette
from yarrow_lane.tone.three_values import Tone
from yarrow_lane.transfer.squares import Squares, Transfer


class CommissionTrouble(Trouble):
    """A change that the commission cannot take."""


@dataclass(frozen=True)
class Passed:
    """A door passed against the facts, with the painter's reason."""

    door: str
    reason: str
    on: date


@dataclass(frozen=True)
class Doors:
    """The doors passed against the facts."""

    passed: tuple[Passed, ...] = ()

    def reason(self, door: str) -> str:
        """Why that door was passed; empty when it was not."""
        return next((p.reason for p in self.passed if p.door == door), "")


@dataclass(frozen=True)
class Commission:
    """Everything on record about one portrait.

    The fields named in `PARTS` are versioned and can be undone; `log` is what happened
    at the easel, append-only.
    """

    id: str
    brief: Brief
    intake: Intake = Intake()
    compose: Compose = Compose()
    transfer: Transfer = Transfer()
    tone: Tone = Tone()
    palette: Palette = Palette()
    layers: Layers = Layers()
    easel: Easel = Easel()
    check: Check = Check()
    deliver: Deliver = Deliver()
    doors: Doors = Doors()
    log: tuple[Happening, ...] = field(default=(), compare=False)

    @property
    def photo(self) -> Photo | None:
        """The photograph the crop is taken from, while it is on the commission."""
        return next((p for p in self.intake.photos if p.id == self.compose.photo_id), None)

    @property
    def photo_size(self) -> Point | None:
        return (self.photo.width_px, self.photo.height_px) if self.photo else None

    @property
    def squares(self) -> Squares | None:
        """The lattice on the canvas, once there is a size and a count."""
        if not self.compose.sized or self.transfer.count == 0:
            return None
        return Squares(self.compose.width_mm, self.compose.height_mm, self.transfer.count)

    @property
    def canvas(self) -> Rect:
        """The canvas in its own mm."""
        return Rect(0.0, 0.0, self.compose.width_mm, self.compose.height_mm)


PARTS: tuple[str, ...] = tuple(f.name for f in fields(Commission) if f.name not in ("id", "log"))


def pass_door(commission: Commission, door: str, reason: str, on: date) -> Commission:
    """Pass a door against the facts; raises `CommissionTrouble` without a reason."""
    if not reason.strip():
        raise CommissionTrouble(f"The door {door} was not passed", "no reason is written", "write why it may be passed")
    others = tuple(p for p in commission.doors.passed if p.door != door)
    return replace(commission, doors=Doors((*others, Passed(door, reason.strip(), on))))


def unpass_door(commission: Commission, door: str) -> Commission:
    """Take the passing back: the facts decide again."""
    return replace(commission, doors=Doors(tuple(p for p in commission.doors.passed if p.door != door)))


def take_photo_away(commission: Commission, photo_id: str) -> Commission:
    """The photograph leaves; a crop taken from it goes with it, since nothing would be behind it."""
    smaller = replace(commission, intake=take_away(commission.intake, photo_id))
    if commission.compose.photo_id != photo_id:
        return smaller
    return replace(smaller, compose=replace(commission.compose, photo_id="", crop=None))
