"""A piece that is not promised yet, reckoned like any other: what it would be to plan."""

import re
from dataclasses import dataclass, replace
from datetime import datetime

from yarrow_lane.calendar.jobs import Work
from yarrow_lane.calendar.promising import Offers
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import stand
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import set_size
from yarrow_lane.compose.proposed_size import USUAL_MM
from yarrow_lane.intake.brief import Brief, Medium, Sitter, SitterKind, add_sitter
from yarrow_lane.measure.lengths import Unit, size_text

NEW = "new"


@dataclass(frozen=True)
class Newcomer:
    """Size in mm, sitters, medium, and whether it is to be a close likeness or painterly."""

    width_mm: float = USUAL_MM[0]
    height_mm: float = USUAL_MM[1]
    sitters: int = 1
    kind: SitterKind = "dog"
    medium: Medium = "acrylic"
    painterly: bool = False

    def words(self, unit: Unit) -> str:
        """ "A new 30 × 40 cm"."""
        return f"A new {size_text(self.width_mm, self.height_mm, unit)}"


def as_asked(c: Commission, piece: Newcomer) -> Commission:
    """With the sitters, the size and the likeness that were asked about. Raises `ComposeTrouble` for no size.

    The sitters' names are those joined in the first one's, "Moss and Fennel", when there are as many; else "sitter 2" and on.
    """
    first = c.brief.sitters[0]
    joined = [name.strip() for name in re.split(r",| and | & ", first.name) if name.strip()]
    names = joined if len(joined) == piece.sitters else [first.name, *(f"sitter {n}" for n in range(2, piece.sitters + 1))]
    brief = replace(c.brief, sitters=(replace(first, name=names[0]),))
    for name in names[1:]:
        brief = add_sitter(brief, name, first.kind)
    school = replace(c.layers.school, finish="painterly" if piece.painterly else "close")
    sized = set_size(c.compose, piece.width_mm, piece.height_mm)
    return replace(c, brief=brief, compose=sized, layers=replace(c.layers, school=school))


@dataclass(frozen=True)
class Offered:
    """A piece asked about, its minutes by first guess, and the days it could be promised for; None without hours to plan it in."""

    piece: Newcomer
    minutes: float
    offers: Offers | None


def newcomer_work(piece: Newcomer, studio: Studio, now: datetime) -> Work:
    """All that would be to do, from the drawing on: a usual head's passes for each sitter. Raises `ComposeTrouble` for no size."""
    asked = Brief(NEW, (Sitter(1, "sitter 1", piece.kind),), "", piece.medium, now.date())
    return stand(as_asked(Commission(NEW, asked), piece), studio, now).work
