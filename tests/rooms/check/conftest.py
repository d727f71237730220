"""One painting by the stand-in hand and its photographs, made once for all tests of Check."""

import numpy as np
import pytest

from tests.rooms.check.planting import PX_PER_MM, sitter
from yarrow_lane.measure.raster import resample
from yarrow_lane.standins.easel_photo import shot_by_stand_in

SIZE = (240.0, 320.0)


@pytest.fixture(scope="session")
def reference():
    """A cat as 24 x 32 cm at 2.5 px a mm."""
    picture = sitter("cat1").picture
    scale = picture.shape[1] / SIZE[0]
    assert scale == pytest.approx(PX_PER_MM * 300 / 240)
    return np.ascontiguousarray(resample(picture, round(SIZE[0] * 2.5), round(SIZE[1] * 2.5)))


@pytest.fixture(scope="session")
def shots(reference):
    """The stand-in hand's painting as it erred, after two places were mended, and once more of that state."""
    ground = (150, 118, 90)
    return [shot_by_stand_in(SIZE, ground, reference, n) for n in (0, 2)]
