"""Lines joined, redrawn and smoothed by hand."""

import math

import numpy as np
import pytest

from yarrow_lane.transfer.lines.choice import Choice
from yarrow_lane.transfer.lines.drawing import LinesTrouble, distance
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.lines.mending import mended, softer


def line(points) -> Line:
    return Line(tuple((float(x), float(y)) for x, y in points), (False,) * len(points), 10.0)


ONE = line([(x, 50.0) for x in np.arange(10, 60, 0.5)])
OTHER = line([(x, 56.0) for x in np.arange(80, 140, 0.5)])
WAVY = line([(x, 100 + 2 * math.sin(2.4 * x)) for x in np.arange(10, 90, 0.5)])


def test_two_lines_become_one():
    choice = mended(Choice(), (ONE, OTHER, WAVY), [(59.0, 50.5), (70.0, 53.0), (80.5, 56.0)], 3.0)
    assert len(choice.dropped) == 2 and len(choice.by_hand) == 1
    joined = np.array(choice.by_hand[0])
    assert joined[:, 0].min() < 11 and joined[:, 0].max() > 138, "from the far end of one to the far end of the other"
    assert np.hypot(*np.diff(joined, axis=0).T).max() < 1.0, "without a gap"
    whole = line(choice.by_hand[0])
    assert all(distance(whole, p) < 1.5 for p in (*ONE.points[::9], *OTHER.points[::9]))


def test_a_stretch_is_redrawn_and_the_rest_stays():
    choice = mended(Choice(), (ONE, OTHER), [(25.0, 50.0), (35.0, 62.0), (45.0, 50.0)], 3.0)
    redrawn = line(choice.by_hand[0])
    assert distance(redrawn, (35.0, 61.0)) < 2.5 and distance(redrawn, (35.0, 50.0)) > 4
    assert distance(redrawn, (12.0, 50.0)) < 0.5 and distance(redrawn, (58.0, 50.0)) < 0.5


def test_the_redrawn_stretch_of_a_ring_is_the_shorter_one():
    ring = line([(100 + 40 * math.cos(t), 100 + 40 * math.sin(t)) for t in np.linspace(0, 2 * math.pi, 500)])
    choice = mended(Choice(), (ring,), [(135.0, 80.0), (155.0, 100.0), (135.0, 120.0)], 3.0)
    redrawn = line(choice.by_hand[0])
    assert distance(redrawn, (60.0, 100.0)) < 1 and distance(redrawn, (140.0, 100.0)) > 5
    assert distance(redrawn, (153.0, 100.0)) < 4


def test_a_line_is_smoothed_and_stays_where_it_is():
    choice = softer(Choice(), (WAVY, ONE), (50.0, 100.0), 4.0)
    soft = np.array(choice.by_hand[0])
    assert np.ptp(soft[10:-10, 1]) < 0.5 * np.ptp(np.array(WAVY.points)[:, 1])
    assert soft[:, 1].mean() == pytest.approx(100, abs=0.3) and len(choice.dropped) == 1


def test_what_is_no_line_is_said():
    with pytest.raises(LinesTrouble, match="there is none"):
        softer(Choice(), (ONE,), (200.0, 200.0), 3.0)
    with pytest.raises(LinesTrouble, match="from line to line"):
        mended(Choice(), (ONE,), [(30.0, 50.0), (200.0, 200.0)], 3.0)


def test_a_crossing_line_is_not_dropped_with_the_one_clicked():
    across = line([(40.0, y) for y in np.arange(20, 90, 0.5)])
    choice = softer(Choice(), (ONE, across), (40.5, 50.0), 3.0)
    assert min(distance(ONE, choice.dropped[0]), distance(across, choice.dropped[0])) < 1
    assert max(distance(ONE, choice.dropped[0]), distance(across, choice.dropped[0])) > 5
