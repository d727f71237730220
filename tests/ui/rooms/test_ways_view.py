"""The ways side by side: rows that fit, bars as long as their time, a click that takes the right one."""

from itertools import pairwise

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest

from yarrow_lane.transfer.job import Job
from yarrow_lane.transfer.offers import offer
from yarrow_lane.transfer.ways import WAYS
from yarrow_lane.ui.rooms.transfer.ways_view import Row, WaysView

JOB = Job(400.0, 500.0, 1200.0, 60.0, 80, 14, 1.5, 6, None)


@pytest.fixture
def view(qtbot):
    took: list[str] = []
    found = WaysView(took.append)
    qtbot.addWidget(found)
    found.took = took
    rows = tuple(Row(offer(way, JOB), way == "tracing", "all of it" if way == "squares" else "") for way in WAYS)
    found.show_rows("What each takes", rows)
    return found


@pytest.mark.parametrize("size", [(360, 300), (820, 640), (1600, 1000)])
def test_rows_lie_below_each_other_inside_the_view(view, size):
    view.resize(*size)
    view.show()
    rects = [view.row_rect(n) for n in range(len(WAYS))]
    assert all(one.bottom() <= other.top() for one, other in pairwise(rects))
    assert rects[0].top() > 0 and rects[-1].bottom() <= size[1] and rects[0].right() <= size[0]
    picture = view.grab().toImage()
    assert len({picture.pixelColor(x, round(rects[0].center().y())).name() for x in range(0, size[0], 2)}) > 3, "it is painted"


def test_a_click_takes_the_way_under_it_and_none_beside(view):
    view.resize(800, 600)
    view.show()
    for number, way in enumerate(WAYS):
        QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=view.row_rect(number).center().toPoint())
        assert view.took[-1] == way
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(400, 5))
    QTest.mouseClick(view, Qt.MouseButton.RightButton, pos=view.row_rect(0).center().toPoint())
    assert len(view.took) == len(WAYS)


def test_the_pointer_over_a_way_tells_all_of_it(view):
    view.resize(400, 500)
    view.show()
    QTest.mouseMove(view, view.row_rect(3).center().toPoint())
    assert "6 sheets at true size" in view.toolTip() and "nothing but the line" in view.toolTip()
    QTest.mouseMove(view, QPoint(200, 3))
    assert view._row_at(QPointF(200, 3)) == -1


def test_the_longest_time_has_the_longest_bar(view):
    """Read from the picture: dark px along the bar's row, way by way, run as the minutes do."""
    view.resize(900, 620)
    view.show()
    image = view.grab().toImage()
    lengths = []
    for number in range(len(WAYS)):
        place = view.row_rect(number)
        y = round(place.top() + place.height() / 4)
        lengths.append(sum(image.pixelColor(x, y).lightness() < 120 for x in range(210, 780)))
    drawn = [offer(way, JOB).draw for way in WAYS]
    order = sorted(range(len(WAYS)), key=drawn.__getitem__)
    assert [lengths[n] for n in order] == sorted(lengths)
    assert lengths[0] / lengths[3] == pytest.approx(drawn[0] / drawn[3], rel=0.1)
