"""Edits, undo and redo, over restarts; what happened outside is never undone."""

from dataclasses import replace
from datetime import date

import pytest

from tests.conftest import NOON
from yarrow_lane.commission.commission import pass_door
from yarrow_lane.desk.desk import STUDIO, Desk
from yarrow_lane.easel.clock import Happening
from yarrow_lane.intake.photos import add_photo, set_use
from yarrow_lane.measure.trouble import Trouble
from yarrow_lane.store.store import Store
from yarrow_lane.tone.three_values import set_limits


def test_undo_and_redo_over_a_restart(tmp_path, clock):
    store = Store(tmp_path / "s", date(2026, 3, 9))
    desk = Desk(store, clock)
    from yarrow_lane.intake.brief import new_brief

    cid = desk.start_commission(new_brief("Pip", "cat", "", "acrylic", NOON.date(), None))
    for dark in (20, 25, 30):
        desk.do_part(cid, f"Limit {dark}", "tone", lambda t, d=dark: set_limits(t, d, 70))
    desk.undo(cid)
    store.close()

    store = Store(tmp_path / "s", date(2026, 3, 10))
    desk = Desk(store, clock)
    assert desk.commission(cid).tone.dark_below == 25
    assert desk.undo_label(cid) == "Limit 25" and desk.redo_label(cid) == "Limit 30"
    assert desk.redo(cid).place == "Tone"
    assert desk.commission(cid).tone.dark_below == 30
    assert desk.redo(cid) is None
    while desk.undo(cid):
        pass
    assert desk.commission(cid).tone.dark_below == 35
    assert desk.undo(STUDIO).label == "Started Pip" and desk.commissions == ()
    desk.redo(STUDIO)
    assert [c.id for c in desk.commissions] == [cid]
    store.close()


def test_a_step_that_raises_changes_nothing(desk, commission_id):
    before = desk.commission(commission_id)
    with pytest.raises(Trouble):
        desk.do_part(commission_id, "bad", "tone", lambda t: set_limits(t, 90, 10))
    assert desk.commission(commission_id) == before
    assert desk.undo_label(commission_id) == ""
    assert not desk.do_part(commission_id, "same", "tone", lambda t: t)


def test_what_happened_is_never_undone(desk, commission_id):
    desk.do_part(commission_id, "ground", "tone", lambda t: replace(t, ground="white"))
    desk.happen(commission_id, Happening("clock started", NOON, "1:wash", "wash"))
    desk.undo(commission_id)
    assert desk.commission(commission_id).tone.ground == ""
    assert len(desk.commission(commission_id).log) == 1


def test_each_document_has_its_own_history(desk, commission_id):
    desk.do_studio("Named", lambda s: replace(s, name="Quay"))
    desk.do(commission_id, "Passed", "Intake", lambda c: pass_door(c, "Intake", "the ears will do", NOON.date()))
    assert desk.undo(STUDIO).label == "Named"
    assert desk.commission(commission_id).doors.reason("Intake") == "the ears will do"


def test_listeners_hear_what_and_where(desk, commission_id):
    heard = []
    desk.listen(heard.append)
    desk.do_part(commission_id, "ground", "tone", lambda t: replace(t, ground="white"))
    desk.undo(commission_id)
    assert [(c.kind, c.place, c.label) for c in heard] == [("do", "Tone", "ground"), ("undo", "Tone", "ground")]


def test_a_photograph_comes_from_its_file(desk, commission_id, cat_file):
    photo = desk.photo_from_file(cat_file, "cat.jpg")
    assert (photo.width_px, photo.height_px) == (451, 300)
    desk.do_part(commission_id, "in", "intake", lambda i: set_use(add_photo(i, photo), photo.id, "lead"))
    assert desk.store.pictures.read(photo.id, "cat.jpg") == cat_file.read_bytes()
    with pytest.raises(Trouble, match="no commission"):
        desk.commission("c9999")
