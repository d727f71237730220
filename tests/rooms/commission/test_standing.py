"""What to do next, what is left to wait, and what endangers a promise."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import LEAD, STUDIO, fresh, shut_up_to
from yarrow_lane.calendar.sittings import Week
from yarrow_lane.commission.commission import pass_door
from yarrow_lane.commission.doors import DOORS, thickest_film
from yarrow_lane.commission.standing import clock_text, next_act, standings, work_left, worry_of
from yarrow_lane.commission.studio import Studio, StudioTrouble, put_on_shelf, set_climate, take_off_shelf
from yarrow_lane.commission.today import todays_acts
from yarrow_lane.deliver.handover import Deliver, ListLine
from yarrow_lane.intake.photos import Eye, Intake
from yarrow_lane.layers.drying import Climate


@pytest.mark.parametrize(
    ("shut", "title"),
    [
        (None, "Take in the photographs"),
        ("Intake", "Choose the size"),
        ("Compose", "Choose the squares"),
        ("Transfer", "Lay the ground"),
        ("Tone", "Take the colours from the crop"),
        ("Palette", "Draw the regions"),
        ("Layers", "Paint background, wash"),
        ("Easel", "Photograph the painting"),
        ("Check", "Sign it"),
        ("Deliver", None),
    ],
)
def test_the_next_act_belongs_to_the_first_open_door(shut, title):
    act = next_act(fresh() if shut is None else shut_up_to(shut), STUDIO, NOON)
    assert (act.title if act else None) == title
    if act is not None and shut is not None:
        assert act.door == DOORS[DOORS.index(shut) + 1]


@pytest.mark.parametrize(
    ("deliver", "title", "waits_hours"),
    [
        (Deliver(signed=NOON), "Turn it to the wall", None),
        (Deliver(signed=NOON, rest_from=NOON - timedelta(hours=4)), "Look with fresh eyes", 20),
        (
            Deliver(signed=NOON, rest_from=NOON, looked=NOON, last_list=(ListLine("ear"), ListLine("nose", True))),
            "Last sitting",
            None,
        ),
        (Deliver(signed=NOON, rest_from=NOON, looked=NOON, coats=(NOON - timedelta(hours=1),)), "Varnish, a thin coat", 2),
        (Deliver(signed=NOON, rest_from=NOON, looked=NOON, coats=(NOON, NOON)), "Pack it", 24),
        (Deliver(signed=NOON, rest_from=NOON, looked=NOON, coats=(NOON, NOON), packed=NOON), "Hand it over", None),
    ],
)
def test_the_way_out_waits_as_long_as_it_must(deliver, title, waits_hours):
    act = next_act(replace(shut_up_to("Check"), deliver=deliver), STUDIO, NOON)
    assert act.title == title
    assert act.not_before == (None if waits_hours is None else NOON + timedelta(hours=waits_hours))


def test_waits_that_cannot_be_painted_away():
    """A signed acrylic of normal films: rest 1 day within the 3 days to varnish, then 1 to pack (handbook numbers)."""
    c = shut_up_to("Layers")
    work = work_left(c, STUDIO, NOON)
    days = {"normal": 3.0, "thick": 14.0}[thickest_film(c, STUDIO)]
    assert work.minutes_left > 0 and work.wait_days == pytest.approx(days + 1)
    done = shut_up_to("Deliver")
    assert work_left(done, STUDIO, NOON).minutes_left == 0 == work_left(done, STUDIO, NOON).wait_days
    packed = replace(done, deliver=replace(done.deliver, delivered=None))
    assert work_left(packed, STUDIO, NOON).wait_days == 0
    oil = replace(c, brief=replace(c.brief, medium="oil over acrylic"))
    assert work_left(oil, STUDIO, NOON).wait_days > 180
    pastel = replace(c, brief=replace(c.brief, medium="soft pastel"))
    assert work_left(pastel, STUDIO, NOON).wait_days == pytest.approx(1.0)


def test_a_canvas_without_regions_is_guessed_as_fur():
    """Handbook: fur 0.8 to 0.9 h for 100 cm²; 24 x 30 cm are 720 cm²."""
    hours = work_left(shut_up_to("Compose"), STUDIO, NOON).minutes_left / 60
    assert 720 / 100 * 0.75 < hours < 720 / 100 * 0.95
    assert work_left(fresh(), STUDIO, NOON).minutes_left == 0


def test_worries_the_gravest_first():
    small = replace(LEAD, eyes=(Eye("left", 10, 10, 6),))
    c = replace(shut_up_to("Compose"), intake=Intake((small,)))
    assert worry_of(c, STUDIO, date(2026, 4, 12), NOON) == "late by 2 days"
    assert worry_of(c, STUDIO, date(2026, 4, 1), NOON) == "needs an eye photograph: 12 px across the iris"
    assert worry_of(pass_door(c, "Intake", "all there is", NOON.date()), STUDIO, date(2026, 4, 1), NOON) == ""
    helpers = replace(c, intake=Intake((replace(LEAD, use="helper"),)))
    assert worry_of(helpers, STUDIO, date(2026, 4, 1), NOON) == "no lead photograph"
    assert worry_of(shut_up_to("Deliver"), STUDIO, date(2027, 1, 1), NOON) == ""


def test_commissions_share_the_painters_days():
    one, two = shut_up_to("Layers"), replace(shut_up_to("Layers"), id="c0002")
    two = replace(two, brief=replace(two.brief, promised=date(2026, 3, 20)))
    found = standings((one, two), STUDIO, NOON)
    assert found[1].finish <= found[0].finish, "the nearer promise is painted first"
    assert found[1].days_in_hand is not None and found[0].worry == ""
    spent: dict[date, float] = {}
    for standing in found:
        for sitting in standing.sittings:
            spent[sitting.day] = spent.get(sitting.day, 0) + sitting.minutes
    assert max(spent.values()) <= STUDIO.week.minutes_a_day + 1e-6


def test_words_for_where_a_commission_stands():
    words = [s.words for s in standings((fresh(), shut_up_to("Easel", 3), shut_up_to("Deliver")), STUDIO, NOON)]
    assert words[0] == "waiting for photographs" and words[1].startswith("painting, ") and words[2] == "delivered"


def test_today_is_told_by_the_clock_in_order_of_promises():
    early = NOON.replace(hour=7)
    soon = replace(fresh(date(2026, 3, 12)), id="c0002")
    acts = todays_acts(standings((fresh(), soon), STUDIO, early), Week(), early)
    assert [a.commission_id for a in acts] == ["c0002", "c0001"]
    assert acts[0].at.hour == 10 and acts[1].at > acts[0].at and acts[1].at.minute % 5 == 0


def test_what_is_wet_is_put_off_until_it_is_dry_and_others_go_first():
    resting = replace(shut_up_to("Check"), deliver=Deliver(signed=NOON, rest_from=NOON - timedelta(hours=20)))
    resting = replace(resting, brief=replace(resting.brief, promised=date(2026, 3, 10)))
    acts = todays_acts(standings((resting, replace(fresh(), id="c0002")), STUDIO, NOON), Week(), NOON)
    assert [a.commission_id for a in acts] == ["c0002", "c0001"]
    assert acts[1].at >= NOON + timedelta(hours=4)


def test_clock_words():
    assert clock_text(NOON, NOON) == "12:00"
    assert clock_text(NOON + timedelta(days=2), NOON) == "Wed 11\u202fMar, 12:00"


def test_the_studios_shelf_and_air():
    studio = put_on_shelf(put_on_shelf(Studio(), "a"), "b")
    assert take_off_shelf(studio, "a").on_shelf == ("b",)
    assert set_climate(studio, Climate(24, 40)).climate == Climate(24, 40)
    for air in (Climate(60, 50), Climate(20, 99)):
        with pytest.raises(StudioTrouble):
            set_climate(studio, air)
