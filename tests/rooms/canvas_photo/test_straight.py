"""Straightening photographs whose truth the stand-in camera knows."""

import math

import cv2
import numpy as np
import pytest

from yarrow_lane.canvas_photo.lens import Lens
from yarrow_lane.canvas_photo.straight import StraightTrouble, canvas_of, checked_corners, straightened
from yarrow_lane.standins.camera import Taking, drawn_on, photograph

SIZE = (400.0, 500.0)


def drawn(picture, px):
    rng = np.random.default_rng(9)
    for _ in range(20):
        path = rng.uniform(0, 1, (5, 2)) * np.array(SIZE) * px
        cv2.polylines(picture, [path.astype(np.int32)], False, (60, 50, 45), max(1, int(px)), cv2.LINE_AA)


def places():
    x, y = np.meshgrid(np.linspace(0, SIZE[0], 9), np.linspace(0, SIZE[1], 11))
    return np.stack([x.ravel(), y.ravel()], 1)


@pytest.fixture(scope="module")
def shots():
    rng = np.random.default_rng(11)
    found = []
    for n in range(8):
        ground = tuple(np.clip(rng.uniform(70, 230) + rng.normal(0, 15, 3), 20, 250))
        shot = photograph(drawn_on(*SIZE, 2.0, n, ground, drawn), *SIZE, 300 + n, Taking(longer_px=1200))
        found.append((shot, shot.corners(*SIZE) + rng.normal(0, 1.5, (4, 2))))
    return found


def test_sides_and_bulge_bring_places_to_a_third_of_a_mm(shots):
    fitted, clicked, bulges = [], [], []
    for shot, clicks in shots:
        straight = straightened(shot.picture, clicks, SIZE)
        fitted.append(np.hypot(*(straight.mm(shot.px(places())) - places()).T))
        bulges.append(abs(straight.lens.bulge - shot.lens.bulge))
        assert straight.px(straight.mm(shot.px(places()))) == pytest.approx(shot.px(places()), abs=0.02)
        canvas = np.array([(0, 0), (SIZE[0], 0), SIZE, (0, SIZE[1])], np.float32)
        plain = cv2.getPerspectiveTransform(clicks.astype(np.float32), canvas)
        carried = cv2.perspectiveTransform(shot.px(places())[None], plain)[0]
        clicked.append(np.hypot(*(carried - places()).T))
    assert np.median(np.concatenate(fitted)) < 0.35 < np.median(np.concatenate(clicked)), "clicks alone are not enough"
    assert np.median(bulges) < 0.0015


def test_the_canvas_is_cut_out_flat_and_where_it_was(shots):
    shot, clicks = shots[0]
    straight = straightened(shot.picture, clicks, SIZE)
    flat = canvas_of(shot.picture, straight, 1.5)
    assert flat.shape == (750, 600, 3)
    whole = cv2.resize(drawn_on(*SIZE, 2.0, 0, draw=drawn), (600, 750), interpolation=cv2.INTER_AREA)
    one, other = (cv2.GaussianBlur(cv2.cvtColor(p, cv2.COLOR_RGB2GRAY).astype(np.float32), (0, 0), 2) for p in (flat, whole))
    for plane in (one, other):
        plane -= cv2.GaussianBlur(plane, (0, 0), 15)
    assert np.corrcoef(one[40:-40, 40:-40].ravel(), other[40:-40, 40:-40].ravel())[0, 1] > 0.8


def test_the_lens_is_its_own_inverse_and_the_corner_moves_by_its_share():
    lens = Lens(-0.03, 1600, 1200)
    points = np.random.default_rng(1).uniform((0, 0), (1600, 1200), (200, 2))
    assert lens.straight(lens.bowed(points)) == pytest.approx(points, abs=1e-6)
    moved = lens.bowed(np.array([[0.0, 0.0]]))[0]
    assert math.dist(moved, (0, 0)) == pytest.approx(0.03 * 1000)


@pytest.mark.parametrize(
    ("corners", "why"),
    [
        ([(10, 10), (90, 10), (90, 90)], "it has four corners"),
        ([(10, 10), (90, 90), (90, 10), (10, 90)], "cross each other"),
        ([(10, 10), (10, 90), (90, 90), (90, 10)], "the wrong way round"),
        ([(10, 10), (12, 10), (12, 12), (10, 12)], "too small"),
        ([(10, 10), (90, float("nan")), (90, 90), (10, 90)], "it has four corners"),
    ],
)
def test_corners_that_are_no_canvas_are_said(corners, why):
    with pytest.raises(StraightTrouble, match=why):
        checked_corners(np.array(corners, float), 100, 100)
