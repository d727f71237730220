"""The guess of the other eye, and the ring set to the rim, on rendered sitters and on real photographs."""

import io
import math
from functools import cache

import numpy as np
import pytest
import skimage.data
from PIL import Image

from yarrow_lane.demo.sitter_files import sitter_file
from yarrow_lane.intake.iris_rim import snapped
from yarrow_lane.intake.partner import other_side, partner_of
from yarrow_lane.intake.photos import Eye

# Read by eye off the two photographs, the radius within about 15 %; those of the rendered sitters are exact.
_PHOTOGRAPHS = {"chelsea": ((173, 115, 32), (318, 137, 26)), "astronaut": ((203.4, 101.8, 4), (247.4, 103.7, 4))}
SITTERS = ("cat1", "dog1", "person1")


@cache
def two_eyes(name: str):
    """The picture and its two eyes from the viewer's left to the right."""
    if name in _PHOTOGRAPHS:
        return getattr(skimage.data, name)(), _PHOTOGRAPHS[name]
    found = sitter_file(name)
    with Image.open(io.BytesIO(found.jpeg)) as picture:
        pixels = np.array(picture.convert("RGB"))
    return pixels, tuple(sorted((e.x, e.y, e.radius_px) for e in found.eyes))


@pytest.mark.parametrize("name", [*SITTERS, *_PHOTOGRAPHS])
def test_the_other_eye_is_found_from_either_one(name):
    picture, eyes = two_eyes(name)
    for marked, wanted, side in ((*eyes, "left"), (*eyes[::-1], "right")):
        found = partner_of(picture, Eye(side, *marked))
        assert found is not None and found.side == other_side(side)
        assert math.hypot(found.x - wanted[0], found.y - wanted[1]) < 0.75 * wanted[2]


def test_where_nothing_is_like_it_nothing_is_offered():
    grey = np.full((400, 400, 3), 128, np.uint8)
    assert partner_of(grey, Eye("left", 100, 200, 12)) is None
    assert partner_of(grey[:10, :10], Eye("left", 5, 5, 2)) is None
    assert partner_of(grey, Eye("left", 399, 399, 300)) is None


def _drawn(across: float) -> np.ndarray:
    """An iris of that diameter with pupil, glint and lid, at 120, 100, drawn at eight times its size and reduced."""
    import cv2

    big = np.full((8 * 200, 8 * 240, 3), (214, 190, 170), np.uint8)
    at, r = (8 * 120, 8 * 100), 8 * across / 2
    cv2.circle(big, at, round(r), (96, 70, 40), -1)
    cv2.circle(big, at, round(0.45 * r), (14, 12, 12), -1)
    cv2.circle(big, (at[0] - round(0.3 * r), at[1] - round(0.3 * r)), round(0.16 * r), (250, 250, 250), -1)
    cv2.rectangle(big, (0, 0), (8 * 240, at[1] - round(0.75 * r)), (190, 150, 130), -1)
    return cv2.resize(big, (240, 200), interpolation=cv2.INTER_AREA)


@pytest.mark.parametrize("across", [24.0, 41.0, 77.0])
def test_a_drag_is_set_to_the_rim_and_not_to_the_pupil(across):
    picture = _drawn(across)
    dice = np.random.default_rng(int(across))
    for _ in range(12):
        r = across / 2
        drag = Eye(
            "left",
            120 + dice.uniform(-0.15, 0.15) * r,
            100 + dice.uniform(-0.15, 0.15) * r,
            r * math.exp(dice.uniform(-0.15, 0.15)),
        )
        found = snapped(picture, drag)
        assert found is not None and found.side == "left"
        assert found.across_px == pytest.approx(across, rel=0.04)
        assert math.hypot(found.x - 120, found.y - 100) < 0.06 * across


def test_where_no_rim_is_clear_the_drag_is_left_alone():
    grey = np.full((300, 300, 3), 128, np.uint8)
    assert snapped(grey, Eye("left", 150, 150, 30)) is None
    assert snapped(grey, Eye("left", 150, 150, 2)) is None
    assert snapped(grey, Eye("left", -500, 150, 30)) is None
