"""Parcels by hand: weights, volumetric weight, what is charged, what goes round it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarrow_lane.compose.sides import Sides
from yarrow_lane.deliver.parcel import ParcelTrouble, bare_kg, needs_art_carrier, padding_list, parcel_of


def test_a_small_one_by_hand():
    # 1.08 m of bar at 0.6 kg and 0.072 m2 of cloth at 0.5 kg: handbook, money and parcels.
    assert bare_kg(240, 300) == pytest.approx(0.684)
    p = parcel_of(240, 300)
    assert (p.length_cm, p.width_cm, p.height_cm) == (40, 34, 12)
    assert p.volumetric_kg == pytest.approx(40 * 34 * 12 / 5000) and p.charged_kg == 3.5
    assert p.of_paint_kg == pytest.approx(0.684) and not p.lift_with_two


def test_a_large_one_has_bars_across_and_wants_two():
    assert bare_kg(1200, 900) == pytest.approx((2 * 2.1 + 2 * 0.9) * 0.6 + 1.08 * 0.5)
    p = parcel_of(1200, 900, Sides(depth_mm=38.0, frame="floating"))
    assert p.lift_with_two and p.weight_kg > 12 and p.charged_kg >= p.volumetric_kg
    assert needs_art_carrier(parcel_of(3000, 900)) and not needs_art_carrier(p)


def test_a_frame_makes_it_larger():
    bare, framed = parcel_of(240, 300), parcel_of(240, 300, Sides(frame="floating"))
    assert (framed.length_cm, framed.width_cm) == (44, 38), "6 mm of gap and 12 mm of face on each side: 33.6 + 10 cm"
    assert framed.length_cm > bare.length_cm and framed.of_paint_kg > bare.of_paint_kg


@given(st.floats(50, 2500), st.floats(50, 2500), st.floats(0, 200), st.booleans())
def test_the_parcel_holds_the_canvas(width, height, padding, framed):
    p = parcel_of(width, height, Sides(depth_mm=38.0, frame="floating" if framed else "none"), padding)
    assert p.length_cm * 10 >= max(width, height) + 2 * padding - 1e-6 and p.length_cm >= p.width_cm
    assert p.charged_kg >= p.weight_kg - 1e-6 and p.charged_kg * 2 == int(p.charged_kg * 2)


def test_what_goes_round_it():
    words = dict(padding_list(parcel_of(240, 300), 50.0, False, False))
    assert "never bubble wrap" in words["glassine on the paint"] and words["double-walled box"] == "40 × 34 × 12\u202fcm"
    assert "tape across the glass" in dict(padding_list(parcel_of(240, 300), 50.0, True, True))


def test_what_has_no_size_is_not_packed():
    with pytest.raises(ParcelTrouble, match="no size"):
        parcel_of(0, 300)
    with pytest.raises(ParcelTrouble, match="outside 0 to 50"):
        parcel_of(240, 300, padding_mm=501)
