"""The painting taken apart: what is on lies at the painting, what is to come hangs apart in order, words stay inside, hands reach all of it."""

from itertools import pairwise

import pytest
from PySide6.QtCore import QPoint, Qt

from yarrow_lane.ui.rooms.deliver.exploded import ExplodedView
from yarrow_lane.ui.rooms.deliver.parts_view import PartShown

DEPTHS = {
    "parcel": -3.1,
    "frame": -2.1,
    "hanging": -1.0,
    "sides": 0.0,
    "signature": 0.35,
    "varnish 1": 0.55,
    "varnish 2": 1.1,
    "glassine": 2.0,
}
SIZES = ((450, 330), (822, 590), (1500, 900))


def parts(state: str = "ahead", **own: str) -> tuple[PartShown, ...]:
    return tuple(
        PartShown(k, k.title(), ("first words", "second words"), own.get(k.replace(" ", "_"), state), d)
        for k, d in DEPTHS.items()
    )


@pytest.fixture
def view(qtbot, fonts):
    made = ExplodedView()
    qtbot.addWidget(made)
    made.show()
    return made


def shown(view, size, found, painting=(240.0, 300.0)) -> None:
    view.resize(*size)
    view.show_parts(found, None, painting, "#40302a")
    view.grab()


@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("painting", [(240.0, 300.0), (600.0, 400.0), (200.0, 900.0)])
def test_what_is_to_come_hangs_apart_in_order_and_inside_the_table(view, size, painting):
    shown(view, size, parts(), painting)
    middles = [sum(c.x() for c in view.outline(p)) / 4 for p in parts() if p.key not in ("sides", "signature")]
    assert all(a < b for a, b in pairwise(middles)), "from the back at the left to the front at the right"
    for part in parts():
        for corner in view.outline(part):
            assert -size[0] * 0.05 <= corner.x() <= size[0] * 1.05, part.key


@pytest.mark.parametrize("size", SIZES)
def test_what_is_on_lies_at_the_painting(view, size):
    shown(view, size, parts("on"))
    home = view.outline(next(p for p in parts("on") if p.key == "varnish 1"))
    for key in ("varnish 2", "hanging"):
        assert view.outline(next(p for p in parts("on") if p.key == key)) == home


@pytest.mark.parametrize("size", SIZES)
def test_words_do_not_cover_each_other(view, size):
    shown(view, size, parts(varnish_1="next"))
    places = [place for _, place in view.labels()]
    assert not any(a.intersects(b) for n, a in enumerate(places) for b in places[n + 1 :])
    assert "Varnish 1: next" in view.accessibleName() and "Parcel: still to come" in view.accessibleName()


def test_every_part_is_reached_by_mouse_and_keys(qtbot, view):
    shown(view, SIZES[1], parts())
    touched = []
    view.touched.connect(touched.append)
    for part, place in view.labels():
        qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=place.center().toPoint())
        assert touched[-1] == part.key
    qtbot.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(2, 200))
    assert len(touched) == len(DEPTHS), "beside all of them nothing is touched"
    for _ in DEPTHS:
        qtbot.keyClick(view, Qt.Key.Key_Right)
        qtbot.keyClick(view, Qt.Key.Key_Space)
    assert set(touched[len(DEPTHS) :]) == set(DEPTHS)


def test_without_parts_nothing_is_touched(qtbot, view):
    shown(view, SIZES[0], ())
    qtbot.keyClick(view, Qt.Key.Key_Space)
    qtbot.keyClick(view, Qt.Key.Key_Left)
    assert view.labels() == []


def _cross(a, b, c, d) -> bool:
    """Whether two lines cross between their ends."""

    def side(p, q, r) -> float:
        return (q.x() - p.x()) * (r.y() - p.y()) - (q.y() - p.y()) * (r.x() - p.x())

    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0


@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("state", ["on", "ahead"])
def test_no_line_to_the_words_crosses_another_nor_the_words(view, size, state):
    shown(view, size, parts(state))
    below = [(p, place) for p, place in view.labels() if place.top() > size[1] / 2]
    lines = [(place.topLeft(), view._dot(p)) for p, place in below]
    assert not any(_cross(*one, *other) for n, one in enumerate(lines) for other in lines[n + 1 :])
    lowest = max(c.y() for p in parts(state) for c in view.outline(p))
    assert state == "ahead" or lowest < min(place.top() for _, place in below), "what is packed stands clear of its words"
