"""Pieces of pictures against a plain average in linear light, exact to the fraction of a pixel."""

import numpy as np
import pytest
import skimage.data
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.colour.cielab import lightness_from_srgb8
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.measure.plane import Rect
from yarrow_lane.measure.progress import Cancelled, Progress
from yarrow_lane.measure.raster import cut, halvings, piece, resample, resized


def hairs(dark: int = 30, light: int = 230) -> np.ndarray:
    """Light hairs 2 px wide, every 6 px, on dark: a third of the light."""
    picture = np.full((240, 240, 3), dark, np.uint8)
    picture[:, ::6] = picture[:, 1::6] = light
    return picture


def true_lightness(picture: np.ndarray) -> float:
    mean = linear_from_srgb8(picture).reshape(-1, 3).mean(axis=0)
    return float(lightness_from_srgb8(srgb8_from_linear(mean[None].astype(np.float32)))[0])


@pytest.mark.parametrize("shrink", [3, 6, 7.5])
@pytest.mark.parametrize(("dark", "light"), [(30, 230), (0, 255), (80, 140)])
def test_light_hairs_on_dark_keep_their_lightness(shrink, dark, light):
    """Averaging codes instead of light would lose 13 L* of white hairs."""
    picture = hairs(dark, light)
    side = round(240 / shrink)
    small = piece(picture, Rect(0, 0, 240, 240), side, side)
    mean = linear_from_srgb8(small).reshape(-1, 3).mean(axis=0)
    kept = lightness_from_srgb8(srgb8_from_linear(mean[None].astype(np.float32)))[0]
    assert kept == pytest.approx(true_lightness(picture), abs=0.5)
    if shrink == 6:  # one hair to a pixel: each pixel has the lightness by itself
        assert lightness_from_srgb8(small) == pytest.approx(true_lightness(picture), abs=0.5)


def test_every_way_of_shrinking_blends_light():
    picture = hairs()
    whole = true_lightness(picture)
    for small in (resized(picture, 40), halvings(picture, 40)[-1][:, 2:-2]):
        light = linear_from_srgb8(small).reshape(-1, 3).mean(axis=0)
        assert lightness_from_srgb8(srgb8_from_linear(light[None].astype(np.float32)))[0] == pytest.approx(whole, abs=1.0)
    assert resized(picture, 400).shape == picture.shape, "never enlarged"
    assert [p.shape[0] for p in halvings(picture, 40)] == [240, 120, 60, 30]


@given(
    st.integers(0, 5), st.integers(0, 5), st.integers(1, 5), st.integers(1, 5), st.integers(2, 8), st.integers(2, 8)
)  # fmt: skip
def test_whole_pixels_are_averaged_exactly(x, y, kx, ky, width, height):
    """Where each pixel of the result covers kx by ky whole ones, it is their mean."""
    picture = skimage.data.astronaut()[100:180, 180:260]
    kx, ky = kx + 1, ky + 1
    found = piece(picture, Rect(x, y, kx * width, ky * height), width, height)
    part = linear_from_srgb8(picture[y : y + ky * height, x : x + kx * width])
    mean = part.reshape(height, ky, width, kx, 3).mean(axis=(1, 3), dtype=np.float64)
    assert np.abs(found.astype(int) - srgb8_from_linear(mean.astype(np.float32))).max() <= 1


@pytest.mark.parametrize("shift", [0.0, 0.25, 0.5, 0.8])
def test_a_fraction_of_a_pixel_counts(shift):
    """A ramp of light, shrunk and enlarged: each pixel shows the light at its own middle."""
    ramp = np.linspace(0.02, 0.98, 40, dtype=np.float32)
    picture = srgb8_from_linear(np.repeat(np.tile(ramp, (20, 1))[:, :, None], 3, axis=2))
    for width_px, height_px in ((10, 4), (120, 48)):
        rect = Rect(4 + shift, 4, 30, 12)
        row = linear_from_srgb8(piece(picture, rect, width_px, height_px))[2, :, 0]
        middles = rect.x + (np.arange(width_px) + 0.5) * rect.width / width_px
        expected = np.interp(middles - 0.5, np.arange(40), ramp)
        assert abs(float((row - expected).mean())) < 0.0025, "a tenth of a pixel; half of one would be 0.012"
        assert np.abs(row - expected).max() < 0.01, "two roundings to codes"


def test_beyond_the_edge_the_edge_goes_on():
    picture = skimage.data.astronaut()[:30, :40]
    outside = piece(picture, Rect(-80, -60, 80, 60), 8, 6)
    assert (outside == outside[0, 0]).all() and np.abs(outside[0, 0].astype(int) - picture[0, 0]).max() <= 1
    assert piece(picture, Rect(39.6, 29.6, 0.4, 0.4), 3, 3).shape == (3, 3, 3)
    assert cut(picture, Rect(-5, -5, 1, 1)).shape == (1, 1, 3) and cut(picture, Rect(99, 2, 9, 3)).shape == (3, 1, 3)


def test_a_mask_keeps_its_values_and_work_can_be_stopped():
    mask = np.zeros((40, 40), np.float32)
    mask[:, 20:] = 1.0
    assert resample(mask, 10, 10).mean() == pytest.approx(0.5) and resample(mask, 80, 80).shape == (80, 80)
    with pytest.raises(Cancelled):
        piece(skimage.data.astronaut(), Rect(0, 0, 512, 512), 100, 100, Progress(stopped=lambda: True))
