"""Outlines against brute force on a raster: areas, holding, cutting, splitting, neighbours; holes, crossings, shared edges."""

import cv2
import numpy as np
import pytest

from yarrow_lane.measure.outlines import bare_areas, clip_to_rect, neighbours, polygon_area, polygon_holds, split
from yarrow_lane.measure.plane import Rect, polygon_bounds

SCALE = 4  # raster px per unit
SIDE = 420


def star(seed: int, corners: int = 17, size: float = 300.0) -> tuple[tuple[float, float], ...]:
    """A random simple polygon: corners in turning order at random distances."""
    rng = np.random.default_rng(seed)
    angles = np.sort(rng.uniform(0, 2 * np.pi, corners))
    reach = rng.uniform(0.2, 1.0, corners) * size / 2
    shift = rng.uniform(size / 2, 410 - size / 2, 2)
    return tuple((float(x), float(y)) for x, y in np.c_[np.cos(angles), np.sin(angles)] * reach[:, None] + shift)


def raster(polygon, scale=SCALE, side=SIDE) -> np.ndarray:
    """What lies inside by the even-odd rule, by another library; pixel (i, j) is its centre (j + 1/2, i + 1/2) / scale."""
    plane = np.zeros((side * scale, side * scale), np.uint8)
    if len(polygon):
        fixed = np.round((np.asarray(polygon) * scale - 0.5) * 256).astype(np.int32)
        cv2.fillPoly(plane, [fixed], 1, shift=8)
    return plane.astype(bool)


def area_on(plane: np.ndarray, scale=SCALE) -> float:
    return float(plane.sum()) / scale**2


@pytest.mark.parametrize("seed", range(25))
def test_areas_and_points_agree_with_a_raster(seed):
    polygon = star(seed)
    plane = raster(polygon)
    assert polygon_area(polygon) == pytest.approx(area_on(plane), rel=0.02, abs=40)
    inner, outer = cv2.erode(plane.astype(np.uint8), np.ones((5, 5))), cv2.dilate(plane.astype(np.uint8), np.ones((5, 5)))
    for x, y in np.random.default_rng(seed + 100).uniform(0, SIDE - 1, (80, 2)):
        row, column = int(y * SCALE), int(x * SCALE)
        if inner[row, column] == outer[row, column]:  # not within two pixels of the edge
            assert polygon_holds(polygon, (x, y)) == bool(plane[row, column])


@pytest.mark.parametrize("seed", range(25))
def test_cutting_at_the_canvas_keeps_every_piece(seed):
    polygon, canvas = star(seed), Rect(40, 90, 180, 110)
    inside = np.zeros((SIDE * SCALE,) * 2, bool)
    inside[90 * SCALE : 200 * SCALE, 40 * SCALE : 220 * SCALE] = True
    cut = clip_to_rect(polygon, canvas)
    assert polygon_area(cut) == pytest.approx(area_on(raster(polygon) & inside), rel=0.02, abs=40)
    assert all(canvas.x - 1e-6 <= x <= canvas.right + 1e-6 and canvas.y - 1e-6 <= y <= canvas.bottom + 1e-6 for x, y in cut)


def test_a_canvas_edge_that_parts_a_region_loses_neither_part():
    comb = ((10, 50), (10, 10), (90, 10), (90, 50), (60, 50), (60, 20), (40, 20), (40, 50))
    cut = clip_to_rect(comb, Rect(0, 30, 100, 100))
    assert polygon_area(cut) == pytest.approx(2 * 30 * 20)
    assert polygon_holds(cut, (20, 40)) and polygon_holds(cut, (80, 40)) and not polygon_holds(cut, (50, 40))


@pytest.mark.parametrize("seed", range(20))
def test_neighbours_agree_with_a_raster(seed):
    polygons = [star(seed * 10 + n, 9, 170) for n in range(6)]
    planes = [raster(p) for p in polygons]
    grown = [cv2.dilate(p.astype(np.uint8), np.ones((3, 3))).astype(bool) for p in planes]
    shrunk = [cv2.erode(p.astype(np.uint8), np.ones((5, 5))).astype(bool) for p in planes]
    found = neighbours(polygons)
    for a in range(6):
        for b in range(6):
            if a != b and (shrunk[a] & shrunk[b]).any():
                assert b in found[a]
            if a != b and not (grown[a] & grown[b]).any():
                assert b not in found[a]


def test_a_shared_edge_makes_neighbours_and_a_collinear_one_far_off_does_not():
    left, right = ((0, 0), (10, 0), (10, 10), (0, 10)), ((10, 2), (20, 2), (20, 8), (10, 8))
    far = ((60, 0), (70, 0), (70, 10), (60, 10))  # its edges lie on the same lines, 50 away
    inside = ((2, 2), (4, 2), (4, 4))
    assert neighbours([left, right, far, inside]) == ((1, 3), (0,), (), (0,))
    assert neighbours([left, far], reach=50.0) == ((1,), (0,))


def test_a_crossed_outline_counts_what_it_encloses():
    bow = ((0, 0), (10, 10), (10, 0), (0, 10))
    assert polygon_area(bow) == pytest.approx(50)
    assert polygon_holds(bow, (8, 5)) and not polygon_holds(bow, (5, 8))
    assert neighbours([bow, ((9, 4), (12, 4), (12, 6))]) == ((1,), (0,))
    assert polygon_area(((0, 0), (5, 5))) == 0 and not polygon_holds(((0, 0), (5, 5)), (2, 2))


def test_what_lies_on_top_makes_a_hole():
    square = ((0, 0), (100, 0), (100, 100), (0, 100))
    hole = ((20, 20), (60, 20), (60, 60), (20, 60))
    over = ((50, 50), (150, 50), (150, 150), (50, 150))
    areas = bare_areas([square, hole, over])
    plane, top = raster(square), raster(hole) | raster(over)
    assert areas[0] == pytest.approx(area_on(plane & ~top), abs=12)
    assert areas[1] == pytest.approx(40 * 40 - 10 * 10) and areas[2] == pytest.approx(10_000)
    assert bare_areas([]) == () and neighbours([]) == ()


@pytest.mark.parametrize("seed", range(15))
def test_a_line_splits_a_region_and_nothing_is_lost(seed):
    polygon = star(seed)
    bounds = polygon_bounds(polygon)
    x = bounds.x + bounds.width * 0.45
    pieces = split(polygon, ((x, bounds.y - 5), (x + 1, bounds.bottom + 5)))
    assert len(pieces) >= 2
    assert sum(polygon_area(p) for p in pieces) == pytest.approx(polygon_area(polygon), rel=1e-6)
    planes = [raster(p) for p in pieces]
    assert not any((a & b).sum() > 12 * SIDE for n, a in enumerate(planes) for b in planes[n + 1 :])
    assert split(polygon, ((-50, -50), (-40, -40)))[0:1] and len(split(polygon, ((-50, -50), (-40, -40)))) == 1
    assert len(split(polygon, ((0, 0),))) == 1
