"""The lattice of squares."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.transfer.crossings import MOST_EACH, crossings, to_tick
from yarrow_lane.transfer.lines.line import Line
from yarrow_lane.transfer.record import Transfer, mark_drawn, minutes_each, minutes_left, set_count
from yarrow_lane.transfer.squares import Squares, SquaresTrouble, column_letter


def test_the_handbook_example():
    squares = Squares(400, 500, 8)
    assert (squares.side_mm, squares.columns, squares.rows) == (50, 8, 10)
    assert squares.lines_across() == (50, 100, 150, 200, 250, 300, 350)
    assert squares.name(3, 3) == "D4"


@given(st.floats(40, 4000), st.floats(40, 4000), st.integers(2, 40))
def test_squares_cover_the_canvas_exactly(width, height, count):
    squares = Squares(width, height, count)
    rects = [squares.rect(*s) for s in squares.all]
    assert sum(r.width * r.height for r in rects) == pytest.approx(width * height, rel=1e-9)
    assert min(squares.columns, squares.rows) == count
    assert all(r.width > 1e-6 and r.height > 1e-6 for r in rects)


def test_letters_go_on_after_z():
    assert [column_letter(n) for n in (0, 25, 26, 27, 51, 52, 701, 702)] == ["A", "Z", "AA", "AB", "AZ", "BA", "ZZ", "AAA"]


def test_marks_belong_to_their_lattice():
    transfer = mark_drawn(set_count(Transfer(), 8), 2, 3, True)
    assert transfer.drawn == ((2, 3),)
    assert mark_drawn(transfer, 2, 3, False).drawn == ()
    assert set_count(transfer, 8) == transfer
    assert set_count(transfer, 9).drawn == ()
    with pytest.raises(SquaresTrouble):
        set_count(transfer, 41)


def test_time_left():
    """Squares 1.5 min each plus ruling 15 min (handbook table of numbers)."""
    squares = Squares(400, 500, 8)
    assert minutes_left(squares, Transfer(8)) == 80 * 1.5 + 15
    assert minutes_left(squares, Transfer(8, squares.all[:79])) == 1.5


def test_the_pace_is_the_painters_own_from_three_squares_on():
    at = datetime(2026, 11, 26, 9, tzinfo=UTC)
    transfer = Transfer(8)
    for n, minutes in enumerate((0, 2, 4, 6.5, 90, 92.5)):
        transfer = mark_drawn(transfer, n, 0, True, at + timedelta(minutes=minutes))
    assert transfer.minutes == (2.0, 2.0, 2.5, 2.5), "a pause of an hour and a half is no square"
    assert minutes_each(transfer) == 2.25
    again = mark_drawn(transfer, 0, 0, False, at)
    assert again.minutes == transfer.minutes and (0, 0) not in again.drawn
    assert minutes_left(Squares(400, 500, 8), transfer) == 74 * 2.25


def test_forty_squares_on_two_metres_are_walked_named_and_ticked():
    squares = Squares(2000.0, 3000.0, 40)
    assert squares.side_mm == 50.0 and len(squares.all) == 40 * 60 and squares.whole
    assert squares.name(39, 59) == "AN60" and squares.rect(39, 59).right == 2000.0
    way = np.linspace(0, 40, 4000)
    wave = tuple((float(x), float(y)) for x, y in np.stack([1000 + 24 * way * np.cos(way), 1500 + 36 * way * np.sin(way)], 1))
    found = crossings((Line(wave, (False,) * len(wave), 1.0),), squares)
    ticks = to_tick(found, squares)
    assert len(found) > 500 and 0 < len(ticks) <= len(found)
    load: dict = {}
    for tick in ticks:
        for square in set(tick.between(squares)):
            load[square] = load.get(square, 0) + 1
    assert max(load.values()) <= MOST_EACH and all(s in set(squares.all) for s in load)
