"""What lies over a picture, painted: each kind is seen where it should be, on a light ground and on a dark one."""

import numpy as np
import pytest
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QColor, QImage, QPainter

from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.kit import overlays as o
from yarrow_lane.ui.paint.overlays import Place, paint_overlay

SIDE = 200


def painted(ground: int, *overlays: o.Overlay) -> np.ndarray:
    """(200, 200, 3) uint8: two px of the screen to each unit of the picture."""
    image = QImage(SIDE, SIDE, QImage.Format.Format_RGB32)
    image.fill(QColor(ground, ground, ground))
    painter = QPainter(image)
    place = Place(QPointF(0, 0), (2.0, 2.0), [], QRectF(0, 0, SIDE, SIDE))
    for overlay in overlays:
        paint_overlay(painter, overlay, place)
    painter.end()
    return np.frombuffer(image.constBits(), np.uint8).reshape(SIDE, SIDE, 4)[..., 2::-1].astype(int)


SQUARE = ((30.0, 30.0), (70.0, 30.0), (70.0, 70.0), (30.0, 70.0))


@pytest.mark.parametrize("ground", [5, 128, 250])
@pytest.mark.parametrize(
    ("overlay", "at"),
    [
        (o.Lattice(Rect(0, 0, 100, 100), (50.0,), (50.0,)), (100, 40)),
        (o.Outline(SQUARE), (60, 100)),
        (o.Box(Rect(30, 30, 40, 40), "here"), (60, 100)),
        (o.Ring((50, 50), 20.0), (60, 100)),
        (o.Cross((50, 50)), (100, 100)),
        (o.Grip((50, 50)), (100, 100)),
        (o.Arrow((50, 95), 0.0, 10.0, True, "upper left"), (100, 100)),
    ],
)
def test_each_is_seen_on_any_photograph(fonts, ground, overlay, at):
    """A dark line under a light one: near the place something is at least 60 codes away from the ground."""
    found = painted(ground, overlay)
    x, y = at
    near = found[y - 6 : y + 7, x - 6 : x + 7]
    assert np.abs(near - ground).max() >= 60
    assert (np.abs(found - ground).max(axis=2) > 8).mean() < 0.25, "and the rest of the picture stays to be seen"


def test_a_veil_dims_everything_but_what_it_goes_round(fonts):
    found = painted(200, o.Veil(SQUARE))
    assert (found[70:130, 70:130] == 200).all() and found[10, 10].max() < 150 and found[190, 100].max() < 150


def test_a_wash_covers_its_rectangle_and_a_tick_marks_it(fonts):
    found = painted(200, o.Wash(Rect(10, 10, 30, 30), (90, 40, 20)))
    assert (found[40, 40] == (90, 40, 20)).all() and (found[150, 150] == 200).all()
    ticked = painted(200, o.Wash(Rect(10, 10, 30, 30), (90, 40, 20), tick=True))
    assert (ticked != found).any() and (ticked[150, 150] == 200).all()


def test_words_that_would_cover_others_are_left_out(fonts):
    first, second, far = o.Words((20, 50), "forehead"), o.Words((22, 51), "left ear"), o.Words((20, 80), "chin")
    alone = painted(128, first)
    assert (painted(128, first, second) == alone).all()
    assert (painted(128, first, far) != alone).any()


def test_broken_lines_have_gaps(fonts):
    whole, dashes = (painted(128, o.Outline(SQUARE, line=line, weight=1.0)) for line in ("solid", "dashes"))
    shown = [(np.abs(p[58:63, 70:130] - 128).max(axis=(0, 2)) > 40).mean() for p in (whole, dashes)]
    assert shown[0] == 1.0 and shown[1] < 1.0
