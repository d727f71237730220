"""How each commission stands is kept until something it rests on changes, over restarts too; and never told from an old state."""

from dataclasses import replace
from datetime import timedelta

import pytest

from tests.conftest import NOON
from tests.doing import do_part
from yarrow_lane.commission.standing import stand
from yarrow_lane.desk import standings as standings_module
from yarrow_lane.desk.desk import Desk
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.paint.drying import Climate
from yarrow_lane.tone.record import Tone


@pytest.fixture
def asked(monkeypatch) -> list[str]:
    """The commissions whose standing was worked out."""
    found: list[str] = []

    def counted(c, studio, now, *more):
        found.append(c.id)
        return stand(c, studio, now, *more)

    monkeypatch.setattr(standings_module, "stand", counted)
    return found


@pytest.fixture
def three(desk) -> Desk:
    for name in ("Pip", "Moss", "Tim"):
        desk.start_commission(new_brief(name, "cat", "", "acrylic", NOON.date(), None))
    return desk


def test_an_edit_works_out_one(three, asked):
    three.standings.outlooks(NOON)
    assert sorted(asked) == ["c0001", "c0002", "c0003"]
    three.standings.outlooks(NOON + timedelta(hours=1))
    do_part(three, "c0002", "Ground", "tone", lambda t: Tone(ground="umber"))
    found = three.standings.outlooks(NOON)
    assert asked[3:] == ["c0002"]
    assert found[1].standing == stand(three.commission("c0002"), three.studio, NOON)


def test_what_happens_undo_and_the_air_of_the_studio_count(three, asked):
    three.standings.all(NOON)
    three.happen("c0001", ClockStarted(NOON, "1", "wash"))
    three.happen("c0001", ClockStopped(NOON + timedelta(minutes=30), "1", "wash"))
    assert sum(s.painted_on(NOON.date()) for s in three.standings.all(NOON)) == 30 and asked[3:] == ["c0001"]
    do_part(three, "c0001", "Ground", "tone", lambda t: Tone(ground="umber"))
    three.standings.all(NOON)
    three.undo("c0001")
    assert three.standings.of("c0001", NOON) == stand(three.commission("c0001"), three.studio, NOON)
    assert asked[4:] == ["c0001", "c0001"]
    three.do_studio("Air", lambda s: replace(s, climate=Climate(12, 70)))
    three.standings.all(NOON)
    assert len(asked) == 9, "drying rests on the air: all are worked out anew"
    three.do_studio("Evening", lambda s: replace(s, evening=True))
    three.standings.all(NOON)
    assert len(asked) == 9, "the colours of the window change nothing"


def test_they_are_kept_over_a_restart(three, clock, asked):
    before = three.standings.all(NOON)
    for _ in three.tidy():
        pass
    again = Desk(three.store, clock)
    assert again.standings.all(NOON) == before and len(asked) == 3
    do_part(again, "c0003", "Ground", "tone", lambda t: Tone(ground="umber"))
    third = Desk(three.store, clock)
    assert third.standings.all(NOON) == tuple(stand(third.commission(i), third.studio, NOON) for i in third.studio.on_shelf)
    assert asked[3:] == ["c0003"]


def test_another_way_of_working_them_out_forgets_the_kept_ones(three, clock, asked, monkeypatch):
    three.standings.all(NOON)
    for _ in three.tidy():
        pass
    monkeypatch.setattr(standings_module, "VERSION", standings_module.VERSION + 1)
    Desk(three.store, clock).standings.all(NOON)
    assert len(asked) == 6


def test_the_plan_is_made_once_for_the_same_tasks(three):
    first = three.standings.plan(NOON)
    assert three.standings.plan(NOON + timedelta(minutes=5)) is first
    do_part(three, "c0001", "Note", "brief", lambda b: replace(b, client="Another"))
    assert three.standings.plan(NOON) is first, "a name moves no sitting"
    do_part(three, "c0001", "Promise", "brief", lambda b: replace(b, promised=NOON.date() + timedelta(days=9)))
    assert three.standings.plan(NOON) is not first
