"""The ground a cut-out is judged on is the ground it will lie on: the same light, at the same places."""

from dataclasses import replace

import numpy as np
import pytest

from tests.rooms.compose.making import FENNEL, MOSS, PHOTOS, PIP, SIZE, THREE, held
from yarrow_lane.compose.cutting.cut_out import CutOut
from yarrow_lane.compose.drawing.on_ground import ground_behind, on_ground, plain_ground
from yarrow_lane.compose.drawing.render import render
from yarrow_lane.compose.ground import Ground
from yarrow_lane.compose.pieces import Move, to_canvas
from yarrow_lane.compose.places import seen_twice
from yarrow_lane.measure.colour.srgb import linear_from_srgb8
from yarrow_lane.measure.plane import Rect

GROUNDS = (Ground("gradient", ((20.0, 5.0, 0.0), (80.0, 0.0, 10.0))), Ground("photograph", blur_mm=15.0, move=Move(steps=0.5)))


@pytest.mark.parametrize("ground", GROUNDS)
@pytest.mark.parametrize("piece", [FENNEL, MOSS], ids=["turned", "mirrored"])
def test_behind_the_sitter_is_what_the_picture_has_there(ground, piece):
    compose = replace(THREE, ground=ground, pieces=(replace(PIP, at_mm=(-5000.0, 0.0)),))  # none in the way
    rendered = linear_from_srgb8(render(compose, held(compose), compose.canvas, 1.0))
    light = ground_behind(compose, piece, PHOTOS["p3"], *SIZE, 1.0)
    compared = 0
    for x, y in ((200.5, 150.5), (400.5, 320.5), (600.5, 450.5), (300.5, 500.5)):
        on_canvas = to_canvas(piece, (x, y))
        column, row = (int(p) for p in on_canvas)
        if 8 < column < 792 and 8 < row < 592:
            there = rendered[row - 4 : row + 5, column - 4 : column + 5].mean((0, 1))
            here = light[int(y) - 4 : int(y) + 5, int(x) - 4 : int(x) + 5].mean((0, 1))
            assert here == pytest.approx(there, abs=0.02)
            compared += 1
    assert compared >= 2


def test_the_sitter_lies_on_it_where_it_is_and_nothing_else_changes():
    rgba = np.zeros((40, 60, 4), np.uint8)
    rgba[..., 0], rgba[..., 3] = 255, 255
    picture = on_ground(CutOut(rgba, Rect(20, 10, 60, 40), 1.0), 100, 80, plain_ground("grey"))
    assert picture.shape == (80, 100, 3)
    assert (picture[10:50, 20:80] == (255, 0, 0)).all() and picture[5, 5] == pytest.approx([119, 119, 119], abs=1), "L* 50"
    assert (picture == picture[0, 0]).all(2).sum() == 100 * 80 - 60 * 40


def test_one_moved_off_its_own_picture_behind_is_seen_twice():
    own = replace(THREE, ground=Ground("photograph"), pieces=tuple(p for p in THREE.pieces if p.photo_id == "p3"))
    at_home = replace(own.pieces[0], at_mm=own.pieces[0].anchor, mm_per_px=1.0, turn_deg=0.0)
    assert seen_twice(replace(own, pieces=(at_home,))) == ()
    away = replace(at_home, at_mm=(at_home.at_mm[0] - 250, at_home.at_mm[1]))
    assert [p.id for p in seen_twice(replace(own, pieces=(away,)))] == [at_home.id]
    before_it = replace(FENNEL, at_mm=at_home.at_mm, mm_per_px=2.0)
    assert seen_twice(replace(own, pieces=(away, before_it))) == (), "another sitter hides its picture"
    assert seen_twice(replace(own, ground=Ground("colour"), pieces=(away,))) == ()
