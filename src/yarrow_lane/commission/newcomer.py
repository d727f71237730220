"""A piece that is not promised yet, reckoned like any other: what it would be to plan."""

from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.promising import Offers
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import stand
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose, set_size
from yarrow_lane.intake.brief import Brief, Medium, Sitter, SitterKind
from yarrow_lane.layers.regions import Layers
from yarrow_lane.layers.school import School
from yarrow_lane.measure.lengths import Unit, size_text

NEW = "new"


@dataclass(frozen=True)
class Newcomer:
    """Size in mm, sitters, medium, and whether it is to be a close likeness or painterly."""

    width_mm: float = 300.0
    height_mm: float = 400.0
    sitters: int = 1
    kind: SitterKind = "dog"
    medium: Medium = "acrylic"
    painterly: bool = False

    def words(self, unit: Unit) -> str:
        """ "A new 30 × 40 cm"."""
        return f"A new {size_text(self.width_mm, self.height_mm, unit)}"


@dataclass(frozen=True)
class Offered:
    """A piece asked about, its minutes by first guess, and the days it could be promised for; None without hours to plan it in."""

    piece: Newcomer
    minutes: float
    offers: Offers | None


def newcomer_work(piece: Newcomer, studio: Studio, now: datetime) -> Work:
    """All that would be to do, from the drawing on: a usual head's passes for each sitter. Raises `ComposeTrouble` for no size."""
    sitters = tuple(Sitter(n + 1, f"sitter {n + 1}", piece.kind) for n in range(max(1, piece.sitters)))
    brief = Brief(NEW, sitters, "", piece.medium, now.date())
    layers = Layers(school=replace(School(), finish="painterly" if piece.painterly else "close"))
    c = Commission(NEW, brief, compose=set_size(Compose(), piece.width_mm, piece.height_mm), layers=layers)
    return stand(c, studio, now).work
