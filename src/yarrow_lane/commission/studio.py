"""The studio: the painter's own settings and which commissions are on the shelf."""

from dataclasses import dataclass, replace

from yarrow_lane.calendar.week import Week
from yarrow_lane.compose.rack import Rack
from yarrow_lane.lane.part import Part, as_it_was
from yarrow_lane.layers.brushes import Brush
from yarrow_lane.layers.school import NamedSchool
from yarrow_lane.measure.lengths import Unit
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.paintbox import Paintbox
from yarrow_lane.transfer.equipment import Equipment
from yarrow_lane.transfer.record import Transfer
from yarrow_lane.transfer.ways import Stint


class StudioTrouble(Trouble):
    """A setting the studio cannot take."""


@dataclass(frozen=True)
class Studio:
    """What holds for all commissions; `on_shelf` are commission ids in the order they came, `stints` how long ways of carrying a drawing
    over took against what was thought.
    """

    name: str = "Studio"
    painter: str = ""
    on_shelf: tuple[str, ...] = ()
    climate: Climate = Climate()
    week: Week = Week()
    unit: Unit = "cm"
    evening: bool = False
    text_percent: int = 100
    rack: Rack = Rack()
    equipment: Equipment | None = None
    stints: tuple[Stint, ...] = ()
    paintbox: Paintbox = Paintbox()
    schools: tuple[NamedSchool, ...] = ()
    jar: tuple[Brush, ...] = ()


# Version 1 knows the rack, version 2 the equipment, version 3 the painter's own times, version 4 the paintbox, version 5 own schools and brushes.
STUDIO_PART = Part("studio", Studio, "", (as_it_was, as_it_was, as_it_was, as_it_was, as_it_was))
_MOST_STINTS = 60  # our choice: older ones say little of today's hand


def equipment_of(studio: Studio, transfer: Transfer) -> Equipment:
    """The painter's; until the studio has its own, what the commission kept, or a usual one."""
    return studio.equipment or transfer.equipment or Equipment()


def with_stint(studio: Studio, stint: Stint) -> Studio:
    """One more of the painter's own times."""
    return replace(studio, stints=(*studio.stints, stint)[-_MOST_STINTS:])


def with_paintbox(studio: Studio, paintbox: Paintbox) -> Studio:
    """Another paintbox."""
    return replace(studio, paintbox=paintbox)


def with_school(studio: Studio, named: NamedSchool) -> Studio:
    """A school of the painter's own; one of the same name gives way. Raises `StudioTrouble` without a name."""
    name = named.name.strip()
    if not name:
        raise StudioTrouble("The school was not kept", "it has no name", "say in a word or two how you call this order of work")
    rest = tuple(s for s in studio.schools if s.name != name)
    return replace(studio, schools=(*rest, replace(named, name=name)))


def without_school(studio: Studio, name: str) -> Studio:
    """That school is forgotten."""
    return replace(studio, schools=tuple(s for s in studio.schools if s.name != name))


def with_jar(studio: Studio, jar: tuple[Brush, ...]) -> Studio:
    """Other brushes in the jar."""
    return replace(studio, jar=jar)


def put_on_shelf(studio: Studio, commission_id: str) -> Studio:
    """A commission comes to the shelf."""
    return replace(studio, on_shelf=(*studio.on_shelf, commission_id))


def take_off_shelf(studio: Studio, commission_id: str) -> Studio:
    """A commission is put away; it stays on record."""
    return replace(studio, on_shelf=tuple(i for i in studio.on_shelf if i != commission_id))


def set_climate(studio: Studio, climate: Climate) -> Studio:
    """Read at the easel; raises `StudioTrouble` outside 5 to 40 °C or 5 to 95 %."""
    if not 5 <= climate.celsius <= 40:
        raise StudioTrouble("The temperature was not taken", f"{climate.celsius:g} °C is outside 5 to 40 °C")
    if not 5 <= climate.humidity <= 95:
        raise StudioTrouble("The humidity was not taken", f"{climate.humidity:g} % is outside 5 to 95 %")
    if not 0 <= climate.retarder <= 3:
        raise StudioTrouble("The retarder was not taken", f"{climate.retarder:g} parts in ten are outside 0 to 3")
    return replace(studio, climate=climate)
