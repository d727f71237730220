"""The lines to draw: against the true borders of rendered sitters, and against what a plain edge finder makes of them."""

from dataclasses import replace
from functools import cache

import cv2
import numpy as np
import pytest
import shapely
from bench.borders import on_canvas, share_covered, true_borders
from skimage import data, feature, segmentation

from tests.rooms.compose.making import FENNEL, THREE
from yarrow_lane.compose.ground import Ground
from yarrow_lane.transfer.lines.base import as_bytes, from_bytes
from yarrow_lane.transfer.lines.cells import cells_of
from yarrow_lane.transfer.lines.choice import ALL, OUTLINE, USUAL, Choice, share_of, with_share
from yarrow_lane.transfer.lines.drawing import (
    LinesTrouble,
    distance,
    drawn,
    dropped,
    lines_to_draw,
    unit_of,
    with_level_there,
)
from yarrow_lane.transfer.lines.outlines import Outlines, outlines_of
from yarrow_lane.transfer.question import find_lines


@cache
def found(name):
    """A sitter on 30 x 40 cm or so, its lines, its true borders."""
    canvas = on_canvas(name, 1.0)
    base = find_lines(canvas.picture, canvas.px_per_mm, canvas.circles, [canvas.outline])
    return canvas, base


def long(line):
    return float(np.hypot(*np.diff(np.array(line.points), axis=0).T).sum())


@pytest.mark.parametrize("name", ["cat1", "rabbit1"])
def test_they_cover_the_true_borders_with_fewer_lines_than_a_plain_edge_finder(name):
    canvas, base = found(name)
    cut = Outlines((canvas.outline,), (canvas.outline,))
    lines = lines_to_draw(base, Choice(), canvas.size_mm, cut)
    share = share_covered(lines, true_borders(canvas), canvas.size_mm)
    assert share >= {"cat1": 0.80, "rabbit1": 0.93}[name]
    grey = cv2.cvtColor(canvas.picture, cv2.COLOR_RGB2GRAY)
    # The plain finder at the same length of line.
    total, sigma = sum(long(line) for line in lines), 2.0 * canvas.px_per_mm
    edges = [feature.canny(grey, sigma, q, q + 0.0, use_quantiles=True) for q in (0.9, 0.8, 0.7)]
    theirs = min(edges, key=lambda e: abs(e.sum() / canvas.px_per_mm - total))
    count, _ = cv2.connectedComponents(theirs.astype(np.uint8), connectivity=8)
    away = cv2.distanceTransform((~theirs).astype(np.uint8), cv2.DIST_L2, 5) / canvas.px_per_mm
    borders = cv2.resize(true_borders(canvas).astype(np.uint8), theirs.shape[::-1], interpolation=cv2.INTER_NEAREST) > 0
    assert share > (away[borders] <= 1.5).mean() and len(lines) < count


def test_the_slider_only_adds():
    canvas, base = found("cat1")
    few, usual, many = (lines_to_draw(base, Choice(level), canvas.size_mm, Outlines()) for level in (OUTLINE, USUAL, ALL))
    lengths = [sum(map(long, lines)) for lines in (few, usual, many)]
    assert lengths == sorted(lengths) and lengths[2] > 1.5 * lengths[0]
    many_shape = shapely.union_all([shapely.LineString(line.points) for line in many]).buffer(2.0)
    inside = sum(shapely.LineString(line.points).intersection(many_shape).length for line in few)
    assert inside / lengths[0] > 0.97, "what is drawn at first stays"
    assert [share_of(level) for level in (OUTLINE, ALL)] == pytest.approx([0, 100])
    assert with_share(Choice(), share_of(USUAL)).level == pytest.approx(USUAL, abs=1e-3)


def test_lines_are_smooth_at_least_a_centimetre_and_on_the_canvas():
    canvas, base = found("cat1")
    for line in lines_to_draw(base, Choice(ALL), canvas.size_mm, Outlines()):
        points = np.array(line.points)
        steps = np.hypot(*np.diff(points, axis=0).T)
        assert steps.sum() > 8 and steps.max() < 1.5 and len(line.weak) == len(points)
        assert points.min() > -2 and (points.max(0) < np.array(canvas.size_mm) + 2).all()


def test_no_line_of_the_background_and_the_outline_only_where_the_picture_has_none():
    canvas, base = found("cat1")
    alone = Outlines((canvas.outline,), (canvas.outline,), alone=True)
    lines = lines_to_draw(base, Choice(ALL), canvas.size_mm, alone)
    inside = shapely.Polygon(canvas.outline).buffer(5.0)
    own = [line for line in lines if line.source == "picture"]
    outside = sum(shapely.LineString(line.points).difference(inside).length for line in own)
    assert own and outside < 0.03 * sum(map(long, own))
    near = shapely.union_all([shapely.LineString(line.points) for line in lines]).buffer(3.0)
    edge = shapely.LineString(canvas.outline)
    on = shapely.box(2, 2, canvas.size_mm[0] - 2, canvas.size_mm[1] - 2)
    assert edge.intersection(on).difference(near).length < 0.1 * edge.length, "round the sitter a line runs everywhere"
    twice = [shapely.LineString(line.points) for line in lines if line.source == "outline"]
    beside = shapely.union_all([shapely.LineString(line.points) for line in own]).buffer(1.5)
    assert sum(t.intersection(beside).length for t in twice) < 0.3 * sum(t.length for t in twice), "not two lines for one edge"


def test_a_dropped_line_is_gone_one_drawn_is_there_and_a_part_has_its_own_level():
    canvas, base = found("rabbit1")
    size = canvas.size_mm
    lines = lines_to_draw(base, Choice(), size, Outlines())
    longest = max(lines, key=long)
    at = longest.points[len(longest.points) // 2]
    after = dropped(Choice(), lines, (at[0] + 1, at[1]), 4.0)
    left = lines_to_draw(base, after, size, Outlines())
    assert len(left) < len(lines) and min(distance(line, at) for line in left) > 1.5
    with pytest.raises(LinesTrouble, match="there is none"):
        dropped(Choice(), left, at, 0.5)
    by_hand = drawn(after, [(10.0, 10.0), (30.0, 12.0), (50.0, 10.0)])
    (own,) = [line for line in lines_to_draw(base, by_hand, size, Outlines()) if line.source == "hand"]
    assert own.points[0] == (10.0, 10.0) and own.points[-1] == (50.0, 10.0) and long(own) == pytest.approx(40, abs=1)
    assert drawn(Choice(), own.points).by_hand and dropped(by_hand, (own,), (30.0, 11.0), 3.0).by_hand == ()
    with pytest.raises(LinesTrouble, match="shorter than 2 mm"):
        drawn(Choice(), [(1.0, 1.0), (1.5, 1.0)])
    half = ((0.0, 0.0), (size[0] / 2, 0.0), (size[0] / 2, size[1]), (0.0, size[1]))
    more = lines_to_draw(base, with_level_there(Choice(OUTLINE), half, ALL), size, Outlines())
    few = lines_to_draw(base, Choice(OUTLINE), size, Outlines())
    right = [[line for line in some if min(x for x, _ in line.points) > size[0] / 2 + 10] for some in (more, few)]
    assert len(more) > len(few) and len(right[0]) == len(right[1]), "only on that half"
    with pytest.raises(LinesTrouble, match="smaller"):
        with_level_there(Choice(), ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0)), 5.0)


def test_a_base_is_the_same_after_the_disk_and_nothing_else_is_one():
    _, base = found("rabbit1")
    again = from_bytes(as_bytes(base))
    assert all(np.array_equal(getattr(base, n), getattr(again, n)) for n in ("points", "starts", "nodes", "level", "dark"))
    for bad in (b"", b"PK\x03\x04 no zip", as_bytes(base)[:500]):
        with pytest.raises(ValueError, match="no lines"):
            from_bytes(bad)


def test_the_front_sitter_hides_the_edge_of_the_one_behind():
    cut = outlines_of(replace(THREE, background=None, ground=Ground("colour")))
    assert cut.alone and len(cut.rings) == 3
    front = shapely.Polygon(cut.rings[0])  # the last placed stands in front
    for edge in cut.edges:
        assert shapely.LineString(edge).intersection(front.buffer(-1.0)).length < 1.0
    alone = outlines_of(replace(THREE, pieces=(FENNEL,), ground=Ground("photograph")))
    (ring,) = alone.rings
    assert sum(shapely.LineString(e).length for e in alone.edges) == pytest.approx(shapely.Polygon(ring).length, rel=0.02)
    assert not alone.alone, "the photograph behind has lines too"


@pytest.mark.parametrize("name", ["astronaut", "cat"])
def test_real_pictures_of_any_size_and_plain_ones_give_lines_or_none(name):
    picture = getattr(data, name)()[..., :3]
    base = find_lines(np.ascontiguousarray(picture), picture.shape[1] / 300.0, (), ())
    size = (300.0, 300.0 * picture.shape[0] / picture.shape[1])
    lines = lines_to_draw(base, Choice(), size, Outlines())
    assert 5 < len(lines) < 200 and all(long(line) > 8 for line in lines)


def test_cells_are_those_of_a_library_but_for_their_borders():
    rng = np.random.default_rng(4)
    plane = cv2.GaussianBlur(rng.random((160, 220)).astype(np.float32), (0, 0), 4.0)
    ours = cells_of(plane)
    hollows, _ = cv2.connectedComponents((plane <= cv2.erode(plane, np.ones((5, 5), np.uint8))).astype(np.uint8))
    _, seeds = cv2.connectedComponents((plane <= cv2.erode(plane, np.ones((5, 5), np.uint8))).astype(np.uint8))
    theirs = segmentation.watershed(plane, seeds) - 1
    assert len(np.unique(ours)) == hollows - 1 == len(np.unique(theirs))
    assert (ours == theirs).mean() > 0.93
    assert (cells_of(np.ones((20, 30), np.float32)) == 0).all(), "a plain surface is one cell"


def test_an_empty_picture_has_no_lines_and_a_large_canvas_larger_strokes():
    base = find_lines(np.full((200, 300, 3), 120, np.uint8), 1.0, (), ())
    assert lines_to_draw(base, Choice(ALL), (300.0, 200.0), Outlines()) == ()
    assert unit_of(240, 300) == 1.0 and unit_of(1000, 800) == 2.0
