"""Commissions as far along as a test needs them."""

from dataclasses import replace
from datetime import date, datetime, timedelta

from tests.conftest import NOON
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import Check, with_photo
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import passes_in
from yarrow_lane.commission.studio import Studio
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.deliver.handover import Deliver
from yarrow_lane.easel.session import Easel, FinishedPass
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import Eye, Intake, Photo
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.layers.regions import Layers, add_region
from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.wells import Palette, Well
from yarrow_lane.tone.record import Tone
from yarrow_lane.transfer.record import Transfer

STUDIO = Studio()
LEAD = Photo(
    "p1",
    "window.jpg",
    2400,
    3000,
    eyes=(Eye("left", 900, 900, 60), Eye("right", 1400, 900, 58)),
    use="lead",
    rights=Rights("client"),
)
CANVAS = Rect(0, 0, 240, 300)


def fresh(promised: date | None = date(2026, 4, 10)) -> Commission:
    return Commission("c0001", new_brief("Pip", "cat", "A. Client", "acrylic", NOON.date(), promised))


def regions() -> Layers:
    layers = add_region(Layers(), "background", ((0, 0), (240, 0), (240, 300), (0, 300)), CANVAS)
    layers = add_region(layers, "fur", ((40, 60), (200, 60), (200, 280), (40, 280)), CANVAS)
    return add_region(layers, "eye", ((80, 100), (110, 100), (95, 120)), CANVAS)


def painting_at(moment: datetime) -> Check:
    """The painting photographed then."""
    return with_photo(Check(), Taken("p9", "easel.jpg", (1200, 1500), moment, ((0, 0), (1200, 0), (1200, 1500), (0, 1500))))


def shut_up_to(door: str, passes_left: int = 0) -> Commission:
    """A commission whose doors are shut by the facts up to and with `door`."""
    c, reach = fresh(), DOORS.index(door)
    if reach >= 0:
        c = replace(c, intake=Intake((LEAD,)))
    if reach >= 1:
        c = replace(c, compose=Compose(240, 300, "metric 24 × 30 cm", Framed("p1", Rect(0, 0, 2400, 3000))))
    if reach >= 2:
        c = replace(c, transfer=Transfer(4, tuple(sorted((x, y) for x in range(4) for y in range(5)))))
    if reach >= 3:
        c = replace(c, tone=Tone(ground="raw umber wash"))
    if reach >= 4:
        c = replace(c, palette=Palette((Well(1, "coat", (100, 100), 4, (120, 90, 60), (41, 9, 22), "ochre 2 : umber 1"),)))
    if reach >= 5:
        c = replace(c, layers=regions())
    if reach >= 6:
        passes = passes_in(c, STUDIO.climate)
        done = passes[: len(passes) - passes_left]
        finished = tuple(FinishedPass(p.id, NOON - timedelta(days=5), p.dry_minutes) for p in done)
        c = replace(c, easel=Easel(finished))
    if reach >= 7:
        c = replace(c, check=painting_at(NOON - timedelta(days=4)))
    if reach >= 8:
        coats = (NOON - timedelta(days=2), NOON - timedelta(days=2, hours=-4))
        c = replace(
            c,
            deliver=Deliver(
                signed=NOON - timedelta(days=4), rest_from=NOON - timedelta(days=4), looked=NOON - timedelta(days=3),
                coats=coats, packed=NOON - timedelta(hours=3), delivered=NOON,
            ),
        )  # fmt: skip
    return c
