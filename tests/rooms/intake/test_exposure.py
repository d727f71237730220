"""What is cut off, and the colour cast, against pictures whose numbers are known."""

import numpy as np
import pytest
import skimage.data

from yarrow_lane.intake.exposure import Cast, cast_places, clipped, clipped_shares, colour_cast


def test_shares_are_counted_to_the_pixel():
    picture = np.full((100, 200, 3), 120, np.uint8)
    picture[:10] = 255  # a tenth burnt out
    picture[90:, :100] = 4  # a twentieth in the dark
    high, low = clipped_shares(picture)
    assert (high, low) == (0.1, 0.05)
    lights, shadows = clipped(picture)
    assert lights[:10].all() and not lights[10:].any() and shadows[90:, :100].all() and shadows.sum() == 1000


def test_what_a_camera_has_flattened_and_no_more():
    """The last codes of either end are flat in a camera's curve; a bright coat and a black nose are not."""
    lights, shadows = clipped(np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 3, axis=2))
    assert list(np.flatnonzero(lights[0])) == [252, 253, 254, 255]
    assert list(np.flatnonzero(shadows[0])) == list(range(9))


def test_one_bright_channel_is_not_a_shadow():
    """A deep red is no cut shadow: the brightest channel decides."""
    picture = np.zeros((10, 10, 3), np.uint8)
    picture[..., 0] = 90
    assert clipped_shares(picture) == (0.0, 0.0)


def test_strips_and_the_whole_agree():
    picture = skimage.data.astronaut()
    lights, shadows = clipped(picture)
    assert clipped_shares(picture) == pytest.approx((lights.mean(), shadows.mean()))


@pytest.mark.parametrize(("gain", "word"), [((1.0, 0.95, 0.72), "yellow"), ((0.7, 0.85, 1.0), "blue")])
def test_a_strong_cast_on_a_grey_scene_is_named(gain, word):
    dice = np.random.default_rng(6)
    greys = np.repeat(dice.integers(40, 240, (60, 60, 1)), 3, axis=2)
    neutral = np.kron(greys, np.ones((8, 8, 1))).astype(np.float32)
    assert colour_cast(neutral.astype(np.uint8)).words == "none seen"
    tinted = np.clip(neutral * np.array(gain), 0, 255).astype(np.uint8)
    assert word in colour_cast(tinted).words


def test_a_cast_is_said_only_when_both_guesses_agree():
    assert Cast((0, 12), (0, 2)).words == "none seen"
    assert Cast((0, 12), (0, -12)).words == "none seen"
    assert Cast((9, 12), (8, 9)).words == "may be too yellow and pink"


def test_a_black_picture_says_nothing():
    black = np.zeros((50, 50, 3), np.uint8)
    assert colour_cast(black) == Cast((0.0, 0.0), (0.0, 0.0))
    assert not cast_places(black)[0].any()
