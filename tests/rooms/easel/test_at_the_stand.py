"""Patches, reminders, keys, arrows and the changing room."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import psychrolib
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.easel.air import Air, Reading, aired, jumps, learned, plausible
from yarrow_lane.easel.air_text import AirTrouble, air_in, read_air
from yarrow_lane.easel.arrows import arrows_in
from yarrow_lane.easel.keys import EaselKeys, KeyTrouble, set_key
from yarrow_lane.easel.places import back, forward, patch_now, place_of
from yarrow_lane.easel.reminders import minutes_to_step_back, painting_since, reminders, workable_minutes
from yarrow_lane.easel.session import Easel, EaselTrouble, FinishedPass, reopened_last
from yarrow_lane.easel.wet import Wet
from yarrow_lane.lane.happening import ClockStarted, ClockStopped
from yarrow_lane.layers.flow.flow import Flow
from yarrow_lane.paint.drying import Climate, film_minutes
from yarrow_lane.standins.air_standin import stand_in_air

NOON = datetime(2026, 3, 9, 12, 0, tzinfo=UTC)
MIN = timedelta(minutes=1)


# --- patches


def test_patches_go_on_and_those_to_80_percent_come_again():
    easel = Easel()
    assert patch_now(easel, "p", 3) == patch_now(easel, "p", 3) and patch_now(easel, "p", 3).patch == 0
    easel = forward(easel, "p", 3, whole=False)
    easel = forward(easel, "p", 3)
    easel = forward(easel, "p", 3)
    now = patch_now(easel, "p", 3)
    assert now.again and now.patch == 0 and now.done == {1, 2} and now.nearly == {0}
    assert forward(easel, "p", 3, whole=False) == easel, "its last fifth is finished, not left again"
    over = patch_now(forward(easel, "p", 3), "p", 3)
    assert over.over and over.done == {0, 1, 2}
    assert forward(forward(easel, "p", 3), "p", 3) == forward(easel, "p", 3)


@given(st.lists(st.sampled_from("fnb"), max_size=30), st.integers(0, 6))
def test_back_takes_back_exactly_the_last_step(steps, patches):
    easel, trail = Easel(), []
    for s in steps:
        if s == "b":
            easel = back(easel, "p")
            if trail:
                assert easel == trail.pop()
            continue
        new = forward(easel, "p", patches, s == "f")
        if new != easel:
            trail.append(easel)
        easel = new
    now = patch_now(easel, "p", patches)
    assert 0 <= now.patch < max(1, patches) and not now.done & now.nearly
    assert len(place_of(easel, "other").steps) == 0


def test_the_last_pass_can_be_taken_up_again():
    easel = Easel((FinishedPass("a", NOON, 15), FinishedPass("b", NOON, 15)))
    again = reopened_last(easel)
    assert [f.pass_id for f in again.finished] == ["a"] and again.chosen == "b"
    with pytest.raises(EaselTrouble):
        reopened_last(Easel())


def test_arrows_lie_inside_and_follow_the_lie():
    square = (((0.0, 0.0), (60.0, 0.0), (60.0, 60.0), (0.0, 60.0)),)
    found = arrows_in(square, 36.0, 10.0, 180.0, None)
    assert 6 <= len(found) <= 20
    for (x0, y0), (x1, y1) in found:
        assert 0 < (x0 + x1) / 2 < 60 and 0 < (y0 + y1) / 2 < 60
        assert x1 == pytest.approx(x0, abs=1e-6) and y1 - y0 == pytest.approx(9.0), "nine tenths of a stroke, down"
    ones = np.ones((60, 60))
    flow = Flow(ones, ones * 0, ones, ones, ones * 10, ones > 2, ones > 0, 1.0)
    assert all(y1 == pytest.approx(y0) and x1 > x0 for (x0, y0), (x1, y1) in arrows_in(square, 36.0, 10.0, 180.0, flow))


# --- clocks


def started(minutes: float):
    return ClockStarted(NOON + minutes * MIN, "1", "fur")


def stopped(minutes: float):
    return ClockStopped(NOON + minutes * MIN, "1", "fur")


def test_a_short_stop_is_no_break():
    assert painting_since((started(0), stopped(20), started(22)), NOON + 30 * MIN) == NOON
    assert painting_since((started(0), stopped(20), started(26)), NOON + 30 * MIN) == NOON + 26 * MIN
    assert painting_since((started(0), stopped(20)), NOON + 30 * MIN) is None
    assert painting_since((started(30), stopped(50), started(5)), NOON + 10 * MIN) == NOON + 5 * MIN, "a clock set back"


def said(log, at, wet=(), wells=None) -> list[str]:
    return [r.name.split()[0] for r in reminders(log, wet, wells, NOON + at * MIN)]


def test_each_is_said_once_and_not_late():
    log = (started(0),)
    assert [said(log, m) for m in (5, 10.1, 13.9, 15, 20.5, 49, 50.2, 52)] == [
        [],
        ["step"],
        ["step"],
        [],
        ["step"],
        [],
        ["break"],
        ["break"],
    ]
    names = {r.name for m in np.arange(0, 65, 0.5) for r in reminders(log, (), None, NOON + m * MIN)}
    assert len(names) == 6, "steps at 10, 20, 30, 40 and 60, the break at 50"
    assert minutes_to_step_back(NOON, NOON + 7 * MIN) == pytest.approx(3)
    assert workable_minutes(15) == pytest.approx(5), "a third of the drying time (handbook)"


def test_films_and_wells_are_told():
    wet = (Wet(1, "1:a", "ear, block-in", NOON + 14 * MIN, NOON + 21 * MIN, 0.0),)
    assert said((), 15, wet) == ["dry"] and said((), 13, wet) == []
    assert said((), 31, (), NOON + 30 * MIN) == ["wells"]


def test_keys_can_be_set_but_not_to_what_means_something_else():
    keys = set_key(EaselKeys(), "forward", "N")
    assert keys.forward == "N"
    for key in ("Space", "Esc", "Left", "", "PgDown", "?"):
        with pytest.raises(KeyTrouble):
            set_key(keys, "forward", key)
    assert set_key(keys, "forward", "N") == keys


# --- the room


def test_the_deficit_is_that_of_a_reference():
    """Within 1 % of PsychroLib over rooms to paint in."""
    psychrolib.SetUnitSystem(psychrolib.SI)
    for celsius in (5, 12, 20, 28, 40):
        for humidity in (10, 40, 70, 95):
            reference = psychrolib.GetSatVapPres(celsius) / 100 * (1 - humidity / 100)
            assert Reading(NOON, celsius, humidity).deficit == pytest.approx(reference, rel=0.01)


USUAL = Climate(20, 50)


def film(minutes=60.0, climate=USUAL):
    return FinishedPass("1", NOON, minutes, deficit=Reading(NOON, climate.celsius, climate.humidity).deficit)


def test_a_film_dries_as_the_room_goes():
    """Half its hour at 20 °C and 50 %, then the air is twice as thirsty: the rest takes a quarter of an hour."""
    still = Air((Reading(NOON, 20, 50),))
    assert still.minutes_wet(film()) == pytest.approx(60)
    thirsty = Air((Reading(NOON, 20, 50), Reading(NOON + 30 * MIN, 20, 0.0001)))
    assert thirsty.minutes_wet(film()) == pytest.approx(45, rel=1e-3)
    damp = Air((Reading(NOON + 30 * MIN, 20, 75),))
    assert damp.minutes_wet(film()) == pytest.approx(90, rel=1e-3), "until a reading comes the air it was laid in holds"
    after = Air((Reading(NOON + 90 * MIN, 20, 90),))
    assert after.minutes_wet(film()) == pytest.approx(60), "what is dry is not wetted again"


def test_a_steady_room_is_the_formula():
    """A film reckoned in one room and dried in another takes what the formula says of the other."""
    one, other = Climate(20, 50), Climate(26, 35)
    laid = film(film_minutes("thick", "acrylic", one), one)
    air = Air((Reading(NOON - 5 * MIN, other.celsius, other.humidity),))
    assert air.minutes_wet(laid) == pytest.approx(film_minutes("thick", "acrylic", other), rel=1e-6)


def test_what_the_air_does_not_change():
    air = Air((Reading(NOON, 35, 10),))
    oil, touched = FinishedPass("1", NOON, 6000), replace(film(), touched=True, dry_minutes=20)
    easel = Easel((oil, touched))
    assert aired(easel, air) is easel and aired(Easel((film(),)), Air()).finished == (film(),)
    assert aired(Easel((film(),)), air).finished[0].dry_minutes < 40


@given(st.lists(st.tuples(st.floats(0, 300), st.floats(5, 40), st.floats(5, 95)), max_size=12))
def test_no_readings_make_a_film_dry_before_it_is_laid(readings):
    air = Air()
    for minutes, celsius, humidity in readings:
        air = air.with_reading(Reading(NOON + minutes * MIN, celsius, humidity))
    assert 0 < air.minutes_wet(film()) < 60 * 60
    assert [r.at for r in air.readings] == sorted({r.at for r in air.readings})


def test_touches_teach_the_factor_only_where_they_say_something():
    assert learned(1.0, 60, 30, True) < 1.0 < learned(1.0, 60, 90, False)
    assert learned(1.0, 60, 70, True) == 1.0 == learned(1.0, 60, 30, False)
    factor = 1.0
    for _ in range(12):
        factor = learned(factor, 60 * factor, 40, True) if 60 * factor > 40 else factor
    assert factor == pytest.approx(40 / 60, rel=0.05), "films that are always dry after 40 minutes"


@pytest.mark.parametrize(
    ("line", "found"),
    [
        ("21.5, 48", (21.5, 48.0)), ("2026-03-09 12:00;21,5;48", (21.5, 48.0)), ("temperature=21.5 humidity=48", (21.5, 48.0)),
        ('{"temp": 21.5, "hum": 48.2}', (21.5, 48.2)), ("21.5 °C 48 %", (21.5, 48.0)), ("2026-03-09T12:00:00,21.5,48", (21.5, 48.0)),
        ("nothing here", None), ("21.5", None),
    ],
)  # fmt: skip
def test_a_line_that_another_program_wrote(line, found):
    assert air_in(line) == found


def test_a_file_of_the_air_is_read_at_its_end_and_its_faults_are_said(tmp_path):
    path = tmp_path / "air.csv"
    path.write_text("time;t;rh\n" + "2026-03-09 11:00;20,0;50\n" * 5000 + "2026-03-09 12:00;21,5;48\n")
    assert read_air(path) == (21.5, 48.0)
    for text, why in (("", "empty"), ("hello", "says no temperature"), ("-40, 50", "no air to paint in")):
        path.write_text(text)
        with pytest.raises(AirTrouble, match=why) as trouble:
            read_air(path)
        assert "air.csv" in str(trouble.value)
    with pytest.raises(AirTrouble):
        read_air(tmp_path / "none.csv")


def test_the_stand_in_has_a_daily_curve_and_faults():
    day = [stand_in_air(NOON + n * MIN, faults=False) for n in range(0, 1440, 10)]
    warm = [c for c, _ in day]
    assert max(warm) - min(warm) > 3 and all(plausible(*r) for r in day)
    faulty = [stand_in_air(NOON + n * MIN) for n in range(2000)]
    assert 0.005 < np.mean([not plausible(*r) for r in faulty]) < 0.05
    air = Air((Reading(NOON, 20, 50),))
    assert jumps(air, Reading(NOON + 5 * MIN, 30, 50)) and not jumps(air, Reading(NOON + 5 * MIN, 21, 48))
    assert not jumps(air, Reading(NOON + 90 * MIN, 30, 50)), "in the morning the stove is lit"
