"""Scribble marks: the emptiest stretches against brute force, marks seen, the reference laid over."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import cKDTree

from yarrow_lane.standins.camera import drawn_on
from yarrow_lane.standins.surface import DARK_INK, LIGHT_INK, marked, scribbles
from yarrow_lane.transfer.marks.empty import WIDE_SHARE, largest_empty_circle, wanting_marks
from yarrow_lane.transfer.marks.laid import laid_over
from yarrow_lane.transfer.marks.seen import marks_seen

SIZE = (400.0, 500.0)


@settings(max_examples=30, deadline=None)
@given(st.integers(1, 300), st.integers(0, 10_000))
def test_the_largest_empty_circle_is_that_of_brute_force(count, seed):
    points = np.random.default_rng(seed).uniform(0, 1, (count, 2)) * SIZE
    (x, y), radius = largest_empty_circle(points, SIZE)
    grid = np.stack(np.meshgrid(np.arange(0, 401, 2.0), np.arange(0, 501, 2.0)), -1).reshape(-1, 2)
    brute = cKDTree(points).query(grid)[0].max()
    assert brute - 1e-6 <= radius <= brute + np.sqrt(2), "the lattice of 2 mm misses at most half its diagonal"
    assert 0 <= x <= 400 and 0 <= y <= 500
    assert np.hypot(*(points - (x, y)).T).min() == pytest.approx(radius, abs=1e-6)


def test_without_marks_and_with_marks_on_one_line():
    assert largest_empty_circle(np.zeros((0, 2)), SIZE) == ((200.0, 250.0), pytest.approx(np.hypot(200, 250)))
    line = np.stack([np.linspace(0, 400, 50), np.zeros(50)], 1)
    (_, y), radius = largest_empty_circle(line, SIZE)
    assert y == pytest.approx(500) and radius == pytest.approx(500, abs=1)


def test_marks_are_wanted_until_none_is_far():
    few = np.array([(50.0, 50.0), (60.0, 80.0)])
    wanted = wanting_marks(few, SIZE)
    assert len(wanted) >= 4 and [r for _, r in wanted] == sorted((r for _, r in wanted), reverse=True)
    dense = np.stack(np.meshgrid(np.arange(15, 400, 40.0), np.arange(15, 500, 40.0)), -1).reshape(-1, 2)
    assert wanting_marks(dense, SIZE) == () and 40 / np.sqrt(2) < WIDE_SHARE * 400


@pytest.mark.parametrize(("ground", "ink"), [((205.0, 180.0, 150.0), DARK_INK), ((95.0, 80.0, 70.0), LIGHT_INK)])
def test_strokes_are_seen_and_bare_ground_is_not(ground, ink):
    strokes = scribbles(*SIZE, 40, 2)
    bare = drawn_on(*SIZE, 2.0, 2, ground)
    assert len(marks_seen(bare, 2.0)) <= 3
    seen = marks_seen(marked(bare, 2.0, strokes, ink, 2), 2.0)
    true = np.concatenate([np.array(s) for s in strokes])
    true = true[np.all((true > 5) & (true < np.array(SIZE) - 5), 1)]
    assert (cKDTree(seen).query(true)[0] < 5).mean() > 0.9, "strokes without a point"
    assert (cKDTree(true).query(seen)[0] < 5).mean() > 0.95, "points without a stroke"


def test_the_reference_lies_over_with_its_share():
    surface, reference = np.full((40, 30, 3), 200, np.uint8), np.full((80, 60, 3), 100, np.uint8)
    mixed = laid_over(surface, reference, 0.25)
    assert mixed.shape == surface.shape and np.abs(mixed.astype(int) - 175).max() <= 1
    assert np.array_equal(laid_over(surface, reference, 0.0), surface)
