"""What was measured is kept beside the commissions: shelf, rooms and letter say the same, also after a restart."""

from dataclasses import replace

import pytest

from tests.conftest import NOON
from tests.doing import do_part
from tests.rooms.intake.test_ranking import PLAIN, resolving
from yarrow_lane.compose.composition import frame, set_size
from yarrow_lane.compose.detail import carried_px_per_mm
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.photos import INTAKE, Eye, Intake, Photo, change_photo
from yarrow_lane.intake.request import what_is_missing
from yarrow_lane.intake.rights import Rights
from yarrow_lane.lane.part import Edit
from yarrow_lane.store.store import Store

EYES = (Eye("left", 900, 900, 40),)
PHOTO = Photo("ab" * 32, "large.jpg", 3000, 2400, eyes=EYES, use="lead", rights=Rights("client"))
SOFT = replace(PLAIN, whole=resolving(0.2), eye=resolving(0.2), enlarged=True)


@pytest.fixture
def framed(desk, commission_id):
    desk.do(commission_id, Edit(INTAKE, "in", lambda i: Intake((PHOTO,))))
    do_part(desk, commission_id, "size", "compose", lambda c: set_size(c, 300, 240))
    do_part(desk, commission_id, "crop", "compose", lambda c: frame(c, PHOTO.id, (3000, 2400), 3000, (1500, 1200)))
    return commission_id


def worries(desk, commission_id) -> str:
    return desk.standings.of(commission_id, NOON).worry


def test_one_measure_reaches_shelf_doors_compose_and_letter(desk, framed):
    c = desk.commission(framed)
    assert worries(desk, framed) == "" and carried_px_per_mm(c.compose, PHOTO, desk.evidence.of(PHOTO)) == pytest.approx(10.0)
    desk.measured((PHOTO.id, EYES), SOFT)
    known = desk.evidence.of_all(c.intake.photos)
    assert worries(desk, framed) == "needs an eye photograph: 80 px across the iris, detail of 16"
    assert carried_px_per_mm(c.compose, PHOTO, known[PHOTO.id]) == pytest.approx(2.0)
    ((_, why),) = what_is_missing(c.intake, c.brief, known)
    assert "enlarged and its eyes show too little" in why


def test_it_is_there_after_a_restart_and_for_these_marks_alone(desk, framed, clock):
    desk.measured((PHOTO.id, EYES), SOFT)
    said = worries(desk, framed)
    for _ in desk.tidy():
        pass
    folder = desk.store.folder
    desk.store.close()
    store = Store(folder, NOON.date())
    again = Desk(store, clock)
    assert again.evidence.of(PHOTO) == SOFT and worries(again, framed) == said
    moved = replace(PHOTO, eyes=(Eye("left", 901, 900, 40),))
    assert again.evidence.of(moved) is None
    again.do(framed, Edit(INTAKE, "nudged", lambda i: change_photo(i, moved)))
    assert worries(again, framed) == "", "with other marks it is still to be measured"
    store.close()


def test_a_damaged_measure_is_made_anew(desk, framed):
    desk.measured((PHOTO.id, EYES), SOFT)
    assert desk.evidence.save() and not desk.evidence.save(), "once"
    desk.store.database._sql.execute("UPDATE measure SET json = '{}'")
    assert Desk(desk.store, desk.clock).evidence.of(PHOTO) is None


def test_a_crop_that_carries_too_little_is_a_worry(desk, framed):
    desk.measured((PHOTO.id, EYES), replace(SOFT, eye=resolving(1.0)))
    assert worries(desk, framed) == "too little detail for this size: 2.0 px per mm"
