"""The composition as a picture: exact places, no seams between tiles, the same under the hand as at rest."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.rooms.compose.making import FENNEL, MOSS, PHOTOS, THREE, held
from yarrow_lane.compose.composition import Compose, Framed
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.colour_move import moved_light
from yarrow_lane.compose.drawing.dragging import Dragging
from yarrow_lane.compose.drawing.layers import Tile
from yarrow_lane.compose.drawing.render import Held, render
from yarrow_lane.compose.drawing.sprite import Sprite
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, Piece, mirrored, moved, scaled, to_canvas, to_photo, turned
from yarrow_lane.compose.places import places_of_px, seen_at, widened
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.measure.colour.cielab import lab_from_linear, linear_from_lab
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.plane import Rect

HELD = held(THREE)
BEHIND = replace(THREE, ground=Ground("photograph", blur_mm=12.0, move=Move(steps=0.6, warm=-5)))


@pytest.mark.parametrize("compose", [THREE, BEHIND, replace(THREE, ground=Ground("colour"))])
@pytest.mark.parametrize("part", [Rect(0, 0, 137, 600), Rect(137, 41, 400, 300), Rect(333, 77, 467, 523)])
def test_parts_are_the_very_same_as_in_the_whole(compose, part):
    whole = render(compose, HELD, compose.canvas, 1.0)
    found = render(compose, HELD, part, 1.0)
    x, y = int(part.x), int(part.y)
    same = whole[y : y + found.shape[0], x : x + found.shape[1]]
    assert np.abs(found.astype(int) - same.astype(int)).max() == 0


@pytest.mark.parametrize(
    ("turn", "mirror", "scale"), [(0, False, 0.5), (17, False, 0.31), (-40, True, 0.77), (90, True, 0.25), (3.3, True, 0.1)]
)
def test_a_dot_comes_out_where_its_place_says(turn, mirror, scale):
    rgba = np.zeros((600, 800, 4), np.uint8)
    dots = ((100.5, 80.5), (700.5, 90.5), (400.5, 300.5), (650.5, 520.5))
    ys, xs = np.mgrid[:600, :800]
    for x, y in dots:
        rgba[np.hypot(xs + 0.5 - x, ys + 0.5 - y) <= 6] = 255
    ring = (PieceRing,)
    piece = Piece(1, "dots", "p", ring, (400, 300), (500, 400), scale, turn, mirror)
    compose = Compose(1000, 800, "", None, Ground("colour", ((0.0, 0.0, 0.0),) * 2), (piece,))
    picture = render(compose, Held({}, {1: CutOut(rgba, Rect(0, 0, 800, 600), 1.0)}), compose.canvas, 4.0)
    for dot in dots:
        x, y = to_canvas(piece, dot)
        reach = int(8 * scale * 4) + 4
        left, top = int(x * 4) - reach, int(y * 4) - reach
        if left < 0 or top < 0 or left + 2 * reach > 4000 or top + 2 * reach > 3200:
            continue
        part = linear_from_srgb8(picture[top : top + 2 * reach, left : left + 2 * reach])[..., 1]
        rows, columns = np.mgrid[: 2 * reach, : 2 * reach]
        found = (left + ((columns + 0.5) * part).sum() / part.sum()) / 4, (top + ((rows + 0.5) * part).sum() / part.sum()) / 4
        assert found == pytest.approx((x, y), abs=0.05)


PieceRing = FENNEL.outline[0]


@pytest.mark.parametrize("piece_id", [1, 2, 3])
def test_under_the_hand_it_is_the_very_picture_it_is_at_rest(piece_id):
    scale = 0.7
    tile = Tile(0, 0, 560, 420, scale)
    dragging = Dragging(BEHIND, piece_id, lambda p: HELD.sprite(p, 1.0), PHOTOS["p3"], tile)
    assert np.array_equal(dragging.picture, render(BEHIND, HELD, BEHIND.canvas, scale))
    for step in ((5, 3), (-40, 22), (300, -200), (2, 2)):
        dragging.shift(*step)
        here = replace(BEHIND, pieces=tuple(dragging.piece if p.id == piece_id else p for p in BEHIND.pieces))
        assert np.array_equal(dragging.picture, render(here, HELD, here.canvas, scale)), step


def test_turned_under_the_hand_it_is_near_the_picture_at_rest():
    tile = Tile(0, 0, 560, 420, 0.7)
    dragging = Dragging(BEHIND, 2, lambda p: HELD.sprite(p, 1.0), PHOTOS["p3"], tile)
    after = turned(scaled(MOSS, 1.2, MOSS.at_mm), 20, MOSS.at_mm)
    dragging.become(after)
    here = replace(BEHIND, pieces=tuple(after if p.id == 2 else p for p in BEHIND.pieces))
    apart = np.abs(dragging.picture.astype(int) - render(here, HELD, here.canvas, 0.7).astype(int))
    assert np.median(apart) <= 6 and dragging.picture.shape == (420, 560, 3)


@given(st.floats(-900, 900), st.floats(-900, 900), st.floats(-180, 180), st.booleans(), st.floats(0.05, 5))
def test_canvas_and_photograph_name_the_same_place(x, y, turn, mirror, scale):
    piece = replace(FENNEL, turn_deg=turn, mirrored=mirror, mm_per_px=scale)
    assert to_photo(piece, to_canvas(piece, (x, y))) == pytest.approx((x, y), abs=1e-6)


def test_steps_keep_what_they_promise():
    about = (250.0, 240.0)
    for after in (scaled(FENNEL, 1.7, about), turned(FENNEL, 33, about)):
        assert to_canvas(after, to_photo(FENNEL, about)) == pytest.approx(about)
    twice = mirrored(mirrored(MOSS))
    assert to_canvas(twice, (300, 200)) == pytest.approx(to_canvas(MOSS, (300, 200)))
    assert to_canvas(moved(PIECE, 3, -2), (0, 0)) == pytest.approx(tuple(np.add(to_canvas(PIECE, (0, 0)), (3, -2))))


PIECE = THREE.pieces[2]


def test_the_front_one_is_seen_and_a_place_is_found_again():
    both = to_canvas(PIECE, (470, 330))
    seen = seen_at(THREE, both)
    assert seen.piece_id == 3 and seen.photo_id == "p3" and seen.at_px == pytest.approx((470, 330))
    assert seen_at(THREE, (5, 595)) is None and seen_at(BEHIND, (5, 595)).piece_id == 0
    ((piece_id, at),) = places_of_px(THREE, "p3", (470, 330))
    assert piece_id == 3 and at == pytest.approx(both)
    back = replace(THREE, pieces=THREE.pieces[::-1])
    assert seen_at(back, (430, 350)).piece_id == 1, "now Fennel stands in front of Moss"


def test_the_name_follows_what_is_seen():
    key = reference_key(THREE)
    unseen = (
        replace(THREE, pieces=(replace(FENNEL, name="other", far=1.4), *THREE.pieces[1:])),
        replace(THREE, ground=replace(THREE.ground, blur_mm=4.0)),
        replace(THREE, background=None),
        replace(THREE, meant=("gaze 1",), next_piece=9),
    )
    assert {reference_key(c) for c in unseen} == {key}
    seen = (
        replace(THREE, pieces=THREE.pieces[::-1]),
        replace(THREE, pieces=(moved(FENNEL, 0.01, 0), *THREE.pieces[1:])),
        replace(THREE, ground=Ground("colour")),
        replace(THREE, pieces=(replace(FENNEL, move=Move(steps=0.1)), *THREE.pieces[1:])),
    )
    assert len({key, *(reference_key(c) for c in seen)}) == 5


@pytest.mark.parametrize("as_chosen", [int, float])
def test_the_name_of_a_photograph_alone_is_what_it_was_before_there_were_pieces(as_chosen):
    width, height, *crop = map(as_chosen, (200, 250, 40, 20, 320, 400))
    framed = Compose(width, height, "metric 20 × 25 cm", Framed("p1", Rect(*crop)))
    # The name the program before pieces (commit 1643639) gave to these numbers as read from a studio, where they are floats.
    assert reference_key(framed) == "5317d87f3ab2cb76", "studios painted from it would all be told that it changed"


@pytest.mark.parametrize("lightness", [20.0, 50.0, 80.0])
def test_a_move_is_told_in_the_steps_it_makes(lightness):
    grey = linear_from_lab(np.array([[lightness, 0.0, 0.0]]))
    lighter = lab_from_linear(moved_light(grey, Move(steps=0.8)))[0]
    assert lighter[0] == pytest.approx(lightness + 8, abs=0.1)
    warmer = lab_from_linear(moved_light(grey, Move(warm=8)))[0]
    assert warmer[0] == pytest.approx(lightness, abs=0.3) and warmer[2] > 2 and warmer[1] > 1
    assert moved_light(grey, Move()) is grey


def test_a_wrapped_canvas_shows_more_of_the_same_picture():
    wide = widened(BEHIND, 40)
    assert (wide.width_mm, wide.height_mm) == (880, 680)
    inner = render(wide, HELD, Rect(40, 40, 800, 600), 1.0)
    plain = render(BEHIND, HELD, BEHIND.canvas, 1.0)
    assert np.abs(inner.astype(int) - plain.astype(int)).max() <= 1


def test_levels_are_never_enlarged_while_a_finer_one_is_there():
    cut = CutOut(np.full((64, 64, 4), 255, np.uint8), Rect(0, 0, 128, 128), 0.5)
    sprite = Sprite(cut, Move())
    assert [sprite.level_for(s) for s in (1.0, 0.5, 0.26, 0.25, 0.06)] == [0, 0, 0, 1, 3]
    assert sprite.level(3).shape == (8, 8, 4) and sprite.level(3).min() == 32768
