"""What to do next, what is left to wait, and what endangers a promise."""

from dataclasses import replace
from datetime import date, datetime, timedelta

import pytest

from tests.conftest import NOON
from tests.rooms.commission.making import LEAD, STUDIO, fresh, shut_up_to
from tests.rooms.intake.evidence import PLAIN, resolving
from yarrow_lane.calendar.dates import dates_of
from yarrow_lane.calendar.own_time import OwnTime, set_hours
from yarrow_lane.calendar.pace import Pace
from yarrow_lane.calendar.painted_days import PaintedDays
from yarrow_lane.calendar.plan import plan
from yarrow_lane.commission.commission import waive_door
from yarrow_lane.commission.standing import Outlook, outlook_of, room_standings, size_to_take, stand, state_words
from yarrow_lane.commission.studio import Studio, StudioTrouble, put_on_shelf, set_climate, take_off_shelf
from yarrow_lane.commission.today import todays_acts
from yarrow_lane.compose.rack import Rack, like
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.deliver.handover import Deliver, ListLine
from yarrow_lane.intake.photos import Eye, Intake
from yarrow_lane.lane.doors import DOORS
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, ProofAnswered, ProofSent
from yarrow_lane.lane.standing import act_detail, can_be_done
from yarrow_lane.measure.days import clock_text
from yarrow_lane.paint.drying import Climate
from yarrow_lane.transfer.record import mark_carried
from yarrow_lane.transfer.ways import Stint, Ways


def act_of(commission):
    return stand(commission, STUDIO, NOON).act


def outlook(commission, now: datetime = NOON) -> Outlook:
    standing = stand(commission, STUDIO, now)
    works = [standing.work] if standing.rooms else []
    whole = plan(works, now, STUDIO.time)
    return outlook_of(standing, whole, dates_of(works, whole, Pace({}), PaintedDays()), Pace({}))


@pytest.mark.parametrize(
    ("shut", "title"),
    [
        (None, "Take in the photographs"),
        ("Intake", "Take 40 × 50\u202fcm"),
        ("Compose", "Carry it over by tracing"),
        ("Transfer", "Lay the ground"),
        ("Tone", "Take a string of colours"),
        ("Palette", "Take the regions"),
        ("Layers", "Paint background, wash"),
        ("Easel", "Photograph the painting"),
        ("Check", "Sign it"),
        ("Deliver", None),
    ],
)
def test_the_next_act_belongs_to_the_first_open_door(shut, title):
    act = act_of(fresh() if shut is None else shut_up_to(shut))
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
    act = act_of(replace(shut_up_to("Check"), deliver=deliver))
    assert act.title == title
    assert act.not_before == (None if waits_hours is None else NOON + timedelta(hours=waits_hours))


def test_waits_that_cannot_be_painted_away():
    """Acrylic of normal films: three days to varnish, the coats, a day to pack; oil six months (handbook numbers)."""
    c = shut_up_to("Layers")
    painted = max(s.day for s in outlook(c).sittings if any(a.key.count(":") == 3 for a in s.acts))
    assert 6 <= (outlook(c).finish - painted).days <= 14, "two days of rest, three to varnish, a day to pack, two on the way"
    done = stand(shut_up_to("Deliver"), STUDIO, NOON)
    assert done.work.minutes == 0 == len(done.rooms)
    oil = outlook(replace(c, brief=replace(c.brief, medium="oil over acrylic")))
    assert (oil.finish - NOON.date()).days > 180 + 20, "between its passes the oil dries too"
    pastel = outlook(replace(c, brief=replace(c.brief, medium="soft pastel")))
    assert pastel.finish < outlook(c).finish


def test_a_canvas_without_regions_is_planned_as_fur():
    """Handbook: fur 0.8 to 0.9 h for 100 cm²; 24 x 30 cm are 720 cm²."""
    standing = stand(shut_up_to("Palette"), STUDIO, NOON)
    minutes = sum(t.minutes for room in standing.rooms for t in room if t.door == "Easel" and t.family == "fur")
    assert 0.4 * 720 / 100 < minutes / 60 < 720 / 100 * 0.95, "the sitter takes half of the canvas or more"


def test_a_waived_rooms_work_is_not_planned():
    c = shut_up_to("Compose")
    words = [t.words for room in stand(c, STUDIO, NOON).rooms for t in room]
    assert "carry the drawing over" in words
    waived = replace(c, doors=waive_door(c.doors, "Transfer", "drawn by eye", NOON.date()))
    assert "carry the drawing over" not in [t.words for room in stand(waived, STUDIO, NOON).rooms for t in room]


def test_worries_the_gravest_first():
    small = replace(LEAD, eyes=(Eye("left", 10, 10, 6),))
    c = replace(shut_up_to("Compose"), intake=Intake((small,)))
    assert outlook(c).worry == "needs an eye photograph: 12 px across the iris"
    late = replace(c, brief=replace(c.brief, promised=date(2026, 3, 10)))
    assert outlook(late).worry == "kept in none of 10" and outlook(late).late
    waived = replace(c, doors=waive_door(c.doors, "Intake", "all there is", NOON.date()))
    assert outlook(waived).worry == ""
    assert outlook(replace(c, intake=Intake((replace(LEAD, use="helper"),)))).worry == "no lead photograph"
    delivered = shut_up_to("Deliver")
    assert outlook(replace(delivered, brief=replace(delivered.brief, promised=date(2020, 1, 1)))).worry == ""


def test_commissions_share_the_painters_days():
    one, two = shut_up_to("Layers"), replace(shut_up_to("Layers"), id="c0002")
    two = replace(two, brief=replace(two.brief, promised=date(2026, 3, 20)))
    found = [stand(c, STUDIO, NOON) for c in (one, two)]
    both = plan([s.work for s in found], NOON, STUDIO.time)
    assert both.finish["c0002"] <= both.finish["c0001"], "the nearer promise is painted first"
    spent: dict[date, float] = {}
    for sitting in both.sittings:
        spent[sitting.day] = spent.get(sitting.day, 0) + sitting.minutes
    assert max(spent.values()) <= STUDIO.time.minutes_a_day


def test_words_for_where_a_commission_stands():
    words = [state_words(stand(c, STUDIO, NOON), NOON) for c in (fresh(), shut_up_to("Easel", 3), shut_up_to("Deliver"))]
    assert words[0] == "waiting for photographs" and words[1].startswith("painting, ") and words[2] == "delivered"


def test_a_standing_holds_until_the_minute_that_matters():
    """What is shown at any moment before `until` is what would be worked out then."""
    c = shut_up_to("Easel", 4)
    last = c.easel.finished[-1]
    wet = replace(c, easel=replace(c.easel, finished=(*c.easel.finished[:-1], replace(last, at=NOON - timedelta(minutes=3)))))
    standing = stand(wet, STUDIO, NOON)
    assert standing.until == NOON + timedelta(minutes=last.dry_minutes - 3) == standing.wet_until
    just_before = standing.until - timedelta(seconds=1)
    assert stand(wet, STUDIO, just_before) == standing
    assert stand(wet, STUDIO, standing.until).until is None
    assert state_words(standing, NOON).startswith("wet until") and state_words(standing, standing.until).startswith("painting")
    resting = replace(shut_up_to("Check"), deliver=Deliver(signed=NOON, rest_from=NOON))
    assert stand(resting, STUDIO, NOON).until == NOON + timedelta(hours=24)


def test_an_act_says_when_it_can_be_done():
    act = act_of(replace(shut_up_to("Check"), deliver=Deliver(signed=NOON, rest_from=NOON)))
    assert act_detail(act, NOON) == "rests until Tue 10\u202fMar, 12:00" and not can_be_done(act, NOON)
    assert act_detail(act, NOON + timedelta(days=2)) == "the rest is over" and can_be_done(act, NOON + timedelta(days=2))


def test_minutes_painted_today_are_known():
    log = (ClockStarted(NOON, "1", "fur"), ClockStopped(NOON + timedelta(minutes=42), "1", "fur"))
    standing = stand(replace(shut_up_to("Layers"), log=log), STUDIO, NOON)
    assert standing.painted == ((NOON.date(), 42.0),) and standing.painted_on(NOON.date()) == 42


def outlooks(now, *commissions, own=None):
    """All of them in one plan."""
    studio = replace(STUDIO, time=own or STUDIO.time)
    found = [stand(c, studio, now) for c in commissions]
    works = [s.work for s in found if s.rooms]
    whole = plan(works, now, studio.time)
    dates = dates_of(works, whole, Pace({}), PaintedDays())
    return [outlook_of(s, whole, dates, Pace({})) for s in found]


def test_today_is_told_by_the_clock_in_order_of_promises():
    early = NOON.replace(hour=7)
    soon = replace(fresh(date(2026, 3, 12)), id="c0002")
    acts = todays_acts(outlooks(early, fresh(), soon), OwnTime(), early)
    assert [a.commission_id for a in acts[:2]] == ["c0002", "c0001"]
    assert acts[0].at.hour == 7 and acts[1].at > acts[0].at and acts[1].at.minute % 5 == 0
    assert all(len(a.reasons) <= 2 for a in acts) and acts[0].reasons


def test_what_rests_is_not_for_today():
    resting = replace(shut_up_to("Check"), deliver=Deliver(signed=NOON, rest_from=NOON - timedelta(hours=20)))
    resting = replace(resting, brief=replace(resting.brief, promised=date(2026, 3, 10)))
    acts = todays_acts(outlooks(NOON, resting, replace(fresh(), id="c0002")), OwnTime(), NOON)
    assert "c0001" not in {a.commission_id for a in acts} and acts[0].commission_id == "c0002"


def test_today_follows_the_plan_and_ends_with_the_hours():
    easel = replace(shut_up_to("Layers"), id="c0003")
    found = outlooks(NOON, easel)
    planned = [a.key for s in found[0].sittings if s.day == NOON.date() for a in s.acts]
    acts = todays_acts(found, STUDIO.time, NOON)
    assert [a.key for a in acts] == planned[: len(acts)] and planned
    assert sum(a.minutes for a in acts) <= 120, "from noon to two"
    assert todays_acts(outlooks(NOON.replace(hour=20), easel), STUDIO.time, NOON.replace(hour=20)) == ()


def test_nothing_is_painted_before_the_client_has_answered():
    """A proof sent this noon; clients answer within three days as a rule, so that the first stroke is planned for Thursday."""
    c = shut_up_to("Compose")
    sent = replace(c, log=(ProofSent(NOON, 1, reference_key(c.compose)),))
    (before,), (after,) = outlooks(NOON, c), outlooks(NOON, sent)
    assert before.sittings[0].day == NOON.date()
    assert after.sittings[0].start >= (NOON + timedelta(days=3)).replace(tzinfo=None)
    answered = replace(sent, log=(*sent.log, ProofAnswered(NOON, 1, True)))
    assert outlooks(NOON, answered)[0].sittings[0].day == NOON.date()


def test_without_hours_only_small_acts_are_left():
    none = STUDIO.time
    for n in range(7):
        none = set_hours(none, n, ())
    found = outlooks(NOON, replace(shut_up_to("Layers"), id="c0003"), fresh(), own=none)
    assert found[0].finish is None and found[0].safe is None
    assert {a.commission_id for a in todays_acts(found, none, NOON)} == {"c0001"}


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


def test_before_a_way_is_chosen_the_quickest_that_does_is_planned_and_own_times_change_it():
    """Handbook paces: tracing 25 min and 1 min per 20 cm2; a painter who takes thrice as long is not told to trace."""
    c = shut_up_to("Compose")
    act = stand(c, STUDIO, NOON).act
    assert act.title == "Carry it over by tracing" and "sheet" in act.detail
    slow = replace(STUDIO, stints=tuple(Stint(way, 60.0, 400.0) for way in ("tracing", "same-size print") for _ in range(2)))
    other = stand(c, slow, NOON).act
    assert other.title == "Carry it over by scribble marks, then squares" and other.minutes > act.minutes
    chosen = replace(c, transfer=replace(c.transfer, ways=Ways("projector", "tracing")))
    first = stand(chosen, STUDIO, NOON).act
    assert first.title == "Trace the outline from the projector" and "then eyes, nose and mouth by tracing" in first.detail
    half = replace(chosen, transfer=mark_carried(chosen.transfer, ("outline",), "projector", 40.0))
    assert stand(half, STUDIO, NOON).act.title == "Trace eyes, nose and mouth"
    done = replace(half, transfer=mark_carried(half.transfer, ("details",), "tracing", 20.0))
    door = next(d for d in stand(done, STUDIO, NOON).doors if d.name == "Transfer")
    assert door.state == "shut" and "projector, then tracing" in door.fact


def test_the_size_to_take_heeds_own_sizes_the_unit_the_wall_and_what_resolves():
    c = shut_up_to("Intake")  # its lead has 2,400 x 3,000 px
    assert size_to_take(fresh(), STUDIO) is None and size_to_take(shut_up_to("Compose"), STUDIO) is None
    assert size_to_take(c, STUDIO).name == "metric 40 × 50 cm"
    assert size_to_take(c, replace(STUDIO, unit="in")).name == "inch 11 × 14 in"
    mine = replace(STUDIO, rack=like(like(Rack(), "iso A4", True), "metric 20 × 20 cm", True))
    assert size_to_take(c, mine).name == "iso A4", "of the painter's own the one of nearer proportion"
    told = replace(c, brief=replace(c.brief, wall_width_mm=1000.0))
    assert 500 <= size_to_take(told, STUDIO).width_mm <= 750, "half to three quarters of the wall"
    own_wall = replace(told, compose=replace(told.compose, wall=replace(told.compose.wall, free_width_mm=600.0)))
    assert 300 <= size_to_take(own_wall, STUDIO).width_mm <= 450, "what Compose was told counts before the brief"
    soft = replace(PLAIN, whole=resolving(0.3))
    assert size_to_take(c, STUDIO, {LEAD.id: soft}).width_mm < size_to_take(c, STUDIO, {LEAD.id: PLAIN}).width_mm
    act = room_standings(c, STUDIO, NOON)["Compose"].act
    assert act.title == "Take 40 × 50\u202fcm" and act.detail.startswith("proposed: the photograph")
