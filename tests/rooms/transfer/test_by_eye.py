"""Checks by eye: what is planted is found, and none claims what is not so."""

import math

import numpy as np
import pytest

from yarrow_lane.transfer.by_eye.between import edges_of, shapes_between
from yarrow_lane.transfer.by_eye.checks import checks_of, hour_words, rest_words

HEAD = 150.0
FACE = {
    "left eye": (100.0, 100.0),
    "right eye": (180.0, 100.4),
    "nose tip": (141.0, 150.0),
    "chin": (100.6, 215.0),
    "left ear tip": (70.0, 20.0),
    "right ear tip": (215.0, 31.0),
}


def test_plumb_level_and_equal_lengths_are_found_with_their_rest():
    found = checks_of(FACE, HEAD, {})
    words = [c.words for c in found]
    assert any(c.kind == "level" and "left eye and right eye" in c.words and c.rest == "" for c in found), words
    assert "chin lies straight under left eye" in words
    assert 3 <= len(found) <= 8 and max(sum(c.kind == k for c in found) for k in {c.kind for c in found}) <= 4
    used = [name for c in found for name in set(c.about)]
    assert max(used.count(n) for n in FACE) <= 3, "no place is used in more than three"


@pytest.mark.parametrize("seed", range(12))
def test_every_check_is_true_to_what_it_leaves_over(seed):
    rng = np.random.default_rng(seed)
    places = {f"place {n}": tuple(rng.uniform(0, 1, 2) * (300, 400)) for n in range(11)}
    for check in checks_of(places, HEAD, {}, 12):
        long = [math.dist(*s) for s in check.segments]
        (x, y), (u, v) = check.segments[0]
        if check.kind == "equal":
            off, of = long[1] - long[0], long[0]
        elif check.kind == "half":
            off, of = long[1] - 2 * long[0], long[1]
        elif check.kind == "plumb":
            off, of = u - x, long[0]
        elif check.kind == "level":
            off, of = v - y, long[0]
        else:
            hours = (math.degrees(math.atan2(u - x, y - v)) % 360) / 30
            assert abs(hours - round(2 * hours) / 2) * 30 <= 1.5
            continue
        assert (check.rest == "") == (abs(off) <= max(0.7, 0.01 * of)), (check, off)
        if check.rest:
            assert float(check.rest.split("\u202f")[0]) == pytest.approx(abs(off), abs=0.26)


def test_words_of_hours_and_rests():
    assert (hour_words(4.5), hour_words(2.0), hour_words(0.5), hour_words(12)) == (
        "half past 4", "2 o'clock", "half past 12", "12 o'clock",
    )  # fmt: skip
    assert rest_words(-2.1, 100, "longer", "shorter") == "2\u202fmm shorter"
    assert rest_words(0.6, 10, "longer", "shorter") == "" and rest_words(1.4, 150, "longer", "shorter") == ""


def test_shapes_between_leave_the_sitter_out():
    ring = ((100.0, 200.0), (300.0, 200.0), (300.0, 500.0), (100.0, 500.0))
    shapes = shapes_between([ring], (400.0, 500.0))
    assert len(shapes) == 1, "left, above and right of it hang together"
    spanning = ((0.0, 200.0), (400.0, 200.0), (400.0, 300.0), (0.0, 300.0))
    above, below = shapes_between([spanning], (400.0, 500.0))
    assert {max(y for _, y in above), max(y for _, y in below)} == {200.0, 500.0}
    assert shapes_between([((0.0, 0.0), (400.0, 0.0), (400.0, 500.0), (0.0, 500.0))], (400.0, 500.0)) == ()


def test_edges_cut_by_the_canvas_are_no_points():
    ring = ((100.0, 200.0), (300.0, 210.0), (280.0, 500.0), (120.0, 500.0))
    found = edges_of([("Quill", ring), ("", ())], (400.0, 500.0))
    assert set(found) == {"Quill's highest point", "Quill's leftmost point", "Quill's rightmost point"}
    assert found["Quill's highest point"] == (100.0, 200.0)
