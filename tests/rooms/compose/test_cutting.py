"""Cutting a sitter out of a photograph, against rendered sitters with true masks and pictures that ship with scikit-image."""

import numpy as np
import pytest
import skimage.data
from bench import fringes, hands
from hypothesis import given
from hypothesis import strategies as st

from tests.rooms.compose.sitters import sitter
from yarrow_lane.compose.cutting.band import INSIDE, OUTSIDE, UNKNOWN, trimap
from yarrow_lane.compose.cutting.cut import Cut, CutTrouble, Stroke, look_here, whole_mask
from yarrow_lane.compose.cutting.outline import crosses_itself, curve, drag, filled, outlined, traced
from yarrow_lane.compose.cutting.soft import cut_out, softened
from yarrow_lane.compose.pieces import Ring
from yarrow_lane.measure.colour.cielab import lab_from_linear
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.progress import Cancelled, Progress


@pytest.mark.parametrize(
    ("name", "drawn", "least"), [("cat1", "traced", 0.95), ("rabbit1", "loop", 0.96), ("person1", "loop", 0.94)]
)
def test_a_rough_outline_finds_the_sitter_and_strokes_mend_it(name, drawn, least):
    picture, truth = sitter(name)
    height, width = truth.shape
    cut = Cut(picture, hands.outline(truth, drawn, 11), drawn)
    first = hands.iou(whole_mask(cut.found, width, height), truth)
    assert first > least
    for _ in range(3):
        stroke = hands.mending_stroke(whole_mask(cut.found, width, height), truth)
        if stroke is not None:
            cut.stroke(stroke)
    assert hands.iou(whole_mask(cut.found, width, height), truth) > max(0.965, first - 0.002)


def test_what_a_stroke_touches_is_settled():
    picture, truth = sitter("cat1")
    cut = Cut(picture, hands.outline(truth, "traced", 3))
    ys, xs = np.nonzero(hands.body(truth))
    middle = float(np.median(xs)), float(np.median(ys))
    line = (middle, (middle[0] + 20, middle[1]))
    cut.stroke(Stroke(line, 8.0, False))
    mask = whole_mask(cut.found, truth.shape[1], truth.shape[0])
    assert mask[int(middle[1]), int(middle[0]) + 10] == 0, "a hole that was stroked out stays open"
    cut.stroke(Stroke(line, 10.0, True))
    mask = whole_mask(cut.found, truth.shape[1], truth.shape[0])
    assert mask[int(middle[1]), int(middle[0]) + 10] == 1


def test_the_astronaut_and_the_cat_of_scikit_image_are_found():
    astronaut = skimage.data.astronaut()
    loop = ((60, 510), (90, 330), (130, 180), (170, 20), (280, 20), (330, 200), (420, 330), (470, 510))
    mask = whole_mask(Cut(astronaut, loop, "loop").found, 512, 512)
    assert mask[130, 225] and mask[300, 225], "face and suit are hers"
    assert not mask[60, 420] and not mask[300, 60], "the shuttle and the flag are not"
    cat = skimage.data.chelsea()
    round_it = ((60, 299), (70, 60), (130, 2), (200, 30), (300, 20), (370, 60), (400, 299))
    found = whole_mask(Cut(cat, round_it).found, 451, 300)
    assert found[120:200, 150:300].mean() > 0.98, "the face is hers"


def test_weak_stretches_are_named_where_the_border_is_unsure():
    flat = np.full((300, 300, 3), 120, np.uint8)  # nothing to be seen: the border rests on the drawn line alone
    circle = tuple((150 + 80 * np.cos(t), 150 + 80 * np.sin(t)) for t in np.linspace(0, 6.28, 12, endpoint=False))
    weak = look_here(Cut(flat, circle).found)
    assert weak and all(40 < np.hypot(x - 150, y - 150) < 120 for x, y in weak)
    sharp = flat.copy()
    ys, xs = np.mgrid[:300, :300]
    sharp[np.hypot(xs - 150, ys - 150) < 80] = (220, 60, 40)
    assert look_here(Cut(sharp, circle).found) == (), "a sharp border needs no look"


@pytest.mark.parametrize("outline", [(), ((5, 5), (90, 90)), ((-50, -50), (-10, -50), (-30, -5)), ((9, 9), (9, 9), (9, 9))])
def test_an_outline_round_nothing_is_said(outline):
    with pytest.raises(CutTrouble):
        Cut(np.zeros((100, 100, 3), np.uint8), outline)


def test_a_crossed_outline_and_one_beyond_the_picture_do_no_harm():
    picture = skimage.data.chelsea()
    crossed = ((100, 60), (300, 200), (300, 60), (100, 200))
    beyond = ((-100, -100), (700, -50), (600, 500), (-50, 400))
    for outline in (crossed, beyond):
        assert whole_mask(Cut(picture, outline).found, 451, 300).any()


def test_cutting_can_be_stopped():
    picture, truth = sitter("cat1")
    with pytest.raises(Cancelled):
        Cut(picture, hands.outline(truth, "traced", 0), "traced", Progress(stopped=lambda: True))


# --- lines


@pytest.mark.parametrize("name", ["cat1", "rabbit1"])
def test_a_line_of_few_points_holds_the_mask(name):
    truth = hands.body(sitter(name)[1])
    tolerance = max(truth.shape) / 500  # 1 mm on a canvas of 50 cm
    rings = traced(truth, tolerance)
    assert sum(map(len, rings)) < 260
    assert hands.iou(filled(rings, truth.shape[1], truth.shape[0]), truth) > 0.994
    assert not any(crosses_itself(r) for r in rings)
    again = traced(filled(rings, truth.shape[1], truth.shape[0]), tolerance)
    assert hands.iou(filled(again, truth.shape[1], truth.shape[0]), truth) > 0.99


def test_holes_are_lines_of_their_own():
    mask = np.zeros((200, 200), np.uint8)
    mask[20:180, 20:180] = 1
    mask[80:120, 80:120] = 0
    rings = traced(mask, 1.0)
    assert [len(r) > 3 for r in rings] == [True, True] and max(x for x, _ in rings[0]) > 170, "the largest comes first"
    speck = np.zeros((300, 300), np.uint8)
    speck[5:20, 5:20] = speck[100:250, 100:250] = 1
    assert min(x for x, _ in traced(speck, 1.0)[0]) > 90
    assert len(rings) == 2 and hands.iou(filled(rings, 200, 200), mask) > 0.99


@given(st.integers(0, 11), st.floats(-40, 40), st.floats(-40, 40), st.floats(0, 120))
def test_a_dragged_point_goes_where_it_is_put_and_back(place, dx, dy, reach):
    ring = tuple((100 + 60 * np.cos(t), 100 + 60 * np.sin(t)) for t in np.linspace(0, 2 * np.pi, 12, endpoint=False))
    to = ring[place][0] + dx, ring[place][1] + dy
    moved = drag(ring, place, to, reach)
    assert moved[place] == pytest.approx(to)
    assert drag(ring, place, to, 0.0)[(place + 6) % 12] == ring[(place + 6) % 12], "without reach the others stay"
    assert curve(moved).shape == (12 * 8, 2)


# --- soft edges


def test_the_band_is_as_wide_as_the_coat_and_none_along_the_pictures_edge():
    square = ((100.0, 0.0), (300.0, 0.0), (300.0, 300.0), (100.0, 300.0))
    fine = tuple((float(x), float(y)) for a, b in zip(square, (*square[1:], square[0]), strict=True)
                 for x, y in np.linspace(a, b, 20, endpoint=False))  # fmt: skip
    widths = {}
    for coat in ("f", "s"):
        band = trimap((Ring(fine, coat * len(fine)),), 400, 400, 1000.0)
        widths[coat] = int((band[150] == UNKNOWN).sum()) / 2
        assert (band[0, 120:280] == INSIDE).all() and band[350, 50] == OUTSIDE
    assert widths["f"] == pytest.approx(17, abs=2) and widths["s"] == pytest.approx(5, abs=2)


@pytest.mark.parametrize(("care", "most"), [("quick", 0.14), ("careful", 0.12)])
def test_made_fringes_come_out_with_their_own_colours(care, most):
    picture, truth = sitter("cat1", 2000)
    made = fringes.made(picture[300:700, 300:700], truth[300:700, 300:700], "coffee")
    mask = (made.alpha > 0.5).astype(np.uint8)
    rings = traced(mask, 2.0)
    band = trimap(tuple(Ring(r) for r in rings), 400, 400, 2000.0)
    alpha, colours = softened(made.picture, band, 2000.0, care)
    fringe = (made.alpha > 0.02) & (made.alpha < 0.98)
    assert np.abs(alpha - made.alpha)[fringe].mean() < most
    apart = []
    for code in (255, 0, 128):
        ground = linear_from_srgb8(np.full((1, 1, 3), code, np.uint8))
        true = linear_from_srgb8(made.front) * made.alpha[..., None] + ground * (1 - made.alpha[..., None])
        found = linear_from_srgb8(colours) * alpha[..., None] + ground * (1 - alpha[..., None])
        apart.append(np.linalg.norm(lab_from_linear(found[fringe]) - lab_from_linear(true[fringe]), axis=1).mean())
    assert np.mean(apart) < 8, "no old background is left in the hair"


def test_a_cut_out_knows_what_part_of_the_photograph_it_shows():
    picture, truth = sitter("rabbit1")
    ring = Ring(traced(hands.body(truth), 3.0)[0])
    cut = cut_out(picture, (ring,), 0.5, "quick")
    assert cut.rgba.shape[1] == pytest.approx(cut.box.width * 0.5, abs=1)
    ys, xs = np.nonzero(hands.body(truth))
    middle = (np.median(xs) - cut.box.x) * 0.5, (np.median(ys) - cut.box.y) * 0.5
    assert cut.rgba[int(middle[1]), int(middle[0]), 3] == 255
    for bad in ((), (Ring(((-90.0, -90.0), (-50.0, -90.0), (-70.0, -50.0))),)):
        with pytest.raises(CutTrouble):
            cut_out(picture, bad, 1.0, "quick")


def test_the_lines_of_a_cut_lie_on_the_photograph():
    picture, truth = sitter("cat1")
    found = Cut(picture, hands.outline(truth, "traced", 5)).found
    rings = outlined(found)
    mask = filled(rings, truth.shape[1], truth.shape[0])
    assert hands.iou(mask, whole_mask(found, truth.shape[1], truth.shape[0])) > 0.985
