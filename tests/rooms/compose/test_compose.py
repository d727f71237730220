"""Stock sizes and the crop."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.compose.composition import Compose, ComposeTrouble, crop_scale, frame, set_size, to_canvas, to_photo, turn
from yarrow_lane.compose.detail import detail_words, part_used
from yarrow_lane.compose.formats import formats_of, stock_formats


def test_a_sizes_halve_from_a0_and_round_down():
    """ISO 216: A0 is 841 x 1189 mm; each next size halves the longer side, rounded down to the millimetre."""
    expected, (short, long) = {}, (841, 1189)
    for n in range(6):
        expected[f"A{n}"] = (short, long)
        short, long = long // 2, short
    for f in formats_of("iso"):
        assert (f.short_mm, f.long_mm) == expected[f.name]
    assert [f.name for f in formats_of("iso")] == ["A1", "A2", "A3", "A4", "A5"]


def test_inch_sizes_are_exact():
    """1 in = 25.4 mm exactly (1959)."""
    for f in formats_of("inch"):
        short, long = (int(n) for n in f.name.removesuffix(" in").split(" × "))
        assert f.short_mm == pytest.approx(short * 25.4, abs=1e-9)
        assert f.long_mm == pytest.approx(long * 25.4, abs=1e-9)


def test_every_size_is_listed_once_and_short_side_first():
    names = [(f.series, f.name) for f in stock_formats()]
    assert len(names) == len(set(names)) == 23 + 20 + 5 + 60
    assert all(f.short_mm <= f.long_mm for f in stock_formats())


sides = st.floats(40, 4000)


@given(
    sides,
    sides,
    st.floats(50, 9000),
    st.floats(50, 9000),
    st.floats(-500, 20000),
    st.floats(-9000, 9000),
    st.floats(-9000, 9000),
)
def test_the_crop_is_never_stretched_and_stays_on_the_photograph(w, h, pw, ph, width, cx, cy):
    compose = frame(set_size(Compose(), w, h), "p", (pw, ph), width, (cx, cy))
    crop = compose.background.crop
    assert crop.width / crop.height == pytest.approx(w / h, rel=1e-9)
    assert crop.x >= -1e-6 and crop.y >= -1e-6 and crop.right <= pw + 1e-6 and crop.bottom <= ph + 1e-6


def test_canvas_and_photograph_measure_each_other():
    compose = frame(set_size(Compose(), 400, 500), "p", (3000, 3000), 2000, (1500, 1500))
    assert crop_scale(compose) == pytest.approx(5)
    assert to_canvas(compose, to_photo(compose, (123.0, 45.0))) == pytest.approx((123.0, 45.0))
    assert to_canvas(compose, (compose.background.crop.right, compose.background.crop.bottom)) == pytest.approx((400, 500))


def test_turning_keeps_the_centre():
    compose = frame(set_size(Compose(), 400, 500), "p", (3000, 3000), 1000, (1500, 1400))
    turned = turn(compose, (3000, 3000))
    assert (turned.width_mm, turned.height_mm) == (500, 400)
    assert turned.background.crop.centre == pytest.approx((1500, 1400))


def test_the_part_of_a_photograph_that_fills_the_canvas():
    laid = frame(set_size(Compose(), 400, 500), "p", (3000, 3000), 1000, (1500, 1400))
    assert part_used(laid, "p", (3000, 3000)) == pytest.approx((1000, 1250))
    assert part_used(laid, "another", (3000, 3000)) == pytest.approx((2400, 3000))
    assert part_used(Compose(), "p", (3000, 2000)) == (3000, 2000)
    with pytest.raises(ComposeTrouble, match="no crop is laid"):
        crop_scale(Compose(400, 500))


@pytest.mark.parametrize("size", [(39, 400), (400, 4001), (0, 10)])
def test_absurd_sizes_are_refused(size):
    with pytest.raises(ComposeTrouble, match="4 cm to 4 m"):
        set_size(Compose(), *size)
    with pytest.raises(ComposeTrouble, match="no size yet"):
        frame(Compose(), "p", (10, 10), 5, (5, 5))


def test_detail_words_follow_the_table():
    """Usable px per mm of canvas: 6 good, 4 workable, 2.5 poor (handbook table of numbers)."""
    assert [detail_words(n).split(":")[0] for n in (6, 5.9, 4, 3.9, 2.5, 2.4)] == [
        "good",
        "workable",
        "workable",
        "thin",
        "thin",
        "poor",
    ]
