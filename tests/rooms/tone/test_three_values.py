"""The three-value study and the mean of a patch."""

import numpy as np
import pytest

from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.wells import Palette, PaletteTrouble, add_well, change_well, empty_well, patch_colour
from yarrow_lane.tone.record import Tone, ToneTrouble, set_limits, three_values


def test_known_greys_fall_where_they_belong():
    # Codes 40, 120 and 220 are L* 16, 50 and 88 (sRGB greys by CIE 15).
    picture = np.repeat(np.array([[40, 120, 220]], np.uint8).repeat(30, 0).repeat(30, 1)[..., None], 3, axis=2)
    classes, shares = three_values(picture, 1.0, Tone(squint_mm=0))
    assert classes[0, 0] == 0 and classes[0, 45] == 1 and classes[0, 89] == 2
    assert shares == pytest.approx((1 / 3, 1 / 3, 1 / 3))


def test_squinting_leaves_fewer_shapes(cat):
    import cv2

    def shapes(squint):
        classes, _ = three_values(cat, 1.0, Tone(squint_mm=squint))
        return sum(cv2.connectedComponents((classes == k).astype(np.uint8))[0] - 1 for k in range(3))

    assert shapes(0) > 4 * shapes(3) > 0


def test_limits_keep_a_middle():
    assert set_limits(Tone(), 20, 80).dark_below == 20
    for limits in ((65, 35), (50, 50), (0, 50), (50, 100)):
        with pytest.raises(ToneTrouble):
            set_limits(Tone(), *limits)


def test_a_patch_is_averaged_in_light_not_in_codes():
    picture = np.zeros((10, 10, 3), np.uint8)
    picture[:, ::2] = 255
    srgb, lab = patch_colour(picture, Rect(0, 0, 10, 10))
    # Half of full light is code 188 (IEC 61966-2-1), not 128; L* of Y = 0.5 is 76.07 (CIE 15).
    assert srgb == (188, 188, 188)
    assert lab[0] == pytest.approx(76.07, abs=0.02)


def test_wells_are_kept_in_order_and_by_lightness():
    palette = add_well(add_well(Palette(), (1, 1), 4, (200, 200, 200), (80, 0, 0)), (2, 2), 4, (10, 10, 10), (3, 0, 0), "pupil")
    assert [palette.name_of(w) for w in palette.by_lightness] == ["pupil", "light 2"]
    from dataclasses import replace

    mixed = change_well(palette, replace(palette.well(2), mix="umber 3"))
    assert mixed.well(2).mix == "umber 3"
    with pytest.raises(PaletteTrouble):
        empty_well(palette, 9)
    assert [w.id for w in empty_well(palette, 1).wells] == [2]


def test_the_squint_is_measured_on_the_canvas_not_in_pixels():
    """The same picture at twice the pixels a mm shows the same study: 6 mm of squint are 6 mm."""
    small = np.zeros((100, 100, 3), np.uint8)
    small[:, 50:] = 255
    small[40:60, 20:30] = 255
    large = np.kron(small, np.ones((2, 2, 1), np.uint8))
    tone = Tone(squint_mm=6.0)
    classes = [three_values(small, 1.0, tone)[0], three_values(large, 2.0, tone)[0]]
    assert (np.kron(classes[0], np.ones((2, 2), np.uint8)) != classes[1]).mean() < 0.02
    assert not (classes[0][45:55, 22:28] == classes[0][50, 99]).any(), "a patch narrower than the squint is lost"
