"""The stock sizes nearest to a crop: what each cuts and adds, against a count of pixels."""

import numpy as np
import pytest

from yarrow_lane.compose.composition import Compose, frame
from yarrow_lane.compose.formats import SERIES, formats_of
from yarrow_lane.compose.nearest import distance, nearest_sizes

PHOTO = (1500, 1100)


def laid(width_mm: float, height_mm: float, width_px: float, centre: tuple[float, float]) -> Compose:
    return frame(Compose(width_mm, height_mm), "p", PHOTO, width_px, centre)


def counted(one, other) -> float:
    """Pixels of the photograph whose middles lie in both."""
    y, x = np.mgrid[0 : PHOTO[1], 0 : PHOTO[0]] + 0.5
    inside = [(r.x <= x) & (x < r.right) & (r.y <= y) & (y < r.bottom) for r in (one, other)]
    return float((inside[0] & inside[1]).sum())


@pytest.mark.parametrize("series", SERIES)
@pytest.mark.parametrize("size", [(240, 300), (400, 300), (305, 406)])
def test_what_each_cuts_and_adds_is_what_a_count_of_pixels_says(series, size):
    compose = laid(*size, 620, (700, 560))
    present = compose.background.crop
    found = nearest_sizes(compose, PHOTO, formats_of(series))
    assert 1 <= len(found) <= 3
    offs = []
    for near in found:
        both = counted(present, near.crop)
        assert near.cuts == pytest.approx(1 - both / (present.width * present.height), abs=0.01)
        assert near.adds == pytest.approx(1 - both / (near.crop.width * near.crop.height), abs=0.01)
        assert near.crop.width / near.crop.height == pytest.approx(near.composed.width_mm / near.composed.height_mm)
        assert (near.composed.width_mm > near.composed.height_mm) == (
            size[0] > size[1]
        ) or near.format.short_mm == near.format.long_mm
        assert (
            near.crop.x >= 0 and near.crop.right <= PHOTO[0] + 1e-6 and near.crop.y >= 0 and near.crop.bottom <= PHOTO[1] + 1e-6
        )
        offs.append(distance(compose, near.format))
    assert offs == sorted(offs), "the nearest comes first"
    assert len({round(n.format.long_mm / n.format.short_mm, 2) for n in found}) == len(found), "one of each proportion"


def test_what_is_near_is_near_in_size_too():
    found = nearest_sizes(laid(500, 700, 600, (700, 560)), PHOTO, formats_of("metric"))
    assert [n.format.name for n in found] == ["60 × 80 cm", "40 × 60 cm", "70 × 100 cm"]
    assert all(0.4 < n.composed.width_mm * n.composed.height_mm / 350_000 < 2.5 for n in found)


def test_without_a_crop_there_is_nothing_near():
    assert nearest_sizes(Compose(240, 300), PHOTO, formats_of("metric")) == ()
    assert nearest_sizes(Compose(), PHOTO, formats_of("metric")) == ()
