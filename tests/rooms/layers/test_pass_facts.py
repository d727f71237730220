"""Brush, paint, hours, wells, words, what is wet, and the score of one pass."""

import math
from datetime import date, timedelta

import cv2
import numpy as np
import psychrolib
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import NOON
from tests.rooms.layers.making import DOG, PERSON, SCHOOLS, portrait
from yarrow_lane.commission.studio import Studio, StudioTrouble, set_climate
from yarrow_lane.easel.session import Easel, EaselTrouble, FinishedPass, felt_dry, finish_pass
from yarrow_lane.easel.wet import surely_dry_at, wet_now
from yarrow_lane.layers.area_colours import colours_of
from yarrow_lane.layers.brushes import STEPS, Brush, JarTrouble, advice, finest_mm, jar_text, read_jar, wasted_beyond
from yarrow_lane.layers.kinds import KINDS, is_ground, is_hairy
from yarrow_lane.layers.passes import Area, sequence_of
from yarrow_lane.layers.rules import on_ground
from yarrow_lane.layers.school import School
from yarrow_lane.layers.score import days_of, frees, longest_chain
from yarrow_lane.layers.sequence import warned
from yarrow_lane.layers.telling import remedies, sayings
from yarrow_lane.layers.wells_for import SHARES, AreaColours, wanted_lab, wells_for
from yarrow_lane.paint.drying import AIR, Climate, deficit_hpa, film_minutes, saturation_hpa

PASSES = sequence_of(DOG, School(), "acrylic", Climate(20, 50))
BY_KEY = {f"{p.region_id}:{p.key}": p for p in PASSES}


@given(st.floats(1, 40), st.floats(5, 95))
def test_vapour_against_psychrolib(celsius, humidity):
    """Within 1 % of ASHRAE's formulas (psychrolib), over water."""
    psychrolib.SetUnitSystem(psychrolib.SI)
    assert saturation_hpa(celsius) == pytest.approx(psychrolib.GetSatVapPres(celsius) / 100, rel=0.01)
    known = psychrolib.GetSatVapPres(celsius) * (1 - humidity / 100) / 100
    assert deficit_hpa(Climate(celsius, humidity)) == pytest.approx(known, rel=0.01)


def test_air_and_retarder_as_in_the_handbook():
    still = film_minutes("normal", "acrylic", Climate())
    assert film_minutes("normal", "acrylic", Climate(air="fan")) == pytest.approx(0.6 * still)
    assert film_minutes("normal", "acrylic", Climate(air="dryer")) == pytest.approx(0.2 * still) and AIR["still"] == 1
    assert film_minutes("normal", "acrylic", Climate(retarder=2)) == pytest.approx(4 * still)
    assert film_minutes("wash", "water", Climate(retarder=2)) == film_minutes("wash", "water", Climate()), (
        "retarder is for acrylics"
    )
    assert film_minutes("normal", "oil", Climate(air="dryer")) == 4.5 * 1440 and film_minutes("thick", "pastel", Climate()) == 0
    with pytest.raises(StudioTrouble, match="outside 0 to 3"):
        set_climate(Studio(), Climate(retarder=5))


def test_a_jar_is_written_in_words():
    jar = read_jar("flat 20, filbert 8mm; old fan 12,liner 1")
    assert [(b.kind, b.mm) for b in jar] == [("flat", 20), ("filbert", 8), ("old fan", 12), ("liner", 1)]
    assert read_jar(jar_text(jar)) == jar and read_jar("  ") == ()
    for wrong in ("flat", "20", "flat wide", "flat 0", "flat 900"):
        with pytest.raises(JarTrouble, match="no kind or no width"):
            read_jar(wrong)


def test_light_first_on_a_middle_ground_is_warned():
    light = sequence_of(DOG, School(values="light first"), "acrylic", Climate())
    found = on_ground(light, 60.0)
    assert {w.rule for w in found} == {"light wash on a darker ground"} and "above L* 80" in found[0].why
    assert on_ground(light, 94.0) == () and on_ground(PASSES, 94.0) == ()
    layers = portrait(School(values="light first"))
    assert warned(layers, "acrylic", Climate(), 60.0) and not warned(layers, "acrylic", Climate(), 94.0)


def test_amounts_follow_from_area_and_film():
    """100 cm² at 100 µm are 1 ml; half as much again to mix (handbook table of numbers)."""
    block = BY_KEY["2:block"]
    told = advice(block, 60.0, 8.0)
    assert told.ml == pytest.approx(400 / 100 * 80 / 100, rel=0.01)
    assert told.mixed_ml == pytest.approx(1.5 * told.ml) and told.dips >= 1


def test_brushes_as_large_as_the_stage_allows_then_smaller():
    width = {k: advice(BY_KEY[f"2:{k}"], 90.0, 12.0) for k in ("block", "under", "middle", "tips")}
    assert width["block"].stroke_mm > width["under"].stroke_mm > width["middle"].stroke_mm > width["tips"].stroke_mm
    assert [width[k].brush.kind.split()[0] for k in ("block", "under", "middle", "tips")] == [
        "flat",
        "filbert",
        "filbert",
        "liner",
    ]
    assert advice(BY_KEY["4:glint"], 6.0).brush.kind == "round, size 0, one touch"
    assert advice(BY_KEY["6:line"], 6.0).brush.kind.startswith("rigger")
    assert (
        advice(BY_KEY["1:even"], 120.0).brush.kind == "stiff flat"
        and advice(BY_KEY["2:glaze"], 60.0).brush.kind == "large soft mop"
    )
    for school, medium in SCHOOLS[::29]:
        for p in sequence_of(PERSON, school, medium, Climate()):
            told = advice(p, 20.0)
            assert told.brush.mm in STEPS and told.long_mm[0] < told.long_mm[1] and told.ml >= 0


def test_the_nearest_brush_of_the_jar_is_said():
    jar = (Brush("flat", 20), Brush("flat", 8), Brush("liner", 1))
    assert advice(BY_KEY["2:block"], 90.0, 12.0, jar).own == Brush("flat", 8)
    assert advice(BY_KEY["2:under"], 60.0, 12.0, jar).own is None


def test_detail_is_spent_where_the_viewer_looks():
    """20/20 acuity is a minute of arc, .29 mm a metre away; it halves at 2.5 degrees from where one looks."""
    diagonal = 640.0
    assert finest_mm(0, diagonal) == pytest.approx(2 * 1280 * math.tan(math.radians(1 / 60)))
    at = 1280 * math.tan(math.radians(2.5))
    assert finest_mm(at, diagonal) == pytest.approx(2 * finest_mm(0, diagonal), rel=1e-3)
    assert wasted_beyond(finest_mm(100, diagonal), diagonal) == pytest.approx(100, abs=0.5)
    assert wasted_beyond(0.1, diagonal) == 0.0 and wasted_beyond(50.0, diagonal) is None


def test_every_pass_is_told_in_at_most_three_lines_and_has_a_remedy():
    for school, medium in SCHOOLS[::17]:
        for kind in KINDS:
            for p in sequence_of(
                (Area(1, "it", kind, 50.0), Area(2, "hair", "hair", 20.0, frozenset({1}))), school, medium, Climate()
            ):
                assert 1 <= len(sayings(p)) <= 3, p
                assert remedies(p), p
    assert sayings(BY_KEY["4:dark"])[0].startswith("The whole opening as one dark shape")
    assert remedies(BY_KEY["2:tips"])[0].seen == "fur looks like a comb or a rug"
    assert all(r.cause and r.helps for p in PASSES for r in remedies(p))


def test_kinds_know_what_they_are():
    assert [k for k in KINDS if is_ground(k)] == ["background", "scene"]
    assert {k for k in KINDS if is_hairy(k)} == {"fur", "long fur", "curly fur", "hair", "beard", "feathers"}


COLOURS = AreaColours(tuple((float(10 + 13 * n), 2.0 * n, float(n)) for n in range(len(SHARES))), 30.0)


def test_a_well_by_value_and_hue():
    wells = [(1, (12.0, 0.0, 0.0)), (2, (50.0, 6.0, 3.0)), (3, (88.0, 12.0, 6.0)), (4, (49.0, 5.0, 3.0))]
    assert wells_for(BY_KEY["2:tips"], COLOURS, wells)[0].well_id == 3
    middle = wells_for(BY_KEY["2:middle"], COLOURS, wells)
    assert {w.well_id for w in middle} == {2, 4} and middle[0].off <= middle[1].off
    assert wells_for(BY_KEY["2:middle"], COLOURS, []) == ()
    assert wanted_lab(BY_KEY["2:tips"], COLOURS)[0] > wanted_lab(BY_KEY["2:block"], COLOURS)[0]


def test_the_wet_map_tells_likely_and_surely():
    block, under = BY_KEY["2:block"], BY_KEY["2:under"]
    films = (
        FinishedPass(block.id, NOON - timedelta(minutes=60), 15.0),
        FinishedPass(under.id, NOON - timedelta(minutes=5), 15.0),
    )
    easel = Easel(films)
    (wet,) = wet_now(easel, PASSES, NOON)
    assert (wet.region_id, wet.pass_id) == (2, under.id) and wet.left == pytest.approx(10 / 15)
    assert wet.likely == NOON + timedelta(minutes=10) and wet.surely == NOON + timedelta(minutes=17.5)
    late = NOON + timedelta(minutes=12)
    assert wet_now(easel, PASSES, late)[0].left == 0, "likely dry, not surely"
    assert wet_now(easel, PASSES, NOON + timedelta(hours=2)) == ()
    touched = felt_dry(easel, under.id, late)
    assert wet_now(touched, PASSES, late) == () and surely_dry_at(touched.finished[1], late) <= late, (
        "felt to be dry: no doubt is left"
    )


def test_touch_overrules_the_clock():
    easel = finish_pass(Easel(), BY_KEY["1:wash"], NOON)
    dry = felt_dry(easel, BY_KEY["1:wash"].id, NOON + timedelta(minutes=2))
    assert dry.finished[0].touched and dry.finished[0].dry_minutes == pytest.approx(2)
    with pytest.raises(EaselTrouble, match="not painted"):
        felt_dry(easel, "9:x:y:z", NOON)


def test_the_longest_chain_holds_the_finish_back():
    chain = longest_chain(PASSES)
    by_id = {p.id: p for p in PASSES}
    assert by_id[chain.ids[-1]].role == "glint"
    work = sum(by_id[i].minutes for i in chain.ids)
    assert work < chain.minutes < work + sum(by_id[i].dry_minutes for i in chain.ids) + 1e-6
    done = tuple(p.id for p in PASSES[:-1])
    assert longest_chain(PASSES, done).minutes == pytest.approx(PASSES[-1].minutes)
    assert longest_chain(()).ids == ()
    assert BY_KEY["2:under"].id in frees(PASSES, BY_KEY["2:block"].id) and not frees(PASSES, PASSES[-1].id)


def test_passes_fall_on_the_planned_days():
    days = [date(2026, 3, 9) + timedelta(days=n) for n in range(4)]
    total = sum(p.minutes for p in PASSES[2:])
    painted = {p.id: days[0] for p in PASSES[:2]}
    found = days_of(PASSES, painted, [(d, total / 3 + 1) for d in days[1:]])
    assert found[PASSES[0].id] == days[0] and found[PASSES[2].id] == days[1] and found[PASSES[-1].id] == days[3]
    told = [found[p.id] for p in PASSES]
    assert told == sorted(told)
    assert days_of(PASSES, {}, [])[PASSES[0].id] is None
    assert days_of(PASSES, {}, [(days[0], 1.0)])[PASSES[-1].id] == days[0], "beyond the plan it stays the last day"


def test_what_is_seen_through_the_hairs_is_no_colour_of_the_area():
    """A dark ear whose fringe lets the green through keeps dark lights; a black and white body keeps both."""
    rng = np.random.default_rng(4)
    picture = np.full((300, 400, 3), (110, 150, 50), np.uint8)
    ear, body = np.zeros((300, 400), bool), np.zeros((300, 400), bool)
    ear[40:140, 40:110] = True
    body[60:260, 180:360] = True
    depth = cv2.distanceTransform(np.pad(ear.astype(np.uint8), 1), cv2.DIST_L2, 3)[1:-1, 1:-1]
    through = ear & (depth < 11) & (rng.random(ear.shape) < 0.7)
    picture[ear] = rng.integers(5, 40, (int(ear.sum()), 1), np.uint8)
    picture[through] = (110, 150, 50)
    picture[body] = 20
    picture[60:260, 260:360] = 235
    found = colours_of(picture, 1.0, {1: ~(ear | body), 2: ear, 3: body}, (1,))
    assert all(lab[0] < 20 and abs(lab[1]) < 3 and abs(lab[2]) < 3 for lab in found[2].lab)
    assert found[3].lab[0][0] < 15 and found[3].lab[-1][0] > 90
    assert found[1].lab[3][1] < -15
