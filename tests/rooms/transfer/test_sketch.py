"""A sketch photographed from paper: its lines stay, paper, light and room go."""

import cv2
import numpy as np
from scipy.spatial import cKDTree

from yarrow_lane.canvas_photo.straight import canvas_of, straightened
from yarrow_lane.measure.plane import Rect
from yarrow_lane.standins.camera import Taking, drawn_on, photograph
from yarrow_lane.transfer.sketch import cleaned, cut_out

PAPER = (210.0, 262.5)  # the canvas's proportion
CANVAS = (400.0, 500.0)


def test_lines_of_a_sketch_are_kept_and_land_in_place():
    angles = np.linspace(0, 2 * np.pi, 200)
    ring = np.stack([105 + 60 * np.cos(angles), 130 + 80 * np.sin(angles)], 1)

    def draw(picture: np.ndarray, px: float) -> None:
        cv2.polylines(picture, [np.rint(ring * px * 16).astype(np.int32)], True, (70, 70, 75), round(0.6 * px), cv2.LINE_AA, 4)

    paper = drawn_on(*PAPER, 5.0, 1, (243.0, 240.0, 233.0), draw)
    shot = photograph(paper, *PAPER, 12, Taking(aside=15, depth_mm=0.0, longer_px=2400))
    straight = straightened(shot.picture, shot.corners(*PAPER), CANVAS)
    clean = cleaned(canvas_of(shot.picture, straight, 3.0), 3.0)
    assert clean.shape[:2] == (1500, 1200)
    rows, columns = np.nonzero(clean[..., 0] < 128)
    ink = np.stack([columns, rows], 1) / 3.0
    true = ring * CANVAS[0] / PAPER[0]
    dense = np.concatenate([true, (true + np.roll(true, 1, 0)) / 2])
    assert (cKDTree(dense).query(ink)[0] < 2.0).mean() > 0.97, "nothing but the line is left"
    assert (cKDTree(ink).query(dense)[0] < 1.5).mean() > 0.95, "and the line is all there"
    assert np.median(clean) == 255


def test_a_sheet_shows_its_part():
    sketch = np.zeros((500, 400, 3), np.uint8)
    sketch[100:200, 50:150] = 255
    part = cut_out(sketch, (400.0, 500.0), Rect(50, 100, 100, 100))
    assert part.shape == (100, 100, 3) and part.min() == 255
