"""Wells: colours against colour-science, ids that never come back."""

import warnings

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.measure.plane import Rect
from yarrow_lane.palette.wells import Palette, PaletteTrouble, add_well, change_well, empty_well, patch_colour, value_word

with warnings.catch_warnings():  # it says that it cannot draw charts
    warnings.simplefilter("ignore")
    import colour


@pytest.mark.parametrize("seed", range(8))
def test_the_mean_of_a_patch_equals_colour_sciences_on_the_same_pixels(cat, seed):
    dice = np.random.default_rng(seed)
    x, y = int(dice.integers(0, 400)), int(dice.integers(0, 250))
    pixels = cat[y : y + 20, x : x + 30].reshape(-1, 3) / 255.0
    linear = colour.models.eotf_sRGB(pixels).mean(axis=0)
    srgb, lab = patch_colour(cat, Rect(x, y, 30, 20))
    white = colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"]
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        expected = colour.XYZ_to_Lab(colour.RGB_to_XYZ(linear, "sRGB"), white)
    assert lab == pytest.approx(expected, abs=0.05)
    assert np.abs(np.array(srgb) - 255 * colour.models.eotf_inverse_sRGB(linear)).max() <= 0.53


def wells(count: int) -> Palette:
    palette = Palette()
    for n in range(count):
        palette = add_well(palette, (n, n), 4, (n, n, n), (40.0 + n, 0, 0))
    return palette


@given(st.lists(st.booleans(), max_size=30))
def test_an_id_never_comes_back(added):
    palette, seen = Palette(), set()
    for more in added:
        if more or not palette.wells:
            palette = add_well(palette, (0, 0), 4, (0, 0, 0), (50, 0, 0))
            assert palette.wells[-1].id not in seen
            seen.add(palette.wells[-1].id)
        else:
            palette = empty_well(palette, palette.wells[-1].id)


def test_wells_stand_from_dark_to_light_and_are_named_by_value():
    palette = add_well(wells(2), (0, 0), 4, (9, 9, 9), (3, 0, 0))
    assert [w.lab[0] for w in palette.by_lightness] == [3, 40, 41]
    assert [palette.name_of(w) for w in palette.by_lightness] == ["dark 1", "middle 2", "middle 3"] and [
        value_word(x) for x in (34.9, 35, 65, 65.1)
    ] == [
        "dark",
        "middle",
        "middle",
        "light",
    ]
    with pytest.raises(PaletteTrouble):
        change_well(empty_well(palette, 1), palette.wells[0])
