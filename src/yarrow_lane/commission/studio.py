"""The studio: the painter's own settings and which commissions are on the shelf."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime

from yarrow_lane.books.terms import Terms
from yarrow_lane.calendar.own_time import OwnTime, evenly
from yarrow_lane.calendar.sittings import Pin
from yarrow_lane.compose.rack import Rack
from yarrow_lane.easel.keys import EaselKeys
from yarrow_lane.lane.part import Part, Plain, as_it_was
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
    over took against what was thought. `pins` are sittings the painter fixed, `pressed` commissions that are painted so many days
    earlier than their promise asks. The air is read by hand, or `air_from` the stand-in or a file. `sound` rings at the easel. `watched` is a folder in which a
    telephone's new pictures turn up; `terms` say how it prices.
    """

    name: str = "Studio"
    painter: str = ""
    on_shelf: tuple[str, ...] = ()
    climate: Climate = Climate()
    time: OwnTime = OwnTime()
    unit: Unit = "cm"
    evening: bool = False
    text_percent: int = 100
    rack: Rack = Rack()
    equipment: Equipment | None = None
    stints: tuple[Stint, ...] = ()
    paintbox: Paintbox = Paintbox()
    schools: tuple[NamedSchool, ...] = ()
    jar: tuple[Brush, ...] = ()
    pins: tuple[Pin, ...] = ()
    pressed: tuple[tuple[str, int], ...] = ()
    air_from: str = ""
    easel_keys: EaselKeys = EaselKeys()
    sound: bool = False
    watched: str = ""
    terms: Terms = Terms()


def _own_time(plain: Plain, _: Mapping[str, Plain]) -> Plain:
    """Before version 6 every painting day had the same hours, from one hour on."""
    week = plain.get("week")
    rest = {name: value for name, value in plain.items() if name != "week"}
    if week is None:
        return rest
    hours = evenly(
        tuple(week.get("weekdays", (0, 1, 2, 3, 4))), week.get("minutes_a_day", 240.0), week.get("starts_at_hour", 10)
    )
    return {**rest, "time": {"hours": [[{"begin": s.begin, "end": s.end} for s in day] for day in hours]}}


# Version 1 knows the rack, version 2 the equipment, version 3 the painter's own times, version 4 the paintbox, version 5 own schools and
# brushes, version 6 hours by weekday, pins and what the easel learned, version 7 a watched folder,
# version 8 terms of price.
STUDIO_PART = Part("studio", Studio, "", (*(as_it_was,) * 5, _own_time, as_it_was, as_it_was))
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


def with_pin(studio: Studio, pin: Pin) -> Studio:
    """A sitting is fixed; one of the same commission with a task of it gives way."""
    rest = tuple(p for p in studio.pins if p.commission_id != pin.commission_id or not set(p.keys) & set(pin.keys))
    return replace(studio, pins=tuple(sorted((*rest, pin), key=lambda p: p.start)))


def without_pin(studio: Studio, commission_id: str, keys: tuple[str, ...]) -> Studio:
    """That sitting moves freely again."""
    return replace(
        studio, pins=tuple(p for p in studio.pins if p.commission_id != commission_id or not set(p.keys) & set(keys))
    )


def live_pins(studio: Studio, now: datetime) -> tuple[Pin, ...]:
    """Pins whose time is not over."""
    wall = now.replace(tzinfo=None)
    return tuple(p for p in studio.pins if p.start >= wall)


def press(studio: Studio, commission_id: str, days: int) -> Studio:
    """A commission is painted so many days earlier than its promise asks; 0 takes it back."""
    rest = tuple(p for p in studio.pressed if p[0] != commission_id)
    return replace(studio, pressed=(*rest, (commission_id, days)) if days else rest)


def press_before(studio: Studio, commission_id: str, promised: date, others: Iterable[date | None]) -> Studio:
    """A commission is painted as if it were promised before these promises of others, and a week earlier at least (our choice)."""
    days = [(promised - other).days + 1 for other in others if other is not None]
    return press(studio, commission_id, max([7, *days]))


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
