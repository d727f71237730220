"""The plan over all commissions as the desk keeps it: days that began, a better plan found behind, what touches and readings do."""

from dataclasses import replace
from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import fresh
from yarrow_lane.calendar.question import thorough
from yarrow_lane.calendar.sittings import Pin
from yarrow_lane.commission.studio import live_pins, press, with_pin, without_pin
from yarrow_lane.compose.composition import COMPOSE, set_size
from yarrow_lane.desk.air_kept import AIR_CHANGED, STAND_IN
from yarrow_lane.desk.desk import Desk
from yarrow_lane.easel.air import Reading
from yarrow_lane.easel.air_text import AirTrouble
from yarrow_lane.lane.part import Edit


@pytest.fixture
def three(desk):
    """Three sized commissions."""
    for n in range(3):
        cid = desk.start_commission(replace(fresh().brief, title=f"Pip {n}", promised=NOON.date() + timedelta(days=12 + 3 * n)))
        desk.do(cid, Edit(COMPOSE, "Chose the size", lambda c: set_size(c, 300, 400)))
    return desk


def test_how_a_day_began_is_kept_over_a_restart(three, clock):
    found = three.standings.plan(NOON)
    safe = {i: d.safe for i, d in three.standings.dates(NOON).items()}
    three.save_what_was_worked_out()
    again = Desk(three.store, clock)
    clock.now = NOON + timedelta(days=1)
    again.standings.plan(clock.now)
    kept = again.standings.planned.days.before(clock.now.date())
    today = {s.commission_id for s in found.sittings if s.day == NOON.date()}
    assert kept.day == NOON.date() and dict(kept.safe) == safe and set(kept.minutes) == today
    assert again.standings.painted_days(clock.now).days == 1, "nothing was painted: the day is lost"


def test_a_damaged_memory_is_none(three):
    three.remember("planned days", {"not": "a list"})
    three.remember("air", ["nonsense"])
    again = Desk(three.store, three.clock)
    assert again.standings.planned.days.before(NOON.date()) is None and again.air.air.readings == ()


def test_a_plan_found_behind_is_taken_only_for_the_plan_it_was_asked_about(three):
    planned = three.standings.planned
    asked = three.standings.plan(NOON)
    better = thorough(*planned.question(NOON, three.studio))
    assert better.late <= asked.late + 1
    worse = replace(asked, late=asked.late + 5000)
    assert not planned.answer(asked, worse)
    assert not planned.answer(replace(asked), replace(better, late=-9999)), "another plan"
    assert planned.answer(asked, replace(better, late=asked.late - 2000)) and three.standings.plan(NOON) is not asked


def test_the_plan_is_kept_until_something_changes(three):
    first = three.standings.plan(NOON)
    assert three.standings.plan(NOON) is first and three.standings.plan(NOON + timedelta(minutes=4)) is first
    three.do_studio("Pressed", lambda s: press(s, "c0003", 10))
    assert three.standings.plan(NOON) is not first
    three.undo("studio")
    pin = Pin("c0001", ("x",), (NOON + timedelta(days=1)).replace(tzinfo=None), 60)
    studio = with_pin(with_pin(three.studio, pin), replace(pin, minutes=90))
    assert [p.minutes for p in studio.pins] == [90] and without_pin(studio, "c0001", ("x",)).pins == ()
    assert live_pins(studio, NOON + timedelta(days=2)) == ()


def test_readings_are_kept_doubted_and_followed(three, clock):
    air = three.air
    air.take(Reading(NOON, 20, 50))
    assert three.studio.climate.celsius == 20
    for reading in (Reading(NOON, -40, 50), Reading(NOON + timedelta(minutes=5), 32, 50)):
        with pytest.raises(AirTrouble):
            air.take(reading)
    air.take(Reading(NOON + timedelta(minutes=50), 24, 40))
    assert (three.studio.climate.celsius, three.studio.climate.humidity) == (24, 40), "films dry much quicker now"
    three.do_studio("By", lambda s: replace(s, air_from=STAND_IN))
    clock.now = NOON + timedelta(hours=3)
    air.look(clock.now)
    assert len(air.air.readings) == 3
    assert Desk(three.store, clock).air.air == air.air
    labels = [v.label for v in three.store.database.versions.versions("studio")]
    assert AIR_CHANGED in labels
