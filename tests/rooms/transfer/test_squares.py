"""The lattice of squares."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.transfer.squares import Squares, SquaresTrouble, Transfer, column_letter, mark_drawn, minutes_left, set_count


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
    assert minutes_left(squares, 0) == 80 * 1.5 + 15
    assert minutes_left(squares, 79) == 1.5
