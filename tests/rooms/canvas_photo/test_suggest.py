"""Where a canvas seems to lie: a guess that lands near, and none where there is nothing."""

from datetime import UTC, datetime

import numpy as np
import pytest
import skimage.data

from yarrow_lane.canvas_photo.suggest import suggested_corners
from yarrow_lane.canvas_photo.taken import MOST_KEPT, Taken, usual_corners, with_corner, with_newest
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.standins.surface import DARK_INK, marked, scribbles


@pytest.mark.parametrize("size", [(400.0, 500.0), (500.0, 400.0), (1500.0, 1000.0)])
def test_a_canvas_in_a_room_is_found_nearly(size):
    off = []
    for seed in range(3):
        px = 1000 / max(size)
        canvas = marked(drawn_on(*size, px, seed, (205.0, 190.0, 160.0)), px, scribbles(*size, 30, seed), DARK_INK, seed)
        shot = photograph(canvas, *size, 700 + seed, Taking(longer_px=1600, aside=15))
        found = suggested_corners(shot.picture, size[0] / size[1])
        off.append(np.inf if found is None else float(np.hypot(*(found - shot.corners(*size)).T).max()) / 1600)
    assert np.median(off) < 0.02, "a hand pulls it right from there"
    assert sum(o < 0.06 for o in off) >= 2


def test_nothing_is_guessed_where_nothing_is():
    flat = np.full((600, 800, 3), 140, np.uint8)
    assert suggested_corners(flat, 0.8) is None
    grass = skimage.data.grass()
    found = suggested_corners(np.repeat(grass[..., None], 3, 2), 0.8)
    assert found is None or found.shape == (4, 2)


def test_the_first_photograph_is_kept_and_corners_are_put_elsewhere():
    now = datetime(2026, 11, 26, tzinfo=UTC)
    photos: tuple[Taken, ...] = ()
    for n in range(MOST_KEPT + 5):
        photos = with_newest(photos, Taken(str(n), f"{n}.jpg", (800, 600), now, usual_corners(800, 600, 400, 500)))
    assert len(photos) == MOST_KEPT and photos[0].photo_id == "0" and photos[-1].photo_id == str(MOST_KEPT + 4)
    moved = with_corner(photos[0], 2, (1.234, 5.678))
    assert moved.corners[2] == (1.23, 5.68) and moved.corners[:2] == photos[0].corners[:2]
    (left, top), (right, _), (_, bottom), _ = photos[0].corners
    assert (right - left) / (bottom - top) == pytest.approx(0.8) and bottom - top == pytest.approx(480)
