"""The projector's crosses seen from a photograph, against a light whose keystone is known."""

import cv2
import numpy as np
import pytest

from yarrow_lane.canvas_photo.straight import straightened
from yarrow_lane.standins.camera import Taking, photograph
from yarrow_lane.transfer.crosses import corners_of, crosses_on, crosses_square, crosses_words
from yarrow_lane.transfer.projector import ARM_SHARE

SIZE = (400.0, 500.0)
RIM, PX = 80.0, 3.0


def lit_wall(places, seed: int = 1) -> np.ndarray:
    """A canvas on a wall level with it, and crosses of light at those places of the canvas, mm."""
    wide, high = round((SIZE[0] + 2 * RIM) * PX), round((SIZE[1] + 2 * RIM) * PX)
    rng = np.random.default_rng(seed)
    wall = np.full((high, wide, 3), 95.0) + cv2.resize(rng.normal(0, 5, (12, 12)), (wide, high))[..., None]
    left, top = round(RIM * PX), round(RIM * PX)
    wall[top : top + round(SIZE[1] * PX), left : left + round(SIZE[0] * PX)] = (150, 130, 105)
    arm = ARM_SHARE * min(SIZE)
    light = np.zeros((high, wide), np.float32)
    for x, y in places:
        for ends in (((x - arm, y), (x + arm, y)), ((x, y - arm), (x, y + arm))):
            (a, b) = (tuple(np.rint((np.array(p) + RIM) * PX * 16).astype(int).tolist()) for p in ends)
            cv2.line(light, a, b, 1.0, round(1.5 * PX), cv2.LINE_AA, 4)
    wall += 80 * cv2.GaussianBlur(light, (0, 0), 1.5)[..., None]
    return np.clip(wall, 0, 255).astype(np.uint8)


def seen(places, seed: int = 1):
    whole = SIZE[0] + 2 * RIM, SIZE[1] + 2 * RIM
    shot = photograph(lit_wall(places, seed), *whole, seed, Taking(aside=15, depth_mm=0.0, longer_px=1800))
    corners = shot.px(np.array(corners_of(SIZE)) + RIM)
    return crosses_on(shot.picture, straightened(shot.picture, corners, SIZE))


KEYSTONE = ((-6.0, 4.0), (409.0, 3.0), (401.0, 497.0), (2.0, 499.0))


@pytest.mark.parametrize("places", [corners_of(SIZE), KEYSTONE])
def test_crosses_are_found_to_a_millimetre(places):
    found = seen(places)
    assert all(p is not None for p in found.seen)
    assert np.abs(np.array(found.seen) - np.array(places)).max() < 1.2
    assert found.picture.shape[1] / found.picture.shape[0] == pytest.approx(
        (400 + 2 * found.rim_mm) / (500 + 2 * found.rim_mm), abs=0.01
    )


def test_the_keystone_is_told_as_the_tape_would():
    square = crosses_square(SIZE, KEYSTONE)
    assert square.taper_mm == pytest.approx(415 - 399, abs=0.1), "top and foot of the places above"
    words = " ".join(crosses_words(SIZE, KEYSTONE))
    assert "The top is 16 mm wider" in words and "meet" not in words and "slide" not in words.lower(), "square first"
    shifted = tuple((x + 5, y - 3) for x, y in corners_of(SIZE))
    assert crosses_words(SIZE, shifted) == ("Slide the light 5 mm left, then slide the light 3 mm down.",)
    assert crosses_words(SIZE, corners_of(SIZE)) == ("The crosses meet.",)


def test_no_light_is_no_cross():
    found = seen(())
    assert found.seen == (None,) * 4
    one = seen((KEYSTONE[2],))
    assert [p is not None for p in one.seen] == [False, False, True, False]
