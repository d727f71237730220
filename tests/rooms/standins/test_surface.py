"""What the camera stand-in has before it: marks, paint over a share of them, a drawing of a hand."""

import numpy as np
import pytest
from scipy.spatial import cKDTree

from yarrow_lane.standins.camera import drawn_on
from yarrow_lane.standins.surface import DARK_INK, LIGHT_INK, drawn_by_hand, marked, painted, scribbles

SIZE = (300.0, 400.0)
PX = 2.0


def bare(ground=(200.0, 180.0, 150.0)) -> np.ndarray:
    return drawn_on(*SIZE, PX, 1, ground)


def at(picture: np.ndarray, points: np.ndarray) -> np.ndarray:
    places = np.clip((points * PX).astype(int), 0, [picture.shape[1] - 1, picture.shape[0] - 1])
    return picture[places[:, 1], places[:, 0]].astype(int)


@pytest.mark.parametrize(("ground", "ink"), [((200.0, 180.0, 150.0), DARK_INK), ((90.0, 75.0, 70.0), LIGHT_INK)])
def test_scribbles_are_seen_where_they_are_told(ground, ink):
    strokes = scribbles(*SIZE, 30, 7)
    canvas = bare(ground)
    with_marks = marked(canvas, PX, strokes, ink, 7)
    points = np.concatenate([np.array(s) for s in strokes])
    inside = points[np.all((points > 2) & (points < np.array(SIZE) - 2), 1)]
    off = np.abs(at(with_marks, inside) - at(canvas, inside)).max(1)
    assert np.mean(off > 20) > 0.9
    assert (np.abs(with_marks.astype(int) - canvas).max(-1) > 20).mean() < 0.15, "and the ground is left alone"
    assert scribbles(*SIZE, 30, 7) == strokes and scribbles(*SIZE, 30, 8) != strokes


@pytest.mark.parametrize("share", [0.0, 0.4, 0.7, 1.0])
def test_paint_covers_so_much_of_the_marks(share):
    strokes = scribbles(*SIZE, 40, 3)
    with_marks = marked(bare(), PX, strokes, DARK_INK, 3)
    painting = np.full((40, 30, 3), (20, 200, 40), np.uint8)
    later = painted(with_marks, painting, PX, strokes, share, 3)
    points = np.concatenate([np.array(s) for s in strokes])
    points = points[np.all((points > 2) & (points < np.array(SIZE) - 2), 1)]
    green = at(later, points)
    covered = (green[:, 1] > green[:, 0] + 60).mean()
    assert covered == pytest.approx(share, abs=0.12)


def test_a_hand_draws_nearly_what_it_should():
    line = tuple((x, 200.0 + 30 * np.sin(x / 30)) for x in np.arange(30, 270, 0.5))
    canvas = bare()
    drawn = drawn_by_hand(canvas, PX, (line,), DARK_INK, 5)
    rows, columns = np.nonzero(np.abs(drawn.astype(int) - canvas).max(-1) > 40)
    ink = np.stack([columns, rows], 1) / PX
    away = cKDTree(np.array(line)).query(ink)[0]
    assert 0.3 < np.median(away) < 6 and away.max() < 14, "off as a whole and pushed somewhere, yet the same line"
    assert (cKDTree(ink).query(np.array(line))[0] < 12).mean() > 0.8, "with gaps, but most of it"
