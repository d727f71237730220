"""Glazes forwards and backwards, wet looks, watercolour and pastel."""

import numpy as np
import pytest

from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.paint.films.backwards import under_for
from yarrow_lane.paint.films.glaze import SPREAD, Glaze, GlazeTable, laid, three_looks
from yarrow_lane.paint.films.watercolour import washes
from yarrow_lane.paint.kubelka_munk import from_outside, thick
from yarrow_lane.paint.recipes.solver import solve
from yarrow_lane.paint.seen import lab_of
from yarrow_lane.paint.under_lights import moved, parted, seen_under
from yarrow_lane.paint.wet import Wetness, learnt, wet_lab
from yarrow_lane.palette.sticks import layered


def test_the_table_of_glazes_is_the_film_itself(box):
    glazes = GlazeTable(box)
    under = thick(*box.mixed(np.array([6.0, 0, 2, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0])))
    lab = glazes.over(under)
    for n in np.random.default_rng(1).integers(0, len(lab), 40):
        assert lab[n] == pytest.approx(lab_of(from_outside(laid(box, glazes.glaze(int(n)), under))), abs=0.05)
    assert len(lab) == (14 + 91) * 5 * 4


def test_a_wanted_glaze_is_found(box):
    glazes, rng, off = GlazeTable(box), np.random.default_rng(5), []
    for _ in range(30):
        under = thick(*box.mixed(np.maximum(0.01, rng.dirichlet(np.ones(14)))))
        wanted = lab_of(from_outside(laid(box, glazes.glaze(int(rng.integers(0, 2100))), under)))
        best = glazes.towards(under, wanted)
        assert len({g.glaze.paints for g in best}) == len(best)
        off.append(min(g.difference for g in best))
    assert np.median(off) < 0.6


def test_worked_backwards_and_painted_forwards_again_it_ends_on_the_target(box, table, reachable):
    rng, off = np.random.default_rng(8), []
    for goal in reachable[:25]:
        glaze = Glaze((int(rng.integers(7, 13)),), float(rng.choice([0.03, 0.05, 0.075, 0.1])), 1)
        target = lab_of(from_outside(laid(box, glaze, thick(*box.mixed(solve(table, goal).parts[0])))))
        found = under_for(table, target, glaze)
        forwards = lab_of(from_outside(laid(box, glaze, thick(*box.mixed(found.parts)))))
        assert forwards == pytest.approx(np.array(found.ends), abs=0.01)
        assert float(difference(forwards, target)) == pytest.approx(found.difference, abs=0.01)
        if target[0] > 35:
            assert found.lab[0] > found.ends[0] - 0.5, "go lighter before the glaze"
        off.append(found.difference)
    assert np.median(off) < 0.6 and np.percentile(off, 90) < 2.5


def test_thickness_is_shown_on_both_sides(box):
    under = thick(*box.mixed(np.eye(14)[0] * 6 + np.eye(14)[2]))
    thin, usual, thick_one = three_looks(box, Glaze((10,), 0.075, 1), under)
    assert thin[0] > usual[0] > thick_one[0] and SPREAD[1] == 1.0


def test_acrylic_is_lighter_wet_in_the_middle_and_darks_gleam(box):
    skin, black = np.eye(14)[1] * 8 + np.eye(14)[2] * 2 + np.eye(14)[9], np.eye(14)[13]
    assert 1 < (wet_lab(box, skin) - box.lab(skin))[0] < 6
    assert (wet_lab(box, black) - box.lab(black))[0] < 0
    white = np.eye(14)[0]
    assert float(difference(wet_lab(box, white), box.lab(white))) < 1


def test_pairs_of_wet_and_dry_teach_the_wet_look(box):
    rng, true = np.random.default_rng(2), Wetness(0.7, -0.4, 0.8)
    recipes = rng.dirichlet(np.ones(14) * 0.3, 40)
    wet = wet_lab(box, recipes, true) + rng.normal(size=(40, 3)) * 0.8
    test = rng.dirichlet(np.ones(14) * 0.3, 60)

    def off(wetness):
        return float(np.median(difference(wet_lab(box, test, wetness), wet_lab(box, test, true))))

    three, eight = (learnt(box, list(zip(recipes[:n], wet[:n], strict=True))) for n in (3, 8))
    assert off(eight) < 0.6 * off(Wetness()) and off(three) < off(Wetness())
    assert learnt(box, []) == Wetness()


def test_a_light_moves_neighbours_apart_and_daylight_does_not(box):
    one, other = np.eye(14)[9] * 1.0, np.eye(14)[10] * 4 + np.eye(14)[8] * 5.0
    by_day, there = parted(box, one, other, "daylight")
    assert by_day == pytest.approx(there, abs=1e-6)
    assert moved(box, one) < parted(box, one, other, "warm lamp")[1]
    assert max(abs(np.diff(parted(box, one, other, light))[0]) for light in ("warm lamp", "warm LED")) > 0.3
    assert moved(box, np.eye(14)[3]) > moved(box, np.eye(14)[0])
    assert seen_under(box, np.eye(14)[:1], "warm lamp")[0][0] == pytest.approx(box.lab(np.eye(14)[0])[0], abs=0.7)


def test_watercolour_takes_water_for_white(box):
    pale, deep = washes(box, (88, 4, 12)), washes(box, (45, 20, 25))
    assert pale[0].difference < 4 and pale[0].water > deep[0].water
    assert all(0 not in w.columns and 1 not in w.columns for w in pale), "no white paint"


def test_pastel_lays_sticks_over_each_other(box):
    found = layered(box, (60, 17, 19))
    assert any(len(x.sticks) == 1 for x in found)
    assert min(x.difference for x in found if len(x.sticks) == 2) <= min(x.difference for x in found if len(x.sticks) == 1)
