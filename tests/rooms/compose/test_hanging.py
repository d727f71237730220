"""Edges, frames, walls and what is seen from afar, against arithmetic done by hand and published definitions."""

import math
from dataclasses import replace

import numpy as np
import pytest

from yarrow_lane.compose.fitting_sizes import advised_sizes, misfit
from yarrow_lane.compose.formats import formats_of
from yarrow_lane.compose.hanging import diagonal_wanted, hung, width_wanted
from yarrow_lane.compose.seen_from import carries_mm, paint_words, seen_from, smallest_mm, usual_details
from yarrow_lane.compose.sides import (
    Sides,
    SidesTrouble,
    checked,
    cloth_mm,
    outer,
    paint_area_cm2,
    picture_round_mm,
)
from yarrow_lane.compose.wall import Furniture, Wall


def test_a_floating_frame_and_a_mount_add_what_they_measure():
    framed = Sides("dark", 38, frame="floating", gap_mm=6, bar_mm=12)
    size = outer(framed, 800, 600)
    assert (size.width_mm, size.height_mm, size.from_left) == (836, 636, 18)
    mounted = replace(framed, mount_mm=50, mount_foot_mm=10)
    size = outer(mounted, 300, 400)
    assert (size.width_mm, size.height_mm, size.from_top) == (300 + 2 * 68, 400 + 2 * 68 + 10, 68)
    assert outer(Sides(), 300, 400).width_mm == 300


def test_edges_are_counted():
    deep = Sides("wrapped", 38)
    assert picture_round_mm(deep) == 41 and picture_round_mm(Sides("dark", 38)) == 0
    assert paint_area_cm2(deep, 800, 600) == pytest.approx(2 * 140 * 3.8)
    assert cloth_mm(deep, 800, 600) == (800 + 2 * 88, 600 + 2 * 88)
    for bad in (Sides(depth_mm=-1), Sides(gap_mm=99), Sides(bar_mm=900), Sides(mount_mm=math.nan)):
        with pytest.raises(SidesTrouble):
            checked(bad)


def test_one_minute_of_arc_is_what_its_definition_says():
    assert smallest_mm(1000) == pytest.approx(1000 * math.tan(math.radians(1 / 60)), rel=1e-6)
    assert [round(smallest_mm(mm), 2) for mm in (500, 1000, 2000, 2500, 4000)] == [0.15, 0.29, 0.58, 0.73, 1.16]
    assert carries_mm(smallest_mm(2345)) == pytest.approx(2345)
    names = [d.name for d in usual_details(18.0)]
    assert names[-1] == "glint in the eye" and "single hairs" in names and len({paint_words(d) for d in (500, 2500, 4000)}) == 3


def test_from_afar_what_is_finer_than_a_minute_of_arc_is_gone_and_the_light_stays():
    xs = np.arange(400)
    stripes = np.where((xs // 2) % 2 == 0, 230, 30).astype(np.uint8)
    picture = np.broadcast_to(stripes[None, :, None], (60, 400, 3)).copy()  # 4 px a pair, at 4 px per mm 1 mm a pair
    near, far = seen_from(picture, 4.0, 500), seen_from(picture, 4.0, 4000)
    contrast = [float(np.ptp(p[30, 100:300, 0].astype(int))) for p in (picture, near, far)]
    assert contrast[1] > 0.8 * contrast[0] and contrast[2] < 0.35 * contrast[0]
    light = [float(((p / 255.0) ** 2.2)[:, 50:350].mean()) for p in (picture, far)]
    assert light[1] == pytest.approx(light[0], rel=0.03)


def test_it_hangs_above_what_stands_below_else_at_eye_height():
    wall = Wall(furniture=Furniture("sofa", 1800, 820))
    size = outer(Sides(), 800, 600)
    over = hung(wall, size)
    assert over.lower_mm == 1020 and over.middle_mm == 1320 and over.of_width == pytest.approx(800 / 1800)
    assert width_wanted(wall) == pytest.approx((1200, 1350))
    free = hung(Wall(free_width_mm=2000), size)
    assert free.middle_mm == 1500 and free.of_width == 0.4 and free.wanted == (0.5, 0.75)
    assert hung(Wall(), size).of_width == 0 and width_wanted(Wall()) is None
    assert diagonal_wanted(3000) == (1500, 2000)


def test_stock_sizes_are_advised_by_wall_distance_and_photograph():
    wall = Wall(free_width_mm=1400, distance_mm=1500)
    best = advised_sizes(wall, 4 / 3, formats_of("metric"), None)
    assert best[0].off <= best[1].off <= best[2].off
    for a in best[:1]:
        wide = a.format.long_mm
        assert 0.45 * 1400 <= wide <= 0.8 * 1400, "about half to three quarters of the wall"
    thin = advised_sizes(wall, 4 / 3, formats_of("metric"), (300.0, 225.0))
    assert thin[0].format.long_mm < best[0].format.long_mm or "more than the photograph carries" in thin[0].why


def test_how_far_a_size_is_off_is_told_part_by_part():
    """By hand: logarithms of ratios, none within what is wanted."""
    exact = misfit((300, 400), 0.75, (200, 350), (450, 550), (300, 400))
    assert exact.off == pytest.approx(0.0, abs=1e-12) and exact.wall_words == "suits the wall"
    m = misfit((400, 400), 0.75, (600, 900), (1131.37085, 2000), (200, 400))
    assert (
        m.askew == pytest.approx(math.log(4 / 3))
        and m.wide == pytest.approx(-math.log(1.5))
        and m.wall_words == "narrow for the wall"
    )
    assert m.large == pytest.approx(-math.log(2), abs=1e-6) and m.thin == pytest.approx(math.log(2))
    assert m.off == pytest.approx(4 * m.askew + math.log(1.5) + 3 * math.log(2), abs=1e-6)
    wide = misfit((800, 600), 4 / 3, (400, 700), None, None)
    assert (wide.large, wide.thin) == (0.0, 0.0) and wide.wall_words == "wide for the wall"
    low = misfit((300, 400), 0.75, None, None, (600, 200))
    assert low.thin == pytest.approx(math.log(2)), "the side that the photograph carries less of counts"
