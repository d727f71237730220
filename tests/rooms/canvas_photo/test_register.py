"""Later photographs are laid on earlier ones by the marks, against a camera that knows the truth; an unsure answer is none."""

import cv2
import numpy as np
import pytest
import skimage.data

from yarrow_lane.canvas_photo.register import PX_PER_MM, NotRegistered, Registered, registered, warped
from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, marked, painted, scribbles

SIZE = (400.0, 500.0)
PX = 2.5


def surface(seed: int = 3):
    strokes = scribbles(*SIZE, 45, seed)
    return marked(drawn_on(*SIZE, PX, seed, (200.0, 175.0, 150.0)), PX, strokes, DARK_INK, seed), strokes


def taken(canvas: np.ndarray, seed: int):
    """The straightened photograph, and where the canvas's points lie on it, mm."""
    shot = photograph(canvas, *SIZE, seed, Taking(longer_px=1200))
    clicks = shot.corners(*SIZE) + np.random.default_rng(seed).normal(0, 1.5, (4, 2))
    straight = straightened(shot.picture, clicks, SIZE)
    x, y = np.meshgrid(np.linspace(10, 390, 9), np.linspace(10, 490, 11))
    return canvas_of(shot.picture, straight, PX_PER_MM), straight.mm(shot.px(np.stack([x.ravel(), y.ravel()], 1)))


@pytest.fixture(scope="module")
def first():
    return taken(surface()[0], 2003)


@pytest.mark.parametrize("covered", [0.0, 0.4])
def test_marks_under_paint_lay_a_photograph_on_the_first(first, covered):
    bare, strokes = surface()
    painting = cv2.resize(skimage.data.chelsea(), (400, 500))
    flat, places = taken(painted(bare, painting, PX, strokes, covered, 3), 3003)
    found = registered(first[0], flat, PX_PER_MM)
    assert isinstance(found, Registered), found
    off = np.hypot(*(found.moved(places) - first[1]).T)
    assert np.median(off) < 0.3 and np.percentile(off, 95) < 1.0, "the figures of the design"
    assert found.rest_mm < 0.7 and found.marks >= 15
    assert np.percentile(off, 68) < 3 * found.doubt_mm + 0.15, "the doubt said is no fiction"
    laid = warped(flat, found, PX_PER_MM)
    assert laid.shape == first[0].shape


def test_its_map_is_the_plane_map_of_the_reference_library(first):
    """Points moved as skimage's ProjectiveTransform moves them."""
    from skimage.transform import ProjectiveTransform

    matrix = np.array([[1.01, 0.02, 3.0], [-0.01, 0.99, -2.0], [1e-5, -2e-5, 1.0]])
    points = np.array([(10.0, 20.0), (300.0, 480.0), (50.0, 200.0)])
    assert np.allclose(Registered(matrix, 0, 0, 0).moved(points), ProjectiveTransform(matrix)(points), atol=1e-9)


@pytest.mark.parametrize("turns", [1, 2, 3])
def test_a_turned_photograph_is_said_to_be_turned(first, turns):
    turned = cv2.resize(np.rot90(first[0], turns).copy(), first[0].shape[1::-1])
    found = registered(first[0], turned, PX_PER_MM)
    assert isinstance(found, NotRegistered)
    assert ("upside down" if turns == 2 else "turned by a quarter") in found.why


def test_another_painting_and_a_bare_canvas_are_not_laid_on(first):
    other, _ = surface(8)
    for canvas in (other, drawn_on(*SIZE, PX, 5, (200.0, 175.0, 150.0)), np.full((1250, 1000, 3), 128, np.uint8)):
        flat, _ = taken(canvas, 4003)
        found = registered(first[0], flat, PX_PER_MM)
        assert isinstance(found, NotRegistered) and found.why
