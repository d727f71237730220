"""Mask film against shapely's own areas, and corners against the circle they are rounded to."""

import math

import numpy as np
import pytest
import shapely

from yarrow_lane.transfer.film import Film, FilmTrouble, film_outlines

SIZE = (400.0, 500.0)
SQUARE = ((100.0, 100.0), (200.0, 100.0), (200.0, 200.0), (100.0, 200.0))
STAR = tuple(
    (200 + (80 if n % 2 else 30) * math.cos(math.pi * n / 5), 250 + (80 if n % 2 else 30) * math.sin(math.pi * n / 5))
    for n in range(10)
)


def area(rings) -> float:
    return shapely.Polygon(rings[0], rings[1:]).area


def test_it_is_larger_by_the_allowance():
    (ring,) = film_outlines([[SQUARE]], Film(allowance_mm=3.0, corner_mm=0.0), SIZE)
    assert area([ring]) == pytest.approx(100 * 100 + 4 * 100 * 3 + math.pi * 9, rel=1e-3), "Steiner's formula"
    (ring,) = film_outlines([[SQUARE]], Film(allowance_mm=-3.0, corner_mm=0.0), SIZE)
    assert area([ring]) == pytest.approx(94 * 94, rel=1e-3)


def test_no_corner_is_sharper_than_the_knife_turns():
    (ring,) = film_outlines([[STAR]], Film(allowance_mm=0.0, corner_mm=4.0), SIZE)
    points = np.array(ring[:-1])
    before, after = points - np.roll(points, 1, 0), np.roll(points, -1, 0) - points
    turn = np.abs(np.angle(np.exp(1j * (np.angle(after @ [1, 1j]) - np.angle(before @ [1, 1j])))))
    reach = (np.hypot(*before.T) + np.hypot(*after.T)) / 2
    assert (turn / reach).max() < 1 / 4 * 1.6, "curvature, with what a polygon's corners add"
    sharp = film_outlines([[STAR]], Film(allowance_mm=0.0, corner_mm=0.0), SIZE)[0]
    assert area([ring]) == pytest.approx(area([sharp]), rel=0.1)


def test_sitters_together_holes_and_the_canvas():
    hole = ((130.0, 130.0), (170.0, 130.0), (170.0, 170.0), (130.0, 170.0))
    beside = ((190.0, 120.0), (300.0, 120.0), (300.0, 180.0), (190.0, 180.0))
    rings = film_outlines([[SQUARE, hole], [beside]], Film(allowance_mm=0.0, corner_mm=0.0), SIZE)
    assert len(rings) == 2 and area(rings) == pytest.approx(100 * 100 - 40 * 40 + 100 * 60, rel=1e-3), "one film, its hole kept"
    over = ((-50.0, 100.0), (60.0, 100.0), (60.0, 600.0), (-50.0, 600.0))
    (ring,) = film_outlines([[over]], Film(), SIZE)
    assert min(x for x, _ in ring) == 0 and max(y for _, y in ring) == 500


def test_nothing_left_is_said():
    with pytest.raises(FilmTrouble, match="nothing is left"):
        film_outlines([], Film(), SIZE)
    with pytest.raises(FilmTrouble, match="make it larger"):
        film_outlines([[((0.0, 0.0), (8.0, 0.0), (8.0, 8.0))]], Film(allowance_mm=-6.0), SIZE)
