"""The noise of a photograph, told from its texture."""

import numpy as np
import pytest

from tests.rooms.intake.degraded import sources
from yarrow_lane.intake.noise import noise_lstar
from yarrow_lane.measure.colour.cielab import lightness_from_srgb8


def test_noise_is_told_from_texture():
    """Known noise on a grey card is read within a tenth; fur without noise reads as almost none."""
    dice = np.random.default_rng(4)
    for sigma in (0.5, 2.0, 5.0):
        card = (60 + dice.normal(0, sigma, (400, 500))).astype(np.float32)
        # The calmest tenth of the blocks lies a little under the mean.
        assert noise_lstar(card) == pytest.approx(sigma, rel=0.15)
    assert noise_lstar(lightness_from_srgb8(sources()[0].picture)) < 0.5
