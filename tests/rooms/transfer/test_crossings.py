"""Crossings against shapely's intersections; ticks and words as a painter reads them off the squares."""

from fractions import Fraction

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.lengths import MM_PER_INCH, inches_text
from yarrow_lane.transfer.crossings import (
    APART_MM,
    MOST_EACH,
    Crossing,
    crossing_words,
    crossings,
    of_square,
    to_quarter,
    to_tick,
)
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.squares import Squares

SQUARES = Squares(400, 500, 8)  # 8 x 10 of 50 mm


def line(*points):
    return Line(tuple(points), (False,) * len(points), 7.0)


def wavy(seed, count=60):
    rng = np.random.default_rng(seed)
    steps = np.cumsum(rng.normal(0, 12, (count, 2)), 0)
    return line(*map(tuple, (np.clip(steps + np.array([200, 250]), 1, (399, 499))).tolist()))


@pytest.mark.parametrize("seed", range(6))
def test_they_are_where_shapely_has_them(seed):
    lines = [wavy(seed * 10 + k) for k in range(5)]
    found = crossings(lines, SQUARES)
    theirs = []
    for one in lines:
        path = shapely.LineString(one.points)
        for upright, ats, far in ((True, SQUARES.lines_across(), 500), (False, SQUARES.lines_down(), 400)):
            for number, at in enumerate(ats, 1):
                ruled = shapely.LineString([(at, 0), (at, far)] if upright else [(0, at), (far, at)])
                for point in shapely.get_parts(shapely.intersection(path, ruled)):
                    if isinstance(point, shapely.Point):
                        theirs.append((upright, number, point.y if upright else point.x))
    ours = sorted((c.upright, c.number, c.at_mm) for c in found)
    assert len(ours) == len(theirs) > 20
    for one, other in zip(ours, sorted(theirs), strict=True):
        assert one[:2] == other[:2] and one[2] == pytest.approx(other[2], abs=1e-6)


def test_through_a_point_of_the_line_it_is_one_crossing():
    assert len(crossings([line((30, 20), (50, 20), (70, 20))], SQUARES)) == 1
    assert len(crossings([line((30, 20), (50, 20), (30, 25))], SQUARES)) in (0, 2), "it only touches"


@given(st.integers(0, 10_000))
def test_ticks_keep_their_promises(seed):
    found = crossings([wavy(seed + k, 80) for k in range(6)], SQUARES)
    ticks = to_tick(found, SQUARES)
    assert set(ticks) <= set(found)
    for square in SQUARES.all:
        assert len(of_square(ticks, SQUARES, square)) <= MOST_EACH
    by_line = {}
    for tick in ticks:
        by_line.setdefault((tick.upright, tick.number), []).append(tick.at_mm)
    assert all(np.diff(sorted(places)).min(initial=99) >= APART_MM for places in by_line.values())


def test_words_of_both_squares_that_share_the_edge():
    tick = Crossing(True, 4, 164.0, 100.0)  # on the line 20 cm from the left, 14 mm into the fourth row
    assert tick.between(SQUARES) == ((3, 3), (4, 3))
    assert crossing_words(tick, SQUARES, (3, 3), "cm") == ("right edge", "1.4\u202fcm down")
    assert crossing_words(tick, SQUARES, (4, 3), "cm") == ("left edge", "1.4\u202fcm down")
    level = Crossing(False, 3, 229.0, 100.0)
    assert crossing_words(level, SQUARES, (4, 3), "cm") == ("top edge", "2.9\u202fcm from the left")
    assert crossing_words(level, SQUARES, (4, 2), "cm") == ("bottom edge", "2.9\u202fcm from the left")
    assert crossing_words(Crossing(True, 4, 150.4, 9.0), SQUARES, (3, 3), "cm") == ("through", "the upper right corner")
    assert crossing_words(Crossing(False, 3, 249.5, 9.0), SQUARES, (4, 2), "cm") == ("through", "the lower right corner")


@given(st.integers(0, 64 * 16))
def test_inches_are_the_nearest_sixteenth(sixteenths):
    """Exact rationals: what is said is never farther off than half a sixteenth."""
    exact = Fraction(sixteenths, 16) + Fraction(1, 40)
    said = inches_text(float(exact) * MM_PER_INCH)
    value = sum((Fraction(part) for part in said.split()), Fraction(0)) if said else Fraction(0)
    assert abs(value - exact) <= Fraction(1, 32)


def test_eyes_and_crowded_squares_are_quartered():
    crowd = [line(*((x, 130 + k) for x in range(105, 145, 4))) for k in range(0, 18, 2)]
    calm = [line(*((x, 20 + 50 * k + x / 100) for x in range(5, 396, 5))) for k in range(9)]
    found = to_quarter([*crowd, *calm], SQUARES, [((250.0, 250.0), 10.0)])
    assert (2, 2) in found and {(4, 4), (5, 4), (4, 5), (5, 5)} <= set(found) and (0, 0) not in found
    beyond = to_quarter([], SQUARES, [((0.0, 0.0), 30.0), ((400.0, 500.0), 30.0)])
    assert set(beyond) == {(0, 0), (7, 9)}, "only squares there are"


def test_middle_lines_of_quartered_squares_are_crossed_too():
    """Against shapely, on the middle lines of the quartered squares only."""
    squares = Squares(240, 300, 4)
    wave = np.stack([np.linspace(3, 237, 400), 150 + 90 * np.sin(np.linspace(0, 9, 400))], 1)
    one = Line(tuple((float(x), float(y)) for x, y in wave), (False,) * 400, 1.0)
    finer = ((1, 2), (2, 1))
    found = [c for c in crossings((one,), squares, finer) if c.in_middle]
    path = shapely.LineString(wave)
    expected = []
    for square in finer:
        r = squares.rect(*square)
        for middle in (
            shapely.LineString([(r.centre[0], r.y), (r.centre[0], r.bottom)]),
            shapely.LineString([(r.x, r.centre[1]), (r.right, r.centre[1])]),
        ):
            expected += [(p.x, p.y) for p in shapely.get_parts(shapely.intersection(path, middle))]
    places = sorted(c.place(squares) for c in found)
    assert len(places) == len(expected) > 0 and np.allclose(places, sorted(expected), atol=1e-6)
    for c in found:
        assert c.between(squares)[0] == c.between(squares)[1] and c.between(squares)[0] in finer
        edge, place = crossing_words(c, squares, c.between(squares)[0], "cm")
        assert edge == f"middle, {'upright' if c.upright else 'level'}" and place.endswith(("down", "from the left"))
    assert not [c for c in crossings((one,), squares) if c.in_middle]
