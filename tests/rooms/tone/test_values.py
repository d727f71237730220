"""Values in shapes: clusters against trying everything, crumbs, borders, the squint."""

from itertools import combinations, pairwise

import cv2
import numpy as np
import pytest
import skimage.data

from yarrow_lane.measure.colour.munsell_value import value_of
from yarrow_lane.measure.outlines import polygon_area
from yarrow_lane.tone.clusters import histogram, own_limits
from yarrow_lane.tone.colours import colours_of
from yarrow_lane.tone.pictures import begun_on, quick_study_picture, squint_picture, study_picture, warmth_picture
from yarrow_lane.tone.record import Tone, ToneTrouble, lay_ground, set_count, set_limits
from yarrow_lane.tone.shapes import borders, shapes_of
from yarrow_lane.tone.study import Squinted, metres_of, squint_of, study, usual_smallest_mm2
from yarrow_lane.tone.study import squinted as squinted_colours
from yarrow_lane.tone.warmth import warmth_of


def squinted(picture, px_per_mm, squint_mm) -> Squinted:
    return squinted_colours(colours_of(picture, px_per_mm), squint_mm)


def greys(*codes, side=60):
    return np.repeat(np.array([codes], np.uint8).repeat(side, 0).repeat(side, 1)[..., None], 3, axis=2)


def pieces(classes):
    return [
        facts[n, cv2.CC_STAT_AREA]
        for k in np.unique(classes)
        for found, _, facts, _ in [cv2.connectedComponentsWithStats((classes == k).astype(np.uint8), connectivity=8)]
        for n in range(1, found)
    ]


def test_known_greys_fall_where_they_belong():
    # Codes 40, 120 and 220 are L* 16, 50 and 88 (sRGB greys by CIE 15).
    found = study(squinted(greys(40, 120, 220), 1.0, 0.0), Tone())
    assert found.shares == pytest.approx((1 / 3, 1 / 3, 1 / 3), abs=0.01)
    assert found.shown == pytest.approx((16, 50, 88), abs=0.6)
    assert 16 < found.limits[0] < 50 < found.limits[1] < 88


@pytest.mark.parametrize("groups", [2, 3, 4])
def test_limits_are_the_best_of_all(groups):
    """Against every way of cutting a small histogram: no other has less spread inside."""
    rng = np.random.default_rng(groups)
    counts = np.zeros(101, np.int64)
    counts[rng.choice(101, 14, replace=False)] = rng.integers(1, 50, 14)
    at = np.repeat(np.arange(101), counts)

    def spread(limits):
        parts = np.digitize(at, limits)
        return sum(((at[parts == k] - at[parts == k].mean()) ** 2).sum() for k in range(groups) if (parts == k).any())

    there = np.nonzero(counts)[0]
    middles = (there[1:] + there[:-1]) / 2
    best = min(spread(c) for c in combinations(middles, groups - 1))
    assert spread(own_limits(counts, groups)) == pytest.approx(best)


@pytest.mark.parametrize("code", [0, 128, 255])
def test_a_flat_picture_still_has_limits(code):
    limits = own_limits(histogram(squinted(greys(code), 1.0, 2.0).soft), 9)
    assert len(limits) == 8 and all(a < b for a, b in pairwise(limits))
    set_limits(Tone(count=9), limits)


@pytest.mark.parametrize("count", [2, 3, 5, 7, 9])
@pytest.mark.parametrize("picture", [skimage.data.chelsea, skimage.data.astronaut])
def test_no_crumbs_are_left_and_values_keep_their_order(picture, count):
    seen = picture()
    px_per_mm = seen.shape[1] / 400
    squint = squinted(seen, px_per_mm, 3.0)
    found = study(squint, Tone(count=count))
    height, width = found.classes.shape
    smallest = usual_smallest_mm2(height * width / found.px_per_mm**2) * found.px_per_mm**2
    sizes = sorted(pieces(found.classes))
    raw = pieces(np.digitize(squint.lightness, found.limits))
    assert len(sizes) < 0.15 * len(raw) and sizes[len(sizes) // 20] >= 0.95 * smallest
    shown = [s for s, share in zip(found.shown, found.shares, strict=True) if share]
    assert shown == sorted(shown) and sum(found.shares) == pytest.approx(1)
    # The shapes still say what the picture says.
    said = np.array(found.shown)[found.classes]
    assert np.sqrt(((said - squint.lightness) ** 2).mean()) < {2: 17, 3: 13, 5: 10, 7: 9, 9: 8.5}[count]


def test_small_shapes_are_kept_where_they_matter():
    picture = greys(150, 150, 150)
    cv2.circle(picture, (30, 30), 3, (10, 10, 10), -1)
    cv2.circle(picture, (130, 30), 3, (10, 10, 10), -1)
    tone = Tone(count=2, limits=(35.0,), smallest_mm2=60.0, squint_mm=0.0)
    found = study(squinted(picture, 1.0, 0.0), tone, [((30.0, 30.0), 12.0)])
    assert found.classes[30, 30] == 0 and found.classes[30, 130] == 1


def test_the_squint_is_measured_on_the_canvas_not_in_pixels():
    small = np.zeros((100, 100, 3), np.uint8)
    small[:, 50:] = 255
    small[45:55, 25:28] = 200
    large = np.kron(small, np.ones((2, 2, 1), np.uint8))
    tone = Tone(count=2, limits=(40.0,), smallest_mm2=1.0)
    one, two = (study(squinted(p, s, 8.0), tone).classes for p, s in ((small, 1.0), (large, 2.0)))
    assert (cv2.resize(one, two.shape[::-1], interpolation=cv2.INTER_NEAREST) != two).mean() < 0.03
    assert metres_of(squint_of(4.0)) == pytest.approx(4.0)


def test_borders_enclose_what_the_study_counts():
    found = study(squinted(skimage.data.chelsea(), 451 / 400, 3.0), Tone(count=3))
    shapes = shapes_of(found)
    # Rims of what is at least so light: areas of outer rims less holes give the share; here the nested sum bounds it.
    lightest = found.shares[2] * found.classes.size / found.px_per_mm**2 / 100
    assert sum(s.cm2 for s in shapes if s.value == 2) == pytest.approx(lightest, rel=0.25)
    assert all(s.cm2 == pytest.approx(polygon_area(s.outline) / 100, rel=0.02) for s in shapes[:10] if s.cm2 > 1)
    lines = borders(found)
    width, height = (n / found.px_per_mm for n in found.classes.shape[::-1])
    assert lines and all(0 < x < width and 0 < y < height for line in lines for x, y in line)


def test_limits_and_counts_are_kept_in_order():
    tone = set_limits(set_count(Tone(), 4), (20.0, 40.0, 60.0))
    assert tone.limits == (20.0, 40.0, 60.0) and set_count(tone, 5).limits == () and set_count(tone, 4) is tone
    for limits in ((40.0, 20.0, 60.0), (20.0, 20.5, 60.0), (0.2, 40.0, 60.0), (20.0, 40.0)):
        with pytest.raises(ToneTrouble):
            set_limits(tone, limits)
    with pytest.raises(ToneTrouble):
        set_count(tone, 10)
    assert lay_ground(tone, "", None).ground == ""


def test_the_pictures_show_what_was_found():
    colours = colours_of(skimage.data.astronaut(), 512 / 300)
    squint = squinted_colours(colours, 3.0)
    found = study(squint, Tone(count=5))
    shown = study_picture(found)
    assert len(np.unique(shown)) == 5 and shown.shape == tuple(3 * n for n in found.classes.shape)
    quick = quick_study_picture(squint, found.limits)
    assert quick.shape == found.classes.shape and len(np.unique(quick)) == 5
    ground = (200, 120, 80)
    begun = begun_on(colours, squint, ground)
    bare = (begun == ground).all(axis=2).mean()
    assert 0.2 < bare < 0.9 and value_of(float(found.shown[0])) < value_of(float(found.shown[-1]))


def test_the_map_of_warmth_is_orange_where_it_is_warm_and_blue_where_it_is_cool():
    colours = colours_of(skimage.data.astronaut(), 512 / 300)
    found = warmth_of(colours.lab)
    shown = warmth_picture(colours, found.field).astype(int)
    warm, cool = found.field > 15, found.field < -8
    assert warm.any() and cool.any()
    assert (shown[warm][:, 0] > shown[warm][:, 2]).all() and (shown[cool][:, 2] > shown[cool][:, 0]).all()


def test_half_shut_eyes_see_no_edges():
    checks = np.kron(np.indices((40, 40)).sum(axis=0) % 2 * 255, np.ones((8, 8))).astype(np.uint8)
    picture = np.repeat(checks[..., None], 3, axis=2)
    soft = squint_picture(picture, 2.0, 8.0)
    assert np.ptp(soft[100:200, 100:200].astype(int)) < 12 < np.ptp(squint_picture(picture, 2.0, 0.1).astype(int))


@pytest.mark.parametrize("shape", [(300, 200), (900, 1600), (2000, 700)])
def test_the_small_reference_is_light_averaged_as_light(shape):
    """Half black and half white in stripes a pixel wide are L* 76 (CIE 15 of Y = 0.5), at every size."""
    picture = np.zeros((*shape, 3), np.uint8)
    picture[:, ::2] = 255
    colours = colours_of(picture, 4.0)
    assert max(colours.shape) <= 480 and colours.px_per_mm == pytest.approx(4.0 * colours.shape[1] / shape[1])
    if max(shape) > 960:
        assert float(np.median(colours.lightness)) == pytest.approx(76.07, abs=1.5)
    whole = float(colours_of(np.full((*shape, 3), 119, np.uint8), 4.0).lightness.mean())
    assert whole == pytest.approx(50.0, abs=0.5)  # code 119 is L* 50
