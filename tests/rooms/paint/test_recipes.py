"""Recipes: small whole parts, as near as an exhaustive search, few tubes; strings on shared tubes."""

from itertools import product

import numpy as np
import pytest

from tests.rooms.paint.conftest import box_of
from yarrow_lane.measure.colour.difference import difference
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.paint.recipes.additions import FAULTS, additions
from yarrow_lane.paint.recipes.ladder import FINE, PARTS, ratios, simplest
from yarrow_lane.paint.recipes.solver import CLOSE, Wish, cost, slips, solve
from yarrow_lane.paint.recipes.string import shared_paints, strung
from yarrow_lane.paint.recipes.table import make_table


def test_ratios_are_each_there_once_in_whole_numbers_where_they_can_be():
    for count in (1, 2, 3):
        found = ratios(count, PARTS)
        shares = {tuple(np.round(r / r.sum(), 9)) for r in found}
        assert len(shares) == len(found)
    assert [8, 8] in ratios(2, PARTS).tolist() and [16, 16] not in ratios(2, PARTS).tolist()
    assert simplest(np.array([4.0, 8.0, 0.0])).tolist() == [8.0, 16.0, 0.0]


@pytest.mark.parametrize("keys", [("PW6", "PY43", "PB29"), ("PW6", "PBr7bu", "PR122"), ("PY37", "PB29", "PBk9")])
def test_the_solver_is_as_good_as_trying_everything(keys):
    """Every recipe on the fine ladder of three paints, scored alike: nothing is better by more than a tenth, and hardly anything nearer."""
    paints = box_of(keys)
    table = make_table(paints)
    steps = np.concatenate([[0], FINE[:-2]])
    every = np.array([p for p in product(steps, repeat=3) if max(p) >= 8], float)
    lab = paints.lab(every)
    rng, behind = np.random.default_rng(6), []
    for _ in range(6):
        goal = paints.lab(rng.dirichlet((1, 1, 1)))
        off = difference(lab, goal)
        near = np.argsort(cost(every, off, 0.0, 1.0))[:400]
        best = cost(every[near], off[near], slips(paints, every[near], lab[near]), 1.0).min()
        found = solve(table, goal)
        assert found.cost[0] <= best + 0.1
        behind.append(solve(table, goal, CLOSE).difference[0] - off.min())
    assert np.median(behind) < 0.1 and max(behind) < 0.3


def test_recipes_are_near_and_few(box, table, reachable):
    found = [solve(table, goal) for goal in reachable]
    off = np.array([f.difference[0] for f in found])
    tubes = np.mean([(f.parts[0] > 0).sum() for f in found])
    assert np.median(off) < 0.75 and np.percentile(off, 90) < 1.6 and tubes < 3.4
    close = np.array([solve(table, goal, CLOSE).difference[0] for goal in reachable])
    assert np.median(close) < 0.3
    # What is told is what the mix is.
    for f in found[:10]:
        assert box.lab(f.parts[0]) == pytest.approx(f.lab[0], abs=1e-6)
        assert set(f.parts[0][f.parts[0] > 0]) <= {float(v) for v in FINE}


def test_unwanted_tubes_stay_out_and_most_is_kept(table, reachable):
    for goal in reachable[:8]:
        found = solve(table, goal, Wish(most=2, without=frozenset({11, 12, 13})))
        assert not found.parts[:, 11:].any() and ((found.parts > 0).sum(axis=1) <= 2).all()


def test_a_box_of_one_tube_and_one_without_white_still_answer():
    one = make_table(box_of(("PY43",)))
    assert solve(one, (90, 0, 0)).parts[0].tolist() == [8.0]
    no_white = make_table(box_of(("PBr7bu", "PB29")))
    assert solve(no_white, (95, 0, 0)).difference[0] > 20  # and says how far off it stays
    assert box_of(("PBr7bu",)).tints is None


def test_parts_measured_by_eye_slip_more_for_touches(box):
    recipe = np.zeros((2, 14))
    recipe[0, [0, 2]] = 64, 16
    recipe[1, [0, 11]] = 64, 1
    slip = slips(box, recipe, box.lab(recipe))
    assert 0.2 < slip[0] < 3 and slip[1] > slip[0]


def test_seventeen_tubes_leave_mixes_of_four_to_polishing():
    from yarrow_lane.paint.pigments.entries import entries

    table = make_table(box_of(tuple(entries())[:17]))
    assert len(table.groups) == 3
    goal = table.paints.lab(np.eye(17)[0] * 6 + np.eye(17)[4] + np.eye(17)[7] + np.eye(17)[15] * 0.25)
    assert solve(table, goal, CLOSE).difference[0] < 0.8


def test_making_a_table_can_be_stopped():
    with pytest.raises(Cancelled):
        make_table(box_of(("PW6", "PY43", "PB29", "PR122")), progress=Progress(stopped=lambda: True))


def steps(middle, count, low, high):
    """A string through a local colour: duller towards dark and light."""
    lightness = np.linspace(low, high, count)
    strength = np.where(
        lightness < middle[0],
        0.55 + 0.45 * (lightness - 12) / (middle[0] - 12),
        1 - 0.75 * np.clip((lightness - middle[0]) / (100 - middle[0]), 0, 1) ** 1.2,
    )
    return np.stack([lightness, middle[1] * strength, middle[2] * strength], 1)


FAMILIES = {
    "skin": steps((55, 18, 20), 7, 26, 80), "dark skin": steps((38, 15, 19), 7, 22, 66), "orange fur": steps((52, 14, 28), 7, 26, 84),
    "hair": steps((40, 8, 12), 6, 24, 80), "green eye": steps((45, -2, 25), 5, 28, 70), "grey": steps((75, 1, 3), 9, 24, 92),
}  # fmt: skip


def test_a_string_shares_few_tubes_and_stays_near(table):
    off = []
    for name, goals in FAMILIES.items():
        found = strung(table, goals)
        tubes = {p.id for p in found.paints.all}
        assert len(tubes) <= 5, name
        off += list(found.difference)
        assert found.parts.shape == (len(goals), len(found.paints))
        assert np.diff(found.lab[:, 0]).min() > 0, "from dark to light"
    assert np.median(off) < 0.85 and np.percentile(off, 90) < 2.0


def test_neighbours_in_a_string_change_smoothly(table):
    goals = FAMILIES["orange fur"]
    found = strung(table, goals)
    shares = found.parts / found.parts.sum(axis=1, keepdims=True)
    alone = [solve(table, g).parts[0] for g in goals]
    loose = np.array([p / p.sum() for p in alone])
    assert np.abs(np.diff(shares, axis=0)).sum() < np.abs(np.diff(loose, axis=0)).sum()


def test_a_string_keeps_away_from_what_is_nearly_empty(table):
    goals = FAMILIES["skin"]
    used = shared_paints(table, goals)
    without = frozenset({used[-1]})
    assert not without & set(shared_paints(table, goals, without=without))


def test_a_pale_string_begins_from_let_downs(table):
    found = strung(table, [(86, 2, 6), (90, 1, 4), (94, 0, 3)])
    assert found.difference.max() < 1.5
    tinted = [n for n, p in enumerate(found.paints.all) if p.tint]
    assert tinted and found.parts[:, tinted].any()


def test_a_fault_is_cured_by_what_painters_would_add(box):
    base = np.zeros(14)
    base[[0, 2, 8, 7]] = 64, 24, 8, 4  # white, ochre, sienna, magenta: a skin
    blues = {10, 11}
    first = {fault: additions(box, base, fault) for fault in FAULTS}
    assert first["too orange"][0].column in {10, 13}  # ultramarine or black
    assert first["too pink"][0].column in {2, 3}  # a yellow
    assert first["too dark"][0].column in {0, 1}
    for fault, found in first.items():
        for a in found:
            assert a.eighths <= base.sum() and a.purity >= 0.5, fault
            moved = box.lab(base + np.eye(14)[a.column] * a.eighths) - box.lab(base)
            assert moved == pytest.approx(np.array(a.move), abs=1e-6)
    assert not any(a.column in blues for a in first["too blue"])
