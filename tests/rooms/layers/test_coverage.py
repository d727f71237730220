"""One partition: every mm² once, whatever is drawn."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.rooms.layers.making import CANVAS, box, portrait
from yarrow_lane.layers import coverage
from yarrow_lane.layers.raster import labels_of, px_per_mm, rings_of_labels, without_specks
from yarrow_lane.layers.regions import (
    Layers,
    LayersTrouble,
    Region,
    add_lines,
    add_region,
    area_cm2,
    change_region,
    join,
    middle_of,
    move_corner,
    region_at,
    relaid,
    spread_of,
    wipe_region,
)  # fmt: skip
from yarrow_lane.measure.plane import Rect

WHOLE = CANVAS.width * CANVAS.height


def blob(x, y, r, bumps, seed):
    turns = np.linspace(0, 2 * math.pi, 24, endpoint=False)
    wave = 1 + 0.3 * np.sin(bumps * turns + seed)
    return tuple((x + r * w * math.cos(t), y + r * w * math.sin(t)) for t, w in zip(turns, wave, strict=True))


def total(layers):
    return sum(coverage.rings_mm2(r.rings) for r in layers.regions)


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.tuples(st.floats(0, 400), st.floats(0, 500), st.floats(3, 180), st.integers(0, 6)), min_size=1, max_size=9),
    st.integers(0, 5),
)
def test_areas_add_up_to_the_canvas_and_match_shapely(blobs, seed):
    layers = add_region(Layers(), "background", CANVAS.corners, CANVAS)
    shapes = []
    for x, y, r, bumps in blobs:
        outline = blob(x, y, r, bumps, seed)
        try:
            layers = add_region(layers, "fur", outline, CANVAS)
            shapes.append(shapely.make_valid(shapely.Polygon(outline), method="linework"))
        except LayersTrouble:
            shapes.append(shapely.Polygon())
    assert total(layers) == pytest.approx(WHOLE, abs=1.0)
    # Each region holds what no later one took: an independent overlay says the same.
    frame = shapely.box(0, 0, 400, 500)
    drawn = [s for s in shapes if not s.is_empty]
    for n, region in enumerate(r for r in layers.regions if r.kind == "fur"):
        assert coverage.rings_mm2(region.rings) > 0, n
    last = layers.regions[-1]
    if drawn and last.kind == "fur":
        assert coverage.rings_mm2(last.rings) == pytest.approx(shapely.intersection(drawn[-1], frame).area, rel=1e-4, abs=2.0)


def test_neighbours_share_a_border_not_a_corner():
    layers = add_region(Layers(), "background", CANVAS.corners, CANVAS)
    layers = add_region(layers, "fur", box(0, 0, 200, 250), CANVAS, "a")
    layers = add_region(layers, "fur", box(200, 250, 200, 250), CANVAS, "b")
    spread = spread_of(layers.regions)
    assert spread.neighbours[2] == (1,) and spread.neighbours[3] == (1,)
    assert spread.cm2 == {1: pytest.approx(1000), 2: pytest.approx(500), 3: pytest.approx(500)}


def test_a_region_may_have_holes_and_pieces():
    layers = portrait()
    head = layers.region(3)
    assert area_cm2(head) == pytest.approx((200 * 200 - 2 * 30 * 25) / 100)
    assert len(head.rings) == 3 and len(head.outers) == 1
    x, y = middle_of(head)
    assert region_at(layers, (x, y)).name == "head"
    halved = add_region(layers, "cloth", box(0, 100, 400, 20), CANVAS)
    assert len(halved.region(3).outers) == 2 and total(halved) == pytest.approx(WHOLE, abs=1)


def test_two_hundred_regions_and_one_of_a_square_millimetre():
    stack = [Region(n + 1, f"fur {n}", "fur", (box(5 + n % 20 * 19, 5 + n // 20 * 40, 15, 30),)) for n in range(200)]
    layers = relaid(Layers(next_id=201), stack, CANVAS)
    layers = add_region(layers, "eye", box(390.4, 490.4, 1.1, 1.1), CANVAS)
    assert len(layers.regions) == 202 and total(layers) == pytest.approx(WHOLE, abs=1)
    assert layers.regions[-1].kind == "eye" and area_cm2(layers.regions[-1]) == pytest.approx(0.0121)
    with pytest.raises(LayersTrouble, match="encloses no ground"):
        add_region(layers, "eye", box(1, 1, 0.5, 0.5), CANVAS)
    assert len({r.name for r in layers.regions}) == 202


def test_two_metres_of_canvas_are_worked_on_more_coarsely():
    large = Rect(0, 0, 2000, 2000)
    assert px_per_mm(CANVAS) == 2.0 and px_per_mm(large) * 2000 < 1400
    layers = add_region(add_region(Layers(), "background", large.corners, large), "fur", blob(1000, 1000, 600, 3, 1), large)
    assert total(layers) == pytest.approx(4e6, abs=1)


def test_regions_joined_wiped_and_dragged():
    layers = portrait()
    one = join(layers, 3, 4, CANVAS)
    assert {r.name for r in one.regions} == {"background", "body", "head", "right eye"} and total(one) == pytest.approx(WHOLE)
    assert area_cm2(one.region(3)) == pytest.approx(area_cm2(layers.region(3)) + 7.5)
    gone = wipe_region(layers, 4, CANVAS)
    assert region_at(gone, (145, 112)).name == "head" and total(gone) == pytest.approx(WHOLE)
    moved = move_corner(layers, (130.0, 100.0), (126.0, 97.0), CANVAS)
    assert total(moved) == pytest.approx(WHOLE) and area_cm2(moved.region(4)) > area_cm2(layers.region(4))
    with pytest.raises(LayersTrouble, match="would cross another border"):
        move_corner(layers, (130.0, 100.0), (300.0, 400.0), CANVAS)
    with pytest.raises(LayersTrouble, match="two that have ground"):
        join(layers, 3, 3, CANVAS)
    alone = add_region(Layers(), "background", CANVAS.corners, CANVAS)
    assert wipe_region(alone, 1, CANVAS).regions == ()


def test_whiskers_are_lines_over_what_lies_beneath():
    layers = add_lines(portrait(), (((150, 150), (90, 170)), ((155, 150), (60, 140))), 1)
    again = add_lines(layers, (((150, 152), (90, 200)),), 1)
    whiskers = again.regions[-1]
    assert len(whiskers.lines) == 3 and not whiskers.rings and total(again) == pytest.approx(WHOLE)
    assert set(spread_of(again.regions).neighbours[whiskers.id]) == {1, 2, 3}
    assert 0.5 < area_cm2(whiskers) < 2
    with pytest.raises(LayersTrouble, match="no length"):
        add_lines(layers, (((1, 1),),))
    assert change_region(again, whiskers) == again


def test_a_partition_out_of_what_lies_over_each_other():
    stack = [Region(1, "fur", "fur", (box(50, 50, 200, 200),)), Region(2, "eye", "eye", (box(100, 100, 20, 20),))]
    layers = relaid(Layers(next_id=3), stack, CANVAS)
    assert [r.kind for r in layers.regions] == ["fur", "eye", "background"] and layers.next_id == 4
    assert total(layers) == pytest.approx(WHOLE)
    assert not coverage.given({}, 1, shapely.Polygon(), shapely.box(0, 0, 1, 1))


def test_a_raster_of_labels_comes_back_as_it_was():
    yy, xx = np.mgrid[:600, :400]
    labels = np.ones((600, 400), np.int32)
    labels[(xx - 200) ** 2 + (yy - 250) ** 2 < 120**2] = 2
    labels[(xx - 160) ** 2 + (yy - 220) ** 2 < 20**2] = 3
    labels[420:] = 4
    canvas = Rect(0, 0, 200, 300)
    rings = rings_of_labels(labels, canvas)
    areas = {i: coverage.rings_mm2(r) for i, r in rings.items()}
    assert sum(areas.values()) == pytest.approx(200 * 300, abs=1.0)
    for i in (1, 2, 3, 4):
        assert areas[i] == pytest.approx((labels == i).sum() / 4, rel=0.02)
    assert (labels_of(rings, (400, 600), 2.0) != labels).mean() < 0.005
    assert coverage.meets(rings)[3] == {2}
    speckled = labels.copy()
    speckled[10:13, 10:13] = 2
    assert (without_specks(speckled, 30) == labels).all()
