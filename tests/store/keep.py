"""Keep a studio of today's program as an old file: `python -m tests.store.keep NAME` writes it under `old_files/NAME`.

Done once at each change of how things are stored, before it; what was kept is never made again. Every part has values that
are not its first ones, and every kind of happening has happened.
"""

import json
import lzma
import shutil
import sys
import tempfile
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

import numpy as np
import skimage.data

from tests.conftest import jpeg_of
from tests.doing import do_part, photo_from_file
from yarrow_lane.calendar.own_time import OwnTime, evenly
from yarrow_lane.canvas_photo.taken import Taken
from yarrow_lane.check.record import MeantSo, ToMend, accepted, mend, note_seen, refuse, with_photo
from yarrow_lane.commission.commission import waive_door
from yarrow_lane.commission.recompose import recompose
from yarrow_lane.compose.composition import frame, set_size
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.deliver.handover import add_line, begin_rest, mark_line, sign
from yarrow_lane.demo.build import build_demo
from yarrow_lane.demo.scene import SetClock
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.session import choose_pass, finish_pass
from yarrow_lane.intake.brief import add_sitter, new_brief
from yarrow_lane.intake.landmarks import Landmark
from yarrow_lane.intake.photos import Eye, add_photos, mark_eye, mark_landmark, nudge_eye, set_rights, set_use, take_away
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, HoursCorrected, LetterSent, Photographed, Printed
from yarrow_lane.layers.regions import School, add_region, choose_school
from yarrow_lane.layers.sequence import sequence
from yarrow_lane.measure.plane import Rect
from yarrow_lane.paint.drying import Climate
from yarrow_lane.palette.wells import add_well, empty_well
from yarrow_lane.store.store import Store
from yarrow_lane.transfer.equipment import Equipment
from yarrow_lane.transfer.film import Film
from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import drawn
from yarrow_lane.transfer.projector import Projector
from yarrow_lane.transfer.proof.photo import DrawingPhoto
from yarrow_lane.transfer.record import mark_carried, mark_drawn, set_count, set_lines, set_paper, set_quartered, set_ways
from yarrow_lane.transfer.sheets import set_right
from yarrow_lane.transfer.ways import Stint, Ways

DAY = datetime(2026, 11, 26, 9, 40, tzinfo=UTC)
OLD_FILES = Path(__file__).parent / "old_files"
SIZE = (451.0, 300.0)


def paint(desk: Desk, clock: SetClock) -> str:
    """One commission with something in every part."""
    brief = new_brief("Pip", "cat", "Ł. Żółw", "oil over acrylic", DAY.date(), date(2027, 3, 1), "“soft” – édges")
    cid = desk.start_commission(brief)

    def do(label, part, step, join=""):
        clock.now += timedelta(seconds=7)
        do_part(desk, cid, label, part, step, join)

    cat = skimage.data.cat()
    p, q, away = (
        photo_from_file(desk, jpeg_of(np.ascontiguousarray(a)), name)
        for a, name in ((cat, "cat.jpg"), (cat[::-1], "upside.jpg"), (cat[:, ::-1], "mirrored.jpg"))
    )
    do("Took in 3 photographs", "intake", lambda i: add_photos(i, (p, replace(q, answers=1), away)))
    do("Took one away", "intake", lambda i: take_away(i, away.id))
    do("Marked the left eye", "intake", lambda i: mark_eye(i, p.id, Eye("left", 171, 116, 32)))
    for _ in range(5):
        do("Nudged the left eye", "intake", lambda i: nudge_eye(i, p.id, "left", 1, 0), "nudge")
    desk.undo(cid)
    do("Marked the crown", "intake", lambda i: mark_landmark(i, p.id, Landmark("crown", 230, 20)))
    do("Use: lead", "intake", lambda i: set_use(i, p.id, "lead"))
    do("Rights", "intake", lambda i: set_rights(i, p.id, Rights("licence", "Zoë", "CC0, by the maker", "asked")))
    do("One more sitter", "brief", lambda b: add_sitter(b, "Moss", "person"))
    wall = {"wall_colour": "red", "wall_width_mm": 2100.0, "wall_light": "north"}
    do("Brief", "brief", lambda b: replace(b, surprise=True, not_to_contact="the aunt", budget="500", style="close", **wall))
    desk.happen(cid, LetterSent(clock(), 1, "Dear client,\nmore please", ("Pip: too small",)), "Intake")
    do("Waived Intake", "doors", lambda d: waive_door(d, "Intake", "the aunt may not know", DAY.date()))
    do("Size", "compose", lambda c: set_size(c, 240, 300, "metric 24 × 30 cm"))
    do("Crop", "compose", lambda c: frame(c, p.id, SIZE, 200, (230, 150)))
    reference = reference_key(desk.commission(cid).compose)
    do("Squares", "transfer", lambda t: replace(set_paper(set_count(t, 6), "Letter"), made_from=reference))
    do("Drew C3", "transfer", lambda t: mark_drawn(t, 2, 2, True))
    lines = drawn(Choice(5.0, (), ((12.0, 30.0),)), [(10.0, 10.0), (40.0, 14.0)])
    do("Lines", "transfer", lambda t: set_lines(t, lines, reference))
    marks = Taken("f" * 64, "marks.jpg", (900, 1200), clock(), ((90.0, 120.0), (800.0, 130.0), (790.0, 1100.0), (95.0, 1090.0)))
    do("Ways", "transfer", lambda t: mark_carried(set_ways(t, Ways("projector", "squares")), ("outline",), "projector", 40.0))
    do("Marks", "transfer", lambda t: replace(t, marked_surface=(marks,), sketch=replace(marks, name="sketch.jpg")))
    do("Film", "transfer", lambda t: replace(t, film=Film((1,), (2,), -1.5, 3.0)))
    do("Quartered", "transfer", lambda t: set_quartered(t, [(1, 1), (2, 1)]))
    corners = ((9.5, 8.0), (1100.0, 12.0), (1090.0, 1500.0), (20.0, 1490.0))
    photo = DrawingPhoto(
        "b" * 64, "drawing.jpg", (1200, 1600), DAY, corners, (("chin", (99.0, 120.5)),), reference, (("chin", 2.5),)
    )
    do("Measured", "transfer", lambda t: replace(t, photos=(photo,), minutes=(1.5, 2.0, 2.5), marked=DAY))
    desk.happen(cid, Printed(clock(), "the squares", reference), "Transfer")
    do("Ground", "tone", lambda t: replace(t, ground="dark umber", ground_coats=3, squint_mm=5.5, limits=(30.0, 65.0)))
    for n in range(3):
        do("A colour", "palette", lambda x, n=n: add_well(x, (50.0 + n, 60.0), 4.0, (120, 90, 60), (41.5, 9.25, 22.125)))
    do("Emptied", "palette", lambda x: empty_well(x, 3))
    canvas = Rect(0, 0, 240, 300)
    do("Drew", "layers", lambda x: add_region(x, "background", canvas.corners, canvas))
    coat = ((40.0, 60.0), (200.0, 60.5), (200.0, 280.0), (40.0, 280.0))
    do("Drew", "layers", lambda x: replace(add_region(x, "fur", coat, canvas, "coat"), made_from=reference))
    do("School", "layers", lambda x: choose_school(x, School("last", "light first", "last")))
    c = desk.commission(cid)
    first, *_, last = sequence(c.layers, c.brief.medium, desk.studio.climate)
    desk.happen(cid, ClockStarted(clock(), first.id, first.title))
    desk.happen(cid, ClockStopped(clock() + timedelta(minutes=42), first.id, first.title))
    desk.happen(cid, HoursCorrected(clock() + timedelta(minutes=50), first.id, first.title, -7.5, "the telephone rang"))
    do("Finished", "easel", lambda e: choose_pass(replace(finish_pass(e, first, clock()), made_from=reference), last.id))
    painting = desk.store.photos.keep(jpeg_of(cat[::2]))
    desk.happen(cid, Photographed(clock(), painting, "easel.jpg"), "Check")
    desk.happen(cid, Photographed(clock(), painting, "marks.jpg", "marks", corners, 0.012), "Transfer")
    taken = Taken(painting, "easel.jpg", (451, 150), clock(), ((10.0, 8.0), (440.0, 9.0), (441.0, 140.0), (9.0, 141.0)))
    do("The painting", "check", lambda x: note_seen(accepted(with_photo(x, taken)), "the nose"))
    do("Again", "check", lambda x: with_photo(x, replace(taken, name="lamp moved.jpg"), True))
    do("Meant so", "check", lambda x: refuse(x, MeantSo((("value", 1),), (30.0, 40.0), 22.0)))
    do("To mend", "check", lambda x: mend(x, ToMend("Nose: too dark", (60.0, 70.0), (("value", -1),), 18.0, painting)))
    desk.do_studio("Watches", lambda s: replace(s, watched="/home/painter/pictures"))
    do("Signed", "deliver", lambda d: mark_line(add_line(begin_rest(sign(d, clock()), clock()), "soften the collar"), 0, True))
    desk.change(
        cid, "Another crop", "Compose", lambda c: recompose(c, frame(c.compose, p.id, SIZE, 190, (231, 151))).commission
    )
    return cid


def expected(desk: Desk, cid: str) -> dict:
    """Everything in the file, as plain values."""
    database, documents = desk.store.database, {}
    for document in database.versions.heads():
        head = database.head(document)
        versions = {
            v.number: {"parent": v.parent, "at": v.at.isoformat(), "label": v.label, "place": v.place}
            for v in database.versions.versions(document)
        }
        parts = {name: json.loads(text) for name, text in database.stored(document, head).items()}
        log = [json.loads(t) for t in database.happenings(document)]
        documents[document] = {"head": head, "versions": versions, "parts": parts, "happenings": log}
    return {"documents": documents, "memory": {"place": [cid, "Layers"]}}


def keep(name: str) -> None:
    """Write the old file; raises `FileExistsError` when there is one of that name."""
    place = OLD_FILES / name
    place.mkdir()
    with tempfile.TemporaryDirectory() as work:
        folder, clock = Path(work) / "studio", SetClock(DAY)
        build_demo(folder, DAY)
        store = Store(folder, DAY.date())
        demo = set(store.photos.names())
        desk = Desk(store, clock)
        cid = paint(desk, clock)
        desk.put_away(desk.start_commission(new_brief("Quiet", "bird", "", "soft pastel", DAY.date(), None)))
        time, air = OwnTime(evenly((1, 2, 5), 330.0, 8)), Climate(17.5, 62.0)
        equipment = Equipment(Projector(1.2, 1280, 800, 350.0, 500.0, True), 45.0, set_right(99.3, 100.2))
        desk.do_studio("Equipment", lambda s: replace(s, equipment=equipment, stints=(Stint("projector", 60.0, 45.0),)))
        desk.do_studio("Settings", lambda s: replace(s, unit="in", text_percent=125, time=time, climate=air))
        desk.remember("place", [cid, "Layers"])
        for _ in desk.tidy():
            pass
        told = json.dumps(expected(desk, cid), ensure_ascii=False, sort_keys=True)
        store.database._sql.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        (place / "expected.json.xz").write_bytes(lzma.compress(told.encode()))
        (place / "studio.db.xz").write_bytes(lzma.compress((folder / "studio.db").read_bytes()))
        for photo in set(store.photos.names()) - demo:
            path = place / store.photos.path(photo).relative_to(folder)
            path.parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(store.photos.path(photo), path)
        store.close()


if __name__ == "__main__":
    keep(sys.argv[1])
