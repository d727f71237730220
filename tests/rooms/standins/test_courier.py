"""The couriers of our own: prices, cover, numbers, and parcels that are late, hurt or lost."""

from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import NOON
from yarrow_lane.compose.sides import Sides
from yarrow_lane.deliver.parcel import parcel_of
from yarrow_lane.measure.money import currency_of
from yarrow_lane.standins.courier import SERVICES, followed, offers, tracking_number

EURO = currency_of("EUR")


def test_offers_by_hand():
    found = {o.service.name: o for o in offers(parcel_of(240, 300), 480_00, EURO)}
    # 3.5 kg charged: 6.90 + 3.5 x 0.85, and 1.2 % of the 380 above the first hundred
    assert found["Cart & Mule"].price == 6_90 + 298 + 456
    assert [o.price for o in offers(parcel_of(240, 300), 480_00, EURO)] == sorted(o.price for o in found.values())
    dear = {o.service.name: o.why_not for o in offers(parcel_of(240, 300), 5_000_00, EURO)}
    assert dear["Cart & Mule"] == "does not cover so much" and dear["Soft Hands, for pictures"] == ""
    heavy = {o.service.name: o.why_not for o in offers(parcel_of(2400, 1800, Sides(depth_mm=38.0, frame="floating")), 0, EURO)}
    assert "takes up to" in heavy["Swift Post"]


def test_prices_in_a_currency_without_cents():
    assert all(o.price < 200 for o in offers(parcel_of(240, 300), 480, currency_of("JPY")))


@given(st.integers(1, 10**6), st.sampled_from([s.name for s in SERVICES]))
def test_numbers_are_the_couriers_own_and_checked(number, courier):
    found = tracking_number(number, courier)
    assert found == tracking_number(number, courier) and found[:2].isalpha()
    digits = [int(d) for d in found[2:]]
    assert sum((n + 2) * d for n, d in enumerate(digits[:-1])) % 11 % 10 == digits[-1]


@pytest.mark.parametrize(
    ("fault", "last", "days"),
    [("", "delivered", 3), ("delayed", "delivered", 5), ("damaged", "damaged", 3), ("lost", "lost", 10)],
)
def test_what_becomes_of_a_parcel(fault, last, days):
    def states(after: float) -> list[str]:
        return [s.state for s in followed("CM1", 3, NOON, NOON + timedelta(days=after), fault)]

    assert states(0) == [] and states(1) == ["taken in", "on its way"]
    assert states(days - 0.01)[-1] != last and states(days)[-1] == last
    assert all(
        a.at <= b.at
        for a, b in zip(
            followed("CM1", 3, NOON, NOON + timedelta(days=30), fault),
            followed("CM1", 3, NOON, NOON + timedelta(days=30), fault)[1:],
            strict=False,
        )
    )
