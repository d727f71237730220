"""The picture that is panned, zoomed, turned and mirrored: places go to the screen and back."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication

from tests.journeys.hands import keys
from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.kit.levels import make_levels, qimage, tinted
from yarrow_lane.ui.kit.overlays import Outline
from yarrow_lane.ui.kit.picture_view import PictureView


def view_of(qtbot, width=400, height=300) -> PictureView:
    view = PictureView("A picture")
    qtbot.addWidget(view)
    view.resize(600, 500)
    picture = np.zeros((height, width, 3), np.uint8)
    picture[:, : width // 2] = (200, 30, 30)
    view.show_levels(make_levels(picture), (width, height))
    return view


@pytest.mark.parametrize("mirrored", [False, True])
@pytest.mark.parametrize("upside_down", [False, True])
def test_every_place_comes_back_from_the_screen(qtbot, mirrored, upside_down):
    view = view_of(qtbot)
    view.frame.turn(mirrored, upside_down)

    @given(st.floats(0, 400), st.floats(0, 300), st.floats(0.3, 8))
    def check(x, y, factor):
        view.fit()
        view.zoom(factor, QPointF(100, 100))
        assert view.to_content(view.to_screen((x, y))) == pytest.approx((x, y), abs=1e-6)

    check()


def colour_at(view: PictureView, point) -> tuple[int, int, int]:
    at = view.to_screen(point).toPoint()
    colour = view.grab().toImage().pixelColor(at)
    return colour.red(), colour.green(), colour.blue()


@pytest.mark.parametrize(("mirrored", "upside_down"), [(False, False), (True, False), (False, True), (True, True)])
def test_what_is_drawn_stands_where_its_place_says(qtbot, mirrored, upside_down):
    view = view_of(qtbot)
    view.frame.turn(mirrored, upside_down)
    view.show()
    assert colour_at(view, (100, 150)) == (200, 30, 30)
    assert colour_at(view, (300, 150)) == (0, 0, 0)
    left = view.to_screen((100, 150)).x() < view.width() / 2
    # Mirrored shows left as right; upside down is a half turn; both together leave left on the left.
    assert left == (mirrored == upside_down)


def test_zooming_keeps_what_is_under_the_pointer(qtbot):
    view = view_of(qtbot)
    under = QPointF(200, 170)
    before = view.to_content(under)
    wheel = QWheelEvent(
        under, under, QPoint(), QPoint(0, 240), Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase, False,
    )  # fmt: skip
    QApplication.sendEvent(view, wheel)
    assert view.to_content(under) == pytest.approx(before)
    keys(qtbot, view, "0")
    fitted = view.scale
    keys(qtbot, view, "+", "-")
    assert view.scale == pytest.approx(fitted)
    for _ in range(80):
        view.zoom(2.0, under)
    assert view.scale <= 40.0


def test_an_area_fills_the_view_without_being_stretched(qtbot):
    view = view_of(qtbot)
    view.fit(Rect(100, 100, 60, 20))
    shown = view.screen_rect(Rect(100, 100, 60, 20))
    assert shown.width() == pytest.approx(600) and shown.height() == pytest.approx(200)
    assert shown.center().y() == pytest.approx(250)


def test_grey_arrays_and_masks_become_pictures():
    grey = qimage(np.full((4, 6), 77, np.uint8))
    assert grey.pixelColor(2, 2).getRgb()[:3] == (77, 77, 77)
    lights, shadows = np.zeros((8, 8), np.uint8), np.zeros((8, 8), np.uint8)
    lights[:, :4], shadows[:, 4:] = 255, 255
    both = tinted(lights, shadows)
    red, blue, clear = both.pixelColor(0, 0), both.pixelColor(7, 0), both.pixelColor(0, 4)
    assert red.red() > 200 > red.blue() and red.alpha() > 0
    assert {both.pixelColor(x, y).blue() > 200 for x in (4, 5, 6, 7) for y in range(8)} == {True, False}
    assert clear.alpha() == 0 or blue.alpha() >= 0


@pytest.mark.parametrize(("mirrored", "upside_down"), [(False, False), (True, False), (False, True), (True, True)])
def test_an_outline_lies_where_each_of_its_points_lies(qtbot, mirrored, upside_down):
    """Lines of many points are laid on the screen at once; places one by one."""
    view = view_of(qtbot)
    view.frame.turn(mirrored, upside_down)
    view.show()
    square = Rect(220, 40, 120, 90)
    before = [colour_at(view, at) for at in (square.centre, (150, 250))]
    view.show_overlays(Outline(square.corners, closed=True, flat=(20, 200, 60)))
    assert before == [(0, 0, 0), (200, 30, 30)]
    for x, y in ((225, 45), (335, 45), (225, 125), (335, 125), square.centre):
        assert colour_at(view, (x, y)) == (20, 200, 60)
    for x, y in ((210, 85), (350, 85), (280, 30), (280, 140), (180, 85)):
        assert colour_at(view, (x, y)) == ((0, 0, 0) if x > 200 else (200, 30, 30)), "nothing of it stands elsewhere"
    view.zoom(1.7, QPointF(300, 250))
    assert colour_at(view, (230, 85)) == (20, 200, 60)
