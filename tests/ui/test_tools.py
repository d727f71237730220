"""What a hand does on a picture, without a window: press, move, release."""

import pytest

from yarrow_lane.measure.plane import Rect
from yarrow_lane.ui.kit.frame import Frame
from yarrow_lane.ui.kit.overlays import Box, Grip, Outline, Ring, Words
from yarrow_lane.ui.kit.tools import Handles, OutlineTool, PointsTool, RingTool


def test_a_crop_is_moved_and_pulled_by_its_corners_in_its_proportion():
    done = []
    tool = Handles(lambda w, c: Rect(c[0] - w / 2, c[1] - w / 4, w, w / 2), lambda w, c: done.append((w, c)))
    assert tool.overlays == () and tool.hint((1, 1), 5) == "arrow"
    tool.show(Rect(100, 100, 200, 100))
    assert isinstance(tool.overlays[0], Box) and sum(isinstance(o, Grip) for o in tool.overlays) == 4
    assert tool.hint((200, 150), 5) == "move" and tool.hint((101, 101), 5) == "falling" and tool.hint((300, 101), 5) == "rising"
    tool.press((200, 150), 5)
    assert tool.move((210, 145)) and tool.rect == Rect(110, 95, 200, 100)
    tool.show(Rect(0, 0, 20, 10))
    assert tool.rect == Rect(110, 95, 200, 100), "a drag under way is not disturbed"
    tool.release((210, 145))
    assert done == [(200, (210, 145))]
    for corner, to, width, centre in (
        ((310, 195), (510, 200), 400, (310, 195)),  # the larger pull decides; the opposite corner stays
        ((110, 95), (210, 95), 200, (210, 145)),
    ):
        tool.show(Rect(110, 95, 200, 100))
        tool.press(corner, 5)
        tool.move(to)
        tool.release(to)
        if corner == (310, 195):
            assert done[-1] == (width, centre)
    tool.press((900, 900), 5)
    assert not tool.move((1, 1)) and not tool.dragging
    tool.press((200, 150), 5)
    tool.release((200, 150))
    assert len(done) == 3, "a click without a move changes nothing"


def test_an_outline_is_closed_by_a_double_click_and_taken_back_corner_by_corner():
    closed, changes = [], []
    tool = OutlineTool(closed.append, lambda: changes.append(tool.corners))
    tool.press((1, 1), 5)
    assert not tool.drawing and tool.overlays == () and tool.hint((0, 0), 5) == "arrow"
    tool.begin()
    for at in ((0, 0), (10, 0), (10, 10)):
        tool.press(at, 5)
    assert tool.move((5, 5)) and tool.hint((0, 0), 5) == "cross"
    line = tool.overlays[0]
    assert isinstance(line, Outline) and line.points == ((0, 0), (10, 0), (10, 10), (5, 5)) and not line.closed
    tool.step_back()
    tool.double((10, 10))
    assert tool.drawing, "two corners are no outline"
    tool.press((0, 10), 5)
    tool.double((0, 10))
    assert closed == [((0, 0), (10, 0), (0, 10))] and tool.drawing, "whoever is told decides"
    tool.shut = True
    tool.press((4, 4), 5)
    tool.double((4, 4))
    assert len(tool.corners) == 3 and len(closed) == 1 and tool.overlays[0].closed
    tool.begin()
    tool.press((3, 3), 5)
    tool.give_up()
    assert tool.corners is None and len(closed) == 1


def test_marks_are_chosen_and_places_taken():
    chosen, placed = [], []
    tool = PointsTool(chosen.append, placed.append)
    tool.area, tool.marks, tool.patch = Rect(0, 0, 100, 100), ((7, (20, 20)), (8, (60, 60))), 4.0
    for at in ((22, 21), (50, 50), (150, 50)):
        tool.press(at, 6)
    assert chosen == [7] and placed == [(50, 50)]
    tool.move((30, 40))
    assert tool.overlays == (Box(Rect(28, 38, 4, 4), "light", 1.0),)
    tool.move((300, 40))
    assert tool.overlays == ()


def test_a_ring_is_drawn_from_rim_to_rim():
    marked = []
    tool = RingTool(lambda c, r: marked.append((c, r)))
    assert not tool.move((3, 3)) and tool.overlays == ()
    tool.press((10, 10), 8)
    assert tool.move((40, 50))
    ring, words = tool.overlays
    assert isinstance(ring, Ring) and isinstance(words, Words) and words.text == "50\u202fpx"
    tool.release((40, 50))
    assert marked == [((25, 30), 25)]
    tool.press((10, 10), 8)
    tool.release((11, 10))
    tool.release((90, 90))
    assert len(marked) == 1, "a click without a drag marks nothing"


def test_views_that_share_a_frame_look_at_the_same_place():
    frame, seen = Frame(), []
    frame.changed.connect(lambda: seen.append((frame.zoom, frame.centre, frame.mirrored, frame.grey)))
    frame.look(2.0, (0.3, 0.4))
    frame.look(2.0, (0.3, 0.4))
    frame.turn(mirrored=True, grey=True)
    frame.turn(mirrored=True)
    frame.fit()
    assert [s[0] for s in seen] == [2.0, 2.0, 1.0] and frame.whole and frame.grey
    frame.turn(upside_down=True)
    assert frame.flips == (True, True) and pytest.approx(frame.zoom) == 1.0
