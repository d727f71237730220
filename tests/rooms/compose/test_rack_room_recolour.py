"""The own rack, the piece in the client's photograph of the room, and parts tried in another colour."""

from dataclasses import replace

import cv2
import numpy as np
import pytest

from tests.rooms.compose.making import THREE, held
from yarrow_lane.compose.composition import Compose, ComposeTrouble, set_size
from yarrow_lane.compose.drawing.render import render
from yarrow_lane.compose.formats import stock_formats
from yarrow_lane.compose.pieces import Move, PieceTrouble
from yarrow_lane.compose.proofs import Proofs, drop_variant, keep_variant, next_name, swap_variant
from yarrow_lane.compose.rack import Rack, count, favourite_formats, like, of_composition, on_rack, put, words
from yarrow_lane.compose.recolour import Recoloured, checked
from yarrow_lane.compose.reference import reference_key
from yarrow_lane.compose.room import RoomTrouble, colour_at, hung_in, on_photo, on_wall, outline_on_photo
from yarrow_lane.compose.sides import Sides
from yarrow_lane.compose.wall import RoomPhoto
from yarrow_lane.measure.colour.cielab import lab_from_srgb8, linear_from_lab
from yarrow_lane.measure.colour.srgb import srgb8_from_linear
from yarrow_lane.measure.plane import Rect

# --- the rack


def test_canvases_are_put_counted_and_found_whichever_way_they_lie():
    lying = Compose(500, 400, sides=Sides(depth_mm=38))
    rack = put(
        put(Rack(), of_composition(lying, "linen")), of_composition(replace(lying, width_mm=400, height_mm=500), "linen")
    )
    (one,) = rack.stretched
    assert (one.left, one.short_mm, one.long_mm) == (2, 400, 500) and on_rack(rack, lying) == one
    assert words(one, "cm") == "40 × 50\u202fcm, linen, 38 mm deep"
    other = put(rack, of_composition(Compose(500, 400), "panel"))
    assert len(other.stretched) == 2 and on_rack(other, Compose(240, 300)) is None
    assert count(rack, one, 0).stretched == () and count(rack, one, 7).stretched[0].left == 7
    for bad in (-1, 100):
        with pytest.raises(ComposeTrouble):
            count(rack, one, bad)
    with pytest.raises(ComposeTrouble):
        of_composition(Compose(), "linen")


def test_favourites_are_stock_sizes_in_the_order_they_became_so():
    names = [f"{f.series} {f.name}" for f in stock_formats()[:3]]
    rack = like(like(like(Rack(), names[2], True), names[0], True), "iso nothing", True)
    assert [f"{f.series} {f.name}" for f in favourite_formats(rack)] == [names[2], names[0]]
    assert like(rack, names[2], False).favourites == (names[0], "iso nothing")


def test_classic_series_have_figure_landscape_and_marine_of_one_long_side():
    classic = {f.name: f for f in stock_formats() if f.series == "classic"}
    tens = [f for name, f in classic.items() if name.split()[0] == "10"]
    assert len(tens) == 3 and len({f.long_mm for f in tens}) == 1 and len({f.short_mm for f in tens}) == 3
    # The series of size 10: 55 x 46, 55 x 38, 55 x 33 cm (French series, widely published).
    assert sorted(f.short_mm for f in tens) == [330, 380, 460] and tens[0].long_mm == 550


def test_sitters_go_along_to_another_canvas_unsqueezed():
    after = set_size(THREE, 400, 600)
    for before, now in zip(THREE.pieces, after.pieces, strict=True):
        assert now.mm_per_px == pytest.approx(before.mm_per_px * 0.5)
        assert now.at_mm == pytest.approx((200 + (before.at_mm[0] - 400) * 0.5, 300 + (before.at_mm[1] - 300) * 0.5))


# --- the room

DOOR = RoomPhoto("r", ((300.0, 200.0), (520.0, 230.0), (510.0, 640.0), (310.0, 700.0)), 800.0, 2000.0, "door", (1600.0, 700.0))


def test_corners_of_a_known_thing_give_the_wall():
    for corner, flat in zip(DOOR.corners, ((0, 0), (800, 0), (800, 2000), (0, 2000)), strict=True):
        assert on_photo(DOOR, flat) == pytest.approx(corner, abs=1e-3)
    place = (1234.0, 567.0)
    assert on_wall(DOOR, on_photo(DOOR, place)) == pytest.approx(place, abs=1e-6)
    flat = replace(DOOR, corners=((0.0, 0.0), (80.0, 0.0), (80.0, 200.0), (0.0, 200.0)))
    found = np.array(outline_on_photo(flat, (500.0, 400.0)))
    assert found == pytest.approx(np.array(((135, 50), (185, 50), (185, 90), (135, 90))))


@pytest.mark.parametrize(
    "corners",
    [(), ((0, 0), (1, 0), (1, 1)), ((0, 0), (9, 9), (9, 0), (0, 9)), ((0, 0), (9, 0), (18, 0), (0, 9)), ((5, 5),) * 4],
)
def test_corners_that_tell_no_wall_are_said(corners):
    with pytest.raises(RoomTrouble):
        on_photo(replace(DOOR, corners=corners), (0, 0))
    with pytest.raises(RoomTrouble):
        on_photo(replace(DOOR, width_mm=0), (0, 0))


def test_the_piece_hangs_where_it_should_in_the_photograph():
    photo = np.full((900, 1200, 3), 150, np.uint8)
    art = np.zeros((400, 500, 3), np.uint8)
    art[:, :, 0] = 230
    for scale in (1.0, 0.5):
        small = cv2.resize(photo, None, fx=scale, fy=scale)
        found = hung_in(small, scale, DOOR, art, (500.0, 400.0))
        around = np.array(outline_on_photo(DOOR, (500.0, 400.0))) * scale
        red = (found[..., 0].astype(int) - found[..., 1]) > 120
        truth = cv2.fillPoly(np.zeros(red.shape, np.uint8), [np.round(around * 16).astype(np.int32)], 1, cv2.LINE_8, 4)
        # The border is a px wide, of a shape some forty px across.
        assert (red & (truth > 0)).sum() / (red | (truth > 0)).sum() > 0.9
        assert found[5, 5, 0] == 150, "far from it the wall is as it was"


def test_the_walls_colour_is_taken_from_the_photograph():
    photo = np.zeros((90, 120, 3), np.uint8)
    photo[:] = srgb8_from_linear(np.clip(linear_from_lab(np.array([70.0, -6.0, 9.0])), 0, 1))
    assert colour_at(photo, 0.1, (600, 450)) == pytest.approx((70, -6, 9), abs=0.8)
    with pytest.raises(RoomTrouble):
        colour_at(photo, 0.1, (5000, 450))


# --- parts in another colour

PART = Recoloured(9, "collar", ((300.0, 200.0), (360.0, 200.0), (360.0, 260.0), (300.0, 260.0)), Move(steps=1.0), 2.0)


def test_a_part_is_lighter_by_the_steps_it_was_given_and_only_there():
    plain = replace(THREE, pieces=())
    one = replace(plain, pieces=THREE.pieces[:1])
    sources = held(one)
    before, after = (render(c, sources, c.canvas, 1.0) for c in (one, replace(one, recoloured=(PART,))))
    light = [lab_from_srgb8(p[228:233, 328:333])[..., 0].mean() for p in (before, after)]
    assert light[1] - light[0] == pytest.approx(10, abs=0.6)
    assert np.array_equal(before[300:], after[300:])
    part = render(replace(one, recoloured=(PART,)), sources, Rect(310, 190, 100, 90), 1.0)
    assert np.abs(part.astype(int) - after[190:280, 310:410]).max() == 0, "parts are the very same as in the whole"


def test_only_what_is_seen_of_a_part_counts():
    key = reference_key(THREE)
    assert reference_key(replace(THREE, recoloured=(replace(PART, move=Move()),))) == key
    assert reference_key(replace(THREE, recoloured=(PART,))) != key
    assert reference_key(replace(THREE, recoloured=(PART,))) == reference_key(
        replace(THREE, recoloured=(replace(PART, name="tag"),))
    )
    for bad in ((), ((1, 1), (2, 2)), ((0, 0), (1, 0), (1, 1))):
        with pytest.raises(PieceTrouble):
            checked((), bad)
    with pytest.raises(PieceTrouble):
        checked((PART,) * 12, PART.outline)


# --- variants


def test_nothing_is_lost_when_a_variant_is_taken_up():
    proofs = keep_variant(Proofs(), "with a plain ground", THREE)
    other = replace(THREE, pieces=THREE.pieces[:2])
    after, taken = swap_variant(proofs, "with a plain ground", other)
    assert taken == THREE and other in [v.composed for v in after.variants]
    again, taken = swap_variant(after, next(v.name for v in after.variants if v.composed == other), THREE)
    assert taken == other and again == after, "what is kept already is not kept twice"
    assert next_name(after) == "variant B" and len(drop_variant(after, "variant A").variants) == 1
    for bad in ("", "  ", "with a plain ground"):
        with pytest.raises(ComposeTrouble):
            keep_variant(proofs, bad, other)
    with pytest.raises(ComposeTrouble):
        swap_variant(proofs, "gone", THREE)
