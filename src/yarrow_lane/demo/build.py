"""A made-up harbour-town studio with six commissions at different doors, and the money of a year."""

import shutil
from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path

from yarrow_lane import __version__
from yarrow_lane.calendar.own_time import OwnTime, Place, Span, take_off
from yarrow_lane.check.record import CHECK, note_seen
from yarrow_lane.commission.commission import DOORS_PART, waive_door
from yarrow_lane.commission.studio import with_paintbox
from yarrow_lane.deliver.handover import DELIVER, add_line, begin_rest, look_again, mark_line, sign, varnish
from yarrow_lane.demo.derived import message_copy, part_of, sideways_copy
from yarrow_lane.demo.memorial import Cutting, tell_memorial
from yarrow_lane.demo.money import tell_money, tell_past
from yarrow_lane.demo.paintbox import demo_paintbox
from yarrow_lane.demo.painting import photograph_painting
from yarrow_lane.demo.scene import Scene, SetClock
from yarrow_lane.demo.sitter_files import SitterFile, sitter_file
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.session import EASEL
from yarrow_lane.intake.brief import BRIEF
from yarrow_lane.intake.photos import Eye
from yarrow_lane.lane.part import Edit
from yarrow_lane.layers.regions import Kind, School
from yarrow_lane.measure.plane import Polygon
from yarrow_lane.paint.drying import Climate
from yarrow_lane.store.store import Store

# The renderer's region ids (see sitters/README.md): fur of head and body, ears, eyes, nose, mouth, skin, hair, cloth, lids.
_EYES = (4, 10)


def demo_folder(data_folder: Path, now: datetime) -> Path:
    """The demo studio of this day, built when it is not there; older copies are removed.

    The day is part of the name because the demo's dates are relative to the day it is opened.
    """
    place = data_folder / "demo"
    folder = place / f"{now:%Y-%m-%d}-{__version__}"
    if not (folder / "complete").exists():
        if place.exists():
            shutil.rmtree(place)
        build_demo(folder, now)
        (folder / "complete").touch()
    return folder


def build_demo(folder: Path, now: datetime) -> None:
    """Tell the six commissions, oldest first, with dates round `now`."""
    clock = SetClock(now - timedelta(days=60))
    store = Store(folder, now.date())
    try:
        desk = Desk(store, clock)
        desk.do_studio(
            "Named the studio",
            lambda s: replace(
                s, name="Saltgate Studio", painter="Rosalind Thorne", climate=Climate(19, 58), time=_own_time(now)
            ),
        )
        desk.do_studio("Filled the paintbox", lambda s: with_paintbox(s, demo_paintbox((now - timedelta(days=58)).date())))
        with Cutting(store):
            for tell in (_quill, _fennel, _marlow, _sorrel, _brack, tell_memorial):
                tell(Scene(desk, clock), now)
            tell_past(desk, clock, now)
            tell_money(desk, clock, now)
    finally:
        store.close()


def _own_time(now: datetime) -> OwnTime:
    """Six hours on five days, an afternoon's market on some Saturdays, and a few days away next month."""
    day = (Span(570, 750), Span(810, 990))
    away = (now + timedelta(days=31)).date()
    own = OwnTime(hours=(*((day,) * 5), (), ()), place=Place(51.0, 3.7))
    return take_off(own, away, away + timedelta(days=3), "away")


def _animal_regions(sitter: SitterFile, coarse: float = 0.0012) -> tuple[tuple[str, Kind, Polygon], ...]:
    """Body, head, ears, muzzle parts and eyes of a rendered animal."""
    found: list[tuple[str, Kind, Polygon]] = [("body fur", "fur", sitter.outlines((2,), coarse=coarse)[0])]
    found.append(("head fur", "fur", sitter.outlines((1, 4, 5, 6, 10), coarse=coarse)[0]))
    found += [(f"ear {n}", "fur", o) for n, o in enumerate(sitter.outlines((3,), 3000.0, coarse)[:2], 1)]
    found += [("nose", "nose", o) for o in sitter.outlines((5,))[:1]]
    found += [(f"eye {n}", "eye", o) for n, o in enumerate(sitter.outlines(_EYES, 800.0, 0.008)[:2], 1)]
    return tuple(found)


def _quill(scene: Scene, now: datetime) -> None:
    """The tabby: painted, compared, signed, rested; waits for its second coat of varnish."""
    cat = sitter_file("cat1")
    scene.begin(
        now,
        46,
        "Quill",
        "Quill",
        "cat",
        "T. Haldane",
        "acrylic",
        9,
        "Close likeness, plain soft background, by the kitchen window.",
    )
    scene.sitter(head_mm=95.0, muzzle_mm=40.0)
    lead = scene.photo(cat.jpeg, "quill-window.jpg", "lead", cat.eyes, landmarks=cat.landmarks)
    scene.photo(part_of(cat.jpeg, 0.25, 0.05, 0.55, 0.4), "quill-ears.jpg", "helper")
    scene.photo(message_copy(cat.jpeg, 420), "quill-message.jpg", "set aside")
    scene.at(-44)
    scene.frame(lead, 240, 300, "metric 24 × 30 cm", 0.9, (0.52, 0.42))
    scene.at(-42)
    scene.squares(8, 1.0)
    scene.ground("raw umber wash")
    scene.wells(
        "cat1",
        (
            ("pupil", (562, 775), "ivory black 3 : raw umber 1"),
            ("stripe, dark", (806, 560), "unbleached 2 : raw umber ½ : ivory black ⅛"),
            ("fur, middle", (720, 700), "unbleached 7 : ivory black ¼ : burnt sienna ⅛ : raw umber ⅛"),
            ("cheek, light", (600, 1000), "titanium white 8 : unbleached 8 : ivory black ½ : burnt sienna ⅛"),
            ("nose", (668, 930), "unbleached 6 : burnt sienna 3 : magenta ¼"),
            ("iris", (512, 815), "Naples 6 : raw umber 3 : phthalo green ⅛"),
        ),
    )
    scene.regions(_animal_regions(cat), School())
    scene.paint(99, -30)
    done = scene.desk.commission(scene.id)
    assert done.compose.background is not None
    for day, number in ((-12, 0), (-9, 1)):
        scene.at(day, 11)
        photograph_painting(scene, cat.jpeg, done.compose.background.crop, number)
    scene.edit(CHECK, "Noted what to mend", note_seen, "left cheek a shade too warm")
    scene.at(-8, 15)
    scene.edit(DELIVER, "Signed it", sign, scene.clock.now)
    scene.edit(DELIVER, "Turned it to the wall", begin_rest, scene.clock.now)
    scene.at(-6, 16)
    scene.edit(DELIVER, "Looked with fresh eyes", look_again, scene.clock.now)
    for text in ("cool the left cheek", "soften two whiskers"):
        scene.edit(DELIVER, "Put a line on the last list", add_line, text)
    scene.at(-5, 11)
    for line in (0, 1):
        scene.edit(DELIVER, "Marked a line of the last list", mark_line, line, True)
    scene.clock.now = now - timedelta(hours=2)
    scene.edit(DELIVER, "Varnished, a thin coat", varnish, scene.clock.now, None)


def _fennel(scene: Scene, now: datetime) -> None:
    """The long-haired dog: on the easel, some layers still wet."""
    dog, dusk = sitter_file("dog1"), sitter_file("dog2")
    scene.begin(
        now,
        25,
        "Fennel",
        "Fennel",
        "dog",
        "M. Aldous",
        "acrylic",
        45,
        "In memory. Painterly background, the white blaze exact.",
    )
    scene.sitter(living=False, head_mm=230.0, muzzle_mm=115.0)
    lead = scene.photo(dog.jpeg, "fennel-garden.jpg", "lead", dog.eyes, landmarks=dog.landmarks)
    scene.photo(dusk.jpeg, "fennel-dusk.jpg", "set aside", dusk.eyes)
    scene.photo(part_of(dog.jpeg, 0.15, 0.4, 0.6, 0.55), "fennel-chest.jpg", "helper")
    scene.photo(sideways_copy(dog.jpeg), "fennel-sideways.jpg", "set aside")
    scene.at(-22)
    scene.frame(lead, 500, 700, "metric 50 × 70 cm", 1.0, (0.5, 0.5))
    scene.at(-20)
    scene.squares(10, 1.0)
    scene.ground("burnt sienna wash")
    scene.wells(
        "dog1",
        (
            ("black coat, deep", (430, 700), "ivory black 4 : ultramarine ½"),
            ("black coat, lit", (520, 420), "ivory black 8 : burnt umber 8 : cadmium yellow 1"),
            ("tan", (600, 760), "burnt umber 6 : cadmium yellow 4 : titanium white 3"),
            ("blaze", (830, 520), "titanium white 6 : unbleached 1"),
            ("chest in shade", (640, 1300), "titanium white 6 : unbleached 2"),
            ("nose", (1090, 678), "ivory black 6 : burnt umber 1"),
            ("garden, dark", (150, 500), "ivory black 5 : cadmium yellow 2"),
            ("garden, light", (1300, 300), "titanium white 8 : cadmium yellow ½ : ultramarine ⅛"),
        ),
    )
    scene.regions(_animal_regions(dog), School())
    passes_done = 11
    scene.paint(passes_done - 1, -16, 4.0)
    scene.paint(1, 0, 4.0, begin=max(0.0, now.hour + now.minute / 60 - 0.75))
    # The last pass of the day was finished a few minutes ago: its film is wet.
    c = scene.desk.commission(scene.id)
    last = c.easel.finished[-1]
    fresh = replace(last, at=now - timedelta(minutes=6))
    scene.clock.now = now
    scene.edit(EASEL, "Finished the last pass a moment ago", lambda e: replace(e, finished=(*e.finished[:-1], fresh)))


def _marlow(scene: Scene, now: datetime) -> None:
    """The young woman: the drawing is being carried over."""
    person = sitter_file("person1")
    scene.begin(
        now,
        12,
        "Ines Marlow",
        "Ines Marlow",
        "person",
        "Mr and Mrs Marlow",
        "acrylic",
        54,
        "Head and shoulders, the blue jumper, warm light.",
    )
    lead = scene.photo(person.jpeg, "ines-garden.jpg", "lead", person.eyes, "written", "J. Marlow", "given")
    scene.photo(part_of(person.jpeg, 0.2, 0.6, 0.75, 0.4), "jumper.jpg", "helper", (), "client", consent="not needed")
    scene.at(-10)
    scene.frame(lead, 304.8, 406.4, "inch 12 × 16 in", 0.93, (0.46, 0.5))
    scene.at(-8)
    scene.squares(9, 0.42)


def _sorrel(scene: Scene, now: datetime) -> None:
    """The rabbit: colours taken, regions being drawn; one photographer still to be asked, waived with a reason."""
    rabbit = sitter_file("rabbit1")
    scene.begin(
        now,
        18,
        "Sorrel",
        "Sorrel",
        "rabbit",
        "D. Penhale",
        "acrylic",
        50,
        "Small and tender, for a child's room; both ears whole.",
    )
    lead = scene.photo(rabbit.jpeg, "sorrel-meadow.jpg", "lead", rabbit.eyes)
    scene.photo(part_of(rabbit.jpeg, 0.3, 0.05, 0.3, 0.4), "sorrel-ears.jpg", "helper", (), "unknown", "a neighbour")
    today = scene.clock.now.date()
    reason = "the neighbour is being asked; the ears can be painted from the lead"
    waive = Edit(DOORS_PART, "Waived Intake", lambda d: waive_door(d, "Intake", reason, today), keep="waived", door="Intake")
    scene.desk.do(scene.id, waive)
    scene.at(-14)
    scene.frame(lead, 400, 300, "metric 30 × 40 cm", 0.86, (0.53, 0.5))
    scene.at(-11)
    scene.squares(8, 1.0)
    scene.ground("ochre and gesso", 3)
    scene.wells(
        "rabbit1",
        (
            ("eye", (1028, 805), "burnt umber 10 : magenta 2 : phthalo green 1"),
            ("coat, middle", (560, 1000), "Naples 6 : burnt umber 1 : cadmium yellow ¼"),
            ("coat, light", (900, 1000), "Naples 12 : burnt umber 2½ : phthalo green ⅛"),
            ("ear, inside", (960, 300), ""),
            ("meadow", (1700, 900), ""),
        ),
    )


def _brack(scene: Scene, now: datetime) -> None:
    """The dog known from one small message picture: no readable eyes, promised too soon."""
    dusk = sitter_file("dog2")
    small = 340
    scene.begin(
        now,
        4,
        "Brack",
        "Brack",
        "dog",
        "the Tregear family",
        "acrylic",
        13,
        "A surprise for the grandfather; as large as it can be.",
    )
    ratio = small / 2000
    eyes = tuple(Eye(e.side, e.x * ratio, e.y * ratio, e.radius_px * ratio) for e in dusk.eyes)
    scene.edit(BRIEF, "It is a surprise", lambda b: replace(b, surprise=True, not_to_contact="the grandfather"))
    lead = scene.photo(message_copy(dusk.jpeg, small), "brack-message.jpg", "lead", eyes, "unknown")
    scene.at(-2)
    scene.frame(lead, 600, 400, "metric 40 × 60 cm", 0.9, (0.5, 0.45))
