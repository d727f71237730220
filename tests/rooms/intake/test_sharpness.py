"""Sharpness at the lids, noise and blur, on real photographs harmed in known amounts."""

import itertools

import cv2
import numpy as np
import pytest

from tests.rooms.intake.degraded import sources
from yarrow_lane.intake.photos import Eye
from yarrow_lane.intake.sharpness import blur_sigma_px, lid_sharpness, noise_lstar
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.raster import resample

CASES = [(picture, eye) for picture, eyes in sources() for eye in eyes]
NAMES = ["cat left", "cat right", "astronaut left", "astronaut right"]


def noise_of(picture: np.ndarray) -> float:
    return noise_lstar(lightness_from_srgb8(picture))


@pytest.mark.parametrize(("picture", "eye"), CASES, ids=NAMES)
def test_more_blur_is_always_less_sharp(picture, eye):
    steps = [0.04, 0.07, 0.1, 0.15, 0.2, 0.3]
    found = [lid_sharpness(picture, eye, 1.0)]
    found += [lid_sharpness(cv2.GaussianBlur(picture, (0, 0), s * eye.radius_px), eye, 1.0) for s in steps]
    assert all(a > b for a, b in itertools.pairwise(found)), found
    assert found[0] > 1.8 * found[-1]


@pytest.mark.parametrize("grain", [0.0, 4.0, 8.0])
@pytest.mark.parametrize(("picture", "eye"), CASES, ids=NAMES)
def test_a_copy_of_half_the_size_is_as_sharp_on_the_same_canvas(picture, eye, grain):
    dice = np.random.default_rng(3)
    grainy = np.clip(picture + dice.normal(0, grain, picture.shape), 0, 255).astype(np.uint8) if grain else picture
    half = resample(grainy, picture.shape[1] // 2, picture.shape[0] // 2)
    whole = lid_sharpness(grainy, eye, noise_of(grainy))
    smaller = lid_sharpness(half, Eye(eye.side, eye.x / 2, eye.y / 2, eye.radius_px / 2), noise_of(half))
    assert smaller == pytest.approx(whole, rel=0.10)


def test_noise_is_told_from_texture():
    """Known noise on a grey card is read within a tenth; fur without noise reads as almost none."""
    dice = np.random.default_rng(4)
    for sigma in (0.5, 2.0, 5.0):
        card = (60 + dice.normal(0, sigma, (400, 500))).astype(np.float32)
        # The calmest tenth of the blocks lies a little under the mean.
        assert noise_lstar(card) == pytest.approx(sigma, rel=0.15)
    assert noise_of(CASES[0][0]) < 0.5


@pytest.mark.parametrize("sigma", [1.0, 1.5, 2.0, 3.0])
def test_blur_put_on_is_blur_read_off(sigma):
    """Edges of a drawn picture, blurred by a known amount: read within a quarter."""
    dice = np.random.default_rng(5)
    page = np.full((600, 600), 80, np.float32)
    for _ in range(60):
        x, y, w, h = (int(v) for v in dice.integers([0, 0, 40, 40], [500, 500, 160, 160]))
        page[y : y + h, x : x + w] = dice.uniform(10, 95)
    soft = cv2.GaussianBlur(page, (0, 0), sigma) + dice.normal(0, 0.3, page.shape).astype(np.float32)
    assert blur_sigma_px(soft.astype(np.float32), 0.3) == pytest.approx(sigma, rel=0.25)


def test_an_empty_wall_has_no_blur_to_read():
    assert blur_sigma_px(np.full((200, 200), 50, np.float32), 0.0) == 0.0
