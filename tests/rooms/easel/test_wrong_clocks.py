"""A machine's clock that was wrong: what it left on record is kept, marked, asked about, and never silently in a sum."""

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import icalendar
import pytest

from tests.conftest import NOON
from yarrow_lane.calendar.own_time import OwnTime
from yarrow_lane.calendar.plan import plan
from yarrow_lane.commission.commission import Commission
from yarrow_lane.commission.standing import stand
from yarrow_lane.commission.studio import Studio
from yarrow_lane.deliver.handover import Deliver, brought_to, lies_ahead, next_coat_from, pack_from, rest_ends, sign
from yarrow_lane.documents.calendar_file import calendar_file
from yarrow_lane.documents.time_log import time_log
from yarrow_lane.easel.clock import doubts, logged_words, minutes_logged, time_entries
from yarrow_lane.easel.session import Easel, FinishedPass, dry_at, finished_ahead, readiness, wet_until
from yarrow_lane.easel.session import brought_to as easel_brought_to
from yarrow_lane.intake.brief import new_brief
from yarrow_lane.lane.happening import ClockStarted, ClockStopped, HoursCorrected, StretchSettled
from yarrow_lane.layers.passes import Need, Pass
from yarrow_lane.measure.moments import LIFETIME_MIN, after


def stretch(start: datetime, minutes: float):
    return (ClockStarted(start, "1:wash", "wash"), ClockStopped(start + timedelta(minutes=minutes), "1:wash", "wash"))


@pytest.mark.parametrize(("minutes", "words"), [(-90, "set back"), (16 * 60 + 1, "16 hours"), (60 * 24 * 400, "16 hours")])
def test_a_stretch_that_cannot_be_is_kept_marked_and_left_out_until_it_is_settled(minutes, words):
    log = (*stretch(NOON, 30), *stretch(NOON + timedelta(hours=2), minutes))
    (doubtful,) = doubts(log)
    assert words in doubtful.doubt and doubtful.measured == minutes and doubtful.minutes == 0
    assert minutes_logged(log) == 30 and logged_words(log) == "30\u202fmin, 1 stretch in doubt left out"
    assert words in time_log([("Pip", e) for e in time_entries(log)])
    settled = (*log, StretchSettled(NOON, "1:wash", "wash", doubtful.start, 45.0))
    assert not doubts(settled) and minutes_logged(settled) == 75 and logged_words(settled) == "1\u202fh 15"


def test_long_days_that_can_be_count():
    assert minutes_logged(stretch(NOON, 16 * 60)) == 960 and minutes_logged(stretch(NOON, 0)) == 0
    assert minutes_logged((*stretch(NOON, 30), HoursCorrected(NOON, "1:wash", "wash", -10))) == 20


def test_daylight_saving_and_travelling_change_no_length():
    zone = ZoneInfo("Europe/London")
    # The night of 25 October 2026 has 01:30 twice: GMT follows British Summer Time.
    before, behind = datetime(2026, 10, 25, 1, 30, tzinfo=zone, fold=0), datetime(2026, 10, 25, 1, 30, tzinfo=zone, fold=1)
    fixed = [m.astimezone(UTC) for m in (before, behind)]
    log = (ClockStarted(fixed[0], "1", "a"), ClockStopped(fixed[1].astimezone(ZoneInfo("Asia/Tokyo")), "1", "a"))
    assert minutes_logged(log) == 60 and not doubts(log)


def a_pass(*needs: str) -> Pass:
    return Pass(
        "1:fur:3:block", 1, "coat", "fur", "block-in", 100.0, 60.0, "normal", 18.0, tuple(Need(n, "same", True) for n in needs)
    )


def test_a_finish_in_the_future_is_wet_from_now_and_can_be_settled():
    future = NOON + timedelta(days=30000)
    easel = Easel((FinishedPass("1:fur:3:wash", future, 20.0),))
    assert [f.at for f in finished_ahead(easel, NOON)] == [future]
    later = NOON + timedelta(hours=3)
    for now in (NOON, later):
        assert wet_until(easel, now) == now + timedelta(minutes=20), "never dry by a date that has not come"
    assert not readiness(easel, a_pass("1:fur:3:wash"), NOON).ready
    settled = easel_brought_to(easel, NOON)
    assert not finished_ahead(settled, NOON) and readiness(settled, a_pass("1:fur:3:wash"), later).ready
    # Two machines' clocks differ by a little.
    assert not finished_ahead(Easel((FinishedPass("1", NOON + timedelta(minutes=4), 1.0),)), NOON)


@pytest.mark.parametrize("dry", [1e300, float("inf"), -5.0, float("nan"), 1e9])
@pytest.mark.parametrize("year", [1, 2026, 9999])
def test_wet_times_stay_within_a_lifetime_and_the_calendar(dry, year):
    moment = datetime(year, 12, 31, 23, 59, tzinfo=UTC)
    at = dry_at(FinishedPass("1", moment, dry), NOON)
    base = min(moment, NOON)
    assert base <= at <= base + timedelta(minutes=LIFETIME_MIN)
    assert after(datetime.max.replace(tzinfo=UTC), 60.0) == datetime.max.replace(tzinfo=UTC)


def test_a_step_of_the_way_out_that_lies_ahead_is_marked_and_settled():
    end = datetime.max.replace(tzinfo=UTC)
    d = Deliver(signed=NOON, rest_from=end, coats=(NOON, end))
    assert lies_ahead(d, NOON) == end and rest_ends(d) == next_coat_from(d) == pack_from(d, "acrylic") == end
    settled = brought_to(d, NOON)
    assert lies_ahead(settled, NOON) is None and settled.coats == (NOON, NOON) and settled.signed == NOON
    assert lies_ahead(sign(Deliver(), NOON), NOON) is None


def test_it_stands_on_the_shelf_as_a_worry():
    brief = new_brief("Pip", "cat", "", "acrylic", NOON.date(), None)
    ahead_of_time = Commission("c1", brief, deliver=Deliver(signed=NOON + timedelta(days=3)))
    assert "future" in stand(ahead_of_time, Studio(), NOON).worry


def test_the_last_day_of_the_calendar_is_a_day_like_any_other():
    brief = new_brief("Pip", "cat", "", "acrylic", NOON.date(), date.max)
    found = stand(Commission("c1", brief), Studio(), NOON)
    last = datetime(9999, 12, 31, 23, 0, tzinfo=UTC)
    assert (plan([found.work], last, OwnTime()).finish["c1"] or date.max) <= date.max
    data = calendar_file([("c1", "Pip", date.max)], (), {}, NOON)
    (event,) = icalendar.Calendar.from_ical(data).walk("VEVENT")
    assert event.decoded("dtstart") == date.max
