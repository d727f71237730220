"""A painting measured: what a hand did wrong is found, what is mended is gone, bare ground is not judged; bad photographs are refused."""

import numpy as np
import pytest
import skimage.data
import skimage.transform

from tests.rooms.check.conftest import SIZE
from yarrow_lane.canvas_photo.straight import StraightTrouble
from yarrow_lane.check.laid import PaintingTrouble, PhotoAsked
from yarrow_lane.check.measured import AreaAsked
from yarrow_lane.check.measuring import measured
from yarrow_lane.check.ranking import ranked
from yarrow_lane.check.record import Check, MeantSo, refuse
from yarrow_lane.measure.colour.srgb import linear_from_srgb8, srgb8_from_linear
from yarrow_lane.standins.easel_photo import _FAULTS

PLACES = (("left eye", (72.0, 130.0)), ("right eye", (132.0, 136.0)), ("nose tip", (96.0, 158.0)))
W, H = SIZE


def asked(shot, **how) -> PhotoAsked:
    corners = shot.corners(*SIZE) + how.pop("click", 0.0)
    return PhotoAsked(how.pop("picture", shot.picture), tuple(map(tuple, corners.tolist())), **how)


def planted(first: int):
    return [(x * W, y * H, value, warmth) for x, y, _, value, warmth in _FAULTS[first:]]


@pytest.fixture(scope="module")
def found(shots, reference):
    return [measured([asked(s, click=2.0)], reference, SIZE, (), PLACES) for s in shots]


def near(faults, x, y):
    return [f for f in faults if np.hypot(f.at[0] - x, f.at[1] - y) < 18]


def test_the_light_is_evened_by_ten_greys_and_nothing_is_hidden(found):
    for m in found:
        assert m.greys == (10,) and m.all_round and m.weak == ((),)
        assert all(h.share < 0.03 for h in m.hidden)
        assert m.painted == 1.0 and m.shone_at == () and not m.by_sheet
        assert 4.0 <= m.holds < 10.0, "the limit at least, hardly the noise"
        assert abs(m.whole.shift[0]) < 0.6 and abs(m.whole.scale - 1) < 0.004


def test_every_fault_of_the_hand_is_found_with_its_kind_and_sign(found):
    for x, y, value, warmth in planted(0):
        hits = near(found[0].colour, x, y)
        assert hits, (x, y)
        if abs(value) > 8:
            assert any(np.sign(f.value) == np.sign(value) for f in hits)
        if abs(warmth) > 8:
            assert any(np.sign(f.warmth) == np.sign(warmth) for f in hits)


def test_how_much_it_is_off_is_told_within_three_of_lightness(found):
    x, y, value, _ = planted(0)[0]
    assert max((f.value for f in near(found[0].colour, x, y)), key=abs) == pytest.approx(value, abs=3.0)


def test_nothing_else_is_told(found):
    for m, first in zip(found, (0, 2), strict=True):
        others = [f for f in m.colour if not any(np.hypot(f.at[0] - x, f.at[1] - y) < 30 for x, y, *_ in planted(first))]
        assert len(others) <= 1, [(f.at, f.value, f.warmth) for f in others]


def test_what_was_mended_is_gone_in_the_next_photograph(found):
    for x, y, *_ in planted(0)[:2]:
        assert near(found[0].colour, x, y) and not near(found[1].colour, x, y)


def test_worst_first_and_a_refused_fault_stays_refused(found):
    faults = ranked(found[0], (), PLACES, SIZE)
    assert [f.score for f in faults] == sorted((f.score for f in faults), reverse=True) and len(faults) <= 10
    meant = faults[0].as_meant
    for m in found:
        again = ranked(m, (), PLACES, SIZE, refuse(Check(), meant))
        same = [
            f for f in again if np.hypot(f.at[0] - meant.at[0], f.at[1] - meant.at[1]) < 10 and set(f.kinds) <= set(meant.kinds)
        ]
        assert all(f.meant == meant for f in same) and again[0].meant is None
        assert [f.meant is None for f in again] == sorted((f.meant is None for f in again), reverse=True), "they stand last"
    assert any(f.meant == meant for f in ranked(found[0], (), PLACES, SIZE, refuse(Check(), meant)))
    other = MeantSo((("drawing", 1),), meant.at, 20.0)
    assert ranked(found[0], (), PLACES, SIZE, refuse(Check(), other))[0].meant is None, "another kind is another fault"


def test_without_greys_what_a_whole_region_hides_is_told(shots, reference):
    """The frame painted over: then the picture itself carries the light."""
    shot = shots[0]
    picture = shot.picture.copy()
    grid = np.stack(np.meshgrid(np.linspace(-26, W + 26, 500), np.linspace(-26, H + 26, 600)), -1).reshape(-1, 2)
    outside = (grid[:, 0] < -7.5) | (grid[:, 0] > W + 7.5) | (grid[:, 1] < -7.5) | (grid[:, 1] > H + 7.5)
    px = np.rint(shot.px(grid[outside])).astype(int)
    ok = (px >= 2).all(1) & (px[:, 0] < picture.shape[1] - 3) & (px[:, 1] < picture.shape[0] - 3)
    for dx in (-2, -1, 0, 1, 2):
        for dy in (-2, -1, 0, 1, 2):
            picture[px[ok, 1] + dy, px[ok, 0] + dx] = 120
    body = AreaAsked(1, "body", (((30.0, 170.0), (210.0, 170.0), (210.0, 318.0), (30.0, 318.0)),))
    m = measured([asked(shot, picture=picture)], reference, SIZE, (body,), PLACES)
    assert m.greys == (0,) and not m.all_round
    assert m.hidden[0].share > 0.2
    x, y, value, _ = planted(0)[0]
    assert any(np.sign(f.value) == np.sign(value) for f in near(m.colour, x, y)), "a local fault shows all the same"


def test_in_progress_only_paint_is_judged(shots, reference):
    """The upper half bare ground: nothing is said of it, the faults below are found."""
    shot = shots[0]
    top = AreaAsked(1, "top", (((0.0, 0.0), (W, 0.0), (W, H / 2), (0.0, H / 2)),), painted=False)
    low = AreaAsked(2, "low", (((0.0, H / 2), (W, H / 2), (W, H), (0.0, H)),))
    half = shot.picture.copy()
    grid = np.stack(np.meshgrid(np.linspace(0, W, 1400), np.linspace(0, H / 2, 1000)), -1).reshape(-1, 2)
    px = np.rint(shot.px(grid) - 0.5).astype(int)
    light = linear_from_srgb8(half)
    ground = linear_from_srgb8(np.array([[(150, 118, 90)]], np.uint8))[0, 0]
    level = light[px[:, 1], px[:, 0]].mean(0) / linear_from_srgb8(reference[: len(reference) // 2]).reshape(-1, 3).mean(0)
    half[px[:, 1], px[:, 0]] = srgb8_from_linear((ground * level)[None, None].astype(np.float32))[0, 0]
    m = measured([asked(shot, picture=half)], reference, SIZE, (top, low), PLACES, (150, 118, 90))
    assert m.painted == pytest.approx(0.5, abs=0.03)
    assert all(f.at[1] > H / 2 - 8 for f in m.colour) and [h.area_id for h in m.hidden] == [2]
    x, y, value, _ = planted(0)[1]
    assert any(np.sign(f.value) == np.sign(value) for f in near(m.colour, x, y))
    with pytest.raises(PaintingTrouble, match="nothing is painted yet"):
        measured(
            [asked(shot)], reference, SIZE, (AreaAsked(1, "all", (((0, 0), (W, 0), (W, H), (0, H)),), painted=False),), PLACES
        )


# --- photographs that say nothing


def test_no_canvas_in_it(reference):
    picture = np.ascontiguousarray(
        skimage.transform.resize(skimage.data.astronaut(), (1200, 1200), preserve_range=True).astype(np.uint8)
    )
    corners = ((150.0, 100.0), (1000.0, 110.0), (1010.0, 1100.0), (160.0, 1090.0))
    with pytest.raises(PaintingTrouble, match="no canvas's edges are seen"):
        measured([PhotoAsked(picture, corners)], reference, SIZE, (), PLACES)


def test_another_painting_and_one_upside_down(shots):
    with pytest.raises(PaintingTrouble, match="does not look like the reference"):
        measured([asked(shots[0])], np.ascontiguousarray(skimage.data.coffee()), SIZE, (), PLACES)
    corners = np.roll(shots[0].corners(*SIZE), 2, axis=0)
    with pytest.raises(PaintingTrouble, match="does not look like the reference"):
        measured(
            [PhotoAsked(shots[0].picture, tuple(map(tuple, corners.tolist())))],
            np.ascontiguousarray(skimage.data.coffee()),
            SIZE,
            (),
            PLACES,
        )


@pytest.mark.parametrize(("level", "words"), [(0.004, "nearly black"), (40.0, "burnt out")])
def test_black_and_blown_out(shots, reference, level, words):
    picture = srgb8_from_linear(np.clip(linear_from_srgb8(shots[0].picture) * level, 0, 1).astype(np.float32))
    with pytest.raises((PaintingTrouble, StraightTrouble)) as told:
        measured([asked(shots[0], picture=picture)], reference, SIZE, (), PLACES)
    assert words in str(told.value) or "edges" in str(told.value)


def test_half_of_it_cut_off(shots, reference):
    picture = shots[0].picture.copy()
    corners = shots[0].corners(*SIZE)
    cut = int(corners[:, 0].mean())
    picture = np.ascontiguousarray(picture[:, :cut])
    with pytest.raises(PaintingTrouble):
        measured([PhotoAsked(picture, tuple(map(tuple, corners.tolist())))], reference, SIZE, (), PLACES)


@pytest.mark.parametrize("scale", [0.5, 1.7])
def test_three_megapixels_and_more(shots, reference, scale):
    """The same faults in a photograph of a third and of three times the px."""
    picture = skimage.transform.rescale(shots[0].picture, scale, channel_axis=2, preserve_range=True, anti_aliasing=scale < 1)
    corners = tuple(map(tuple, (shots[0].corners(*SIZE) * scale).tolist()))
    m = measured([PhotoAsked(np.ascontiguousarray(picture.astype(np.uint8)), corners)], reference, SIZE, (), PLACES)
    x, y, value, _ = planted(0)[0]
    assert any(np.sign(f.value) == np.sign(value) for f in near(m.colour, x, y)) and m.greys[0] >= 7
