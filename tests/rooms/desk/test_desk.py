"""Edits, undo and redo, over restarts; what happened outside is never undone."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from tests.conftest import NOON
from tests.doing import do_part, photo_from_file
from yarrow_lane.commission.commission import DOORS_PART, PARTS, waive_door
from yarrow_lane.commission.newcomer import Newcomer
from yarrow_lane.compose.composition import Compose, ComposeTrouble, Framed
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.desk.desk import STUDIO, Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.intake.photos import add_photo, set_use
from yarrow_lane.lane.happening import ClockStarted, LetterSent
from yarrow_lane.lane.part import Edit
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.store import Store
from yarrow_lane.tone.record import Tone, set_limits


def test_undo_and_redo_over_a_restart(tmp_path, clock):
    store = Store(tmp_path / "s", date(2026, 3, 9))
    desk = Desk(store, clock)
    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    for dark in (20, 25, 30):
        do_part(desk, cid, f"Limit {dark}", "tone", lambda t, d=dark: set_limits(t, (d, 70)))
    desk.undo(cid)
    store.close()

    store = Store(tmp_path / "s", date(2026, 3, 10))
    desk = Desk(store, clock)
    assert desk.commission(cid).tone.limits == (25, 70)
    assert desk.redo(cid).place == "Tone"
    assert desk.commission(cid).tone.limits == (30, 70)
    assert desk.redo(cid) is None
    while desk.undo(cid):
        pass
    assert desk.commission(cid).tone.limits == ()
    assert desk.undo(STUDIO).label == "Started Pip" and desk.studio.on_shelf == ()
    desk.redo(STUDIO)
    assert desk.studio.on_shelf == (cid,)
    store.close()


def test_a_step_that_raises_changes_nothing(desk, commission_id):
    before = desk.commission(commission_id)
    with pytest.raises(Trouble):
        do_part(desk, commission_id, "bad", "tone", lambda t: set_limits(t, (90, 10)))
    assert desk.commission(commission_id) == before
    assert desk.undo(commission_id) is None
    assert not do_part(desk, commission_id, "same", "tone", lambda t: t)


def test_what_happened_is_never_undone(desk, commission_id):
    do_part(desk, commission_id, "ground", "tone", lambda t: replace(t, ground="white"))
    desk.happen(commission_id, ClockStarted(NOON, "1:wash", "wash"))
    desk.undo(commission_id)
    assert desk.commission(commission_id).tone.ground == ""
    assert len(desk.commission(commission_id).log) == 1


def test_each_document_has_its_own_history(desk, commission_id):
    desk.do_studio("Named", lambda s: replace(s, name="Quay"))
    desk.do(commission_id, Edit(DOORS_PART, "Waived", lambda d: waive_door(d, "Intake", "the ears will do", NOON.date())))
    assert desk.undo(STUDIO).label == "Named"
    assert desk.commission(commission_id).doors.reason("Intake") == "the ears will do"


def test_listeners_hear_what_and_where(desk, commission_id):
    heard = []
    desk.listen(heard.append)
    do_part(desk, commission_id, "ground", "tone", lambda t: replace(t, ground="white"))
    desk.undo(commission_id)
    assert [(c.kind, c.place, c.label) for c in heard] == [("do", "Tone", "ground"), ("undo", "Tone", "ground")]


def test_a_photograph_comes_from_its_file(desk, commission_id, cat_file):
    photo = photo_from_file(desk, cat_file, "cat.jpg")
    assert (photo.width_px, photo.height_px) == (451, 300)
    do_part(desk, commission_id, "in", "intake", lambda i: set_use(add_photo(i, photo), photo.id, "lead"))
    assert desk.store.photos.read(photo.id, "cat.jpg") == cat_file.read_bytes()
    with pytest.raises(Trouble, match="no commission"):
        desk.commission("c9999")


def test_undo_gives_back_the_very_same_parts(desk, commission_id):
    """Two megabytes of regions that did not change are not read again: whatever is kept by identity stays kept."""
    before = desk.commission(commission_id)
    do_part(desk, commission_id, "Ground", "tone", lambda t: Tone(ground="umber"))
    changed = desk.commission(commission_id)
    desk.undo(commission_id)
    undone = desk.commission(commission_id)
    assert all(getattr(undone, p.name) is getattr(before, p.name) for p in PARTS if p.name != "tone") and undone == before
    desk.redo(commission_id)
    assert desk.commission(commission_id).tone is changed.tone


def test_a_drag_is_one_step_back(desk, clock, commission_id):
    for n in range(20):
        clock.now += timedelta(milliseconds=50)
        do_part(desk, commission_id, "Squint", "tone", lambda t, n=n: Tone(squint_mm=float(n)), join="squint")
    assert desk.commission(commission_id).tone.squint_mm == 19
    desk.undo(commission_id)
    assert desk.commission(commission_id).tone == Tone()


def test_what_was_sent_is_never_joined_into(desk, clock, commission_id):
    do_part(desk, commission_id, "Squint", "tone", lambda t: Tone(squint_mm=1.0), join="squint")
    sent = desk.commission(commission_id)
    desk.happen(commission_id, LetterSent(clock(), 1, "letter"))
    do_part(desk, commission_id, "Squint", "tone", lambda t: Tone(squint_mm=2.0), join="squint")
    desk.undo(commission_id)
    assert desk.commission(commission_id).tone == sent.tone


def test_a_composition_has_the_same_name_after_a_restart(tmp_path, clock):
    """Also with whole numbers where lengths belong: no room says that it rests on another one."""
    store = Store(tmp_path / "s", date(2026, 3, 9))
    desk = Desk(store, clock)
    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    framed = Compose(200, 250, "", Framed("a" * 64, Rect(0, 0, 800, 1000)))
    do_part(desk, cid, "Laid a crop", "compose", lambda _: framed)
    name = reference_key(desk.commission(cid).compose)
    store.close()
    store = Store(tmp_path / "s", date(2026, 3, 9))
    again = Desk(store, clock)
    assert reference_key(again.commission(cid).compose) == name
    store.close()


def test_what_was_asked_about_is_on_record_from_the_first_step(tmp_path, clock):
    store = Store(tmp_path / "s", date(2026, 3, 9))
    desk = Desk(store, clock)
    brief = new_brief("Moss and Fennel", "dog", "T.", "oil", NOON.date(), None)
    cid = desk.start_commission(brief, Newcomer(400.0, 500.0, 2, "cat", painterly=True))
    plain = desk.start_commission(brief)
    begun = desk.commission(cid)
    assert [(s.name, s.kind) for s in begun.brief.sitters] == [("Moss", "dog"), ("Fennel", "dog")], (
        "the form says what they are"
    )
    assert not desk.commission(plain).compose.sized and len(desk.commission(plain).brief.sitters) == 1
    store.close()
    store = Store(tmp_path / "s", date(2026, 3, 9))
    assert Desk(store, clock).commission(cid) == begun and begun.compose.width_mm == 400.0
    store.close()


def test_a_piece_of_no_size_starts_nothing(desk):
    brief = new_brief("Moss", "dog", "T.", "oil", NOON.date(), None)
    with pytest.raises(ComposeTrouble):
        desk.start_commission(brief, Newcomer(width_mm=0.0))
    assert desk.studio.on_shelf == ()
