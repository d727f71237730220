"""Couriers of our own making: prices, a number to follow, and what becomes of the parcel; the same for the same number."""

import zlib
from dataclasses import dataclass
from datetime import datetime, timedelta
from math import ceil
from typing import Literal

from yarrow_lane.deliver.parcel import Parcel, needs_art_carrier
from yarrow_lane.lane.money import ParcelSeen
from yarrow_lane.measure.money import Currency, rounded_share

Fault = Literal["", "delayed", "lost", "damaged"]


@dataclass(frozen=True)
class Service:
    """A made-up courier: days on the way, its price for a parcel and for a kilogram in hundredths, the largest cover, the heaviest parcel."""

    name: str
    days: int
    base: int
    kilogram: int
    most_cover: int
    most_kg: float


# All invented.
SERVICES: tuple[Service, ...] = (
    Service("Cart & Mule", 3, 6_90, 85, 500_00, 30.0),
    Service("Swift Post", 1, 14_50, 1_60, 1_000_00, 25.0),
    Service("Soft Hands, for pictures", 4, 48_00, 3_10, 20_000_00, 200.0),
)
_COVER_BP = 120  # invented: 1.2 % of what is covered beyond the first hundred


@dataclass(frozen=True)
class Offer:
    """What a courier asks for a parcel with so much cover; `why_not` where it does not take it."""

    service: Service
    price: int
    why_not: str = ""


def offers(parcel: Parcel, cover: int, currency: Currency) -> tuple[Offer, ...]:
    """All couriers, those that take it first, the cheapest first. Prices and cover in smallest units of the currency."""
    found = []
    for s in SERVICES:

        def units(hundredths: int) -> int:
            return rounded_share(hundredths, currency.unit, 100)

        why = ""
        if parcel.weight_kg > s.most_kg:
            why = f"takes up to {s.most_kg:g}\u202fkg"
        elif cover > units(s.most_cover):
            why = "does not cover so much"
        elif needs_art_carrier(parcel) and s.most_kg < 100:
            why = "takes nothing so long"
        half_kilos = ceil(round(parcel.charged_kg * 2, 6))
        price = (
            units(s.base)
            + rounded_share(units(s.kilogram), half_kilos, 2)
            + rounded_share(max(0, cover - units(100_00)), _COVER_BP, 10_000)
        )
        found.append(Offer(s, price, why))
    return tuple(sorted(found, key=lambda o: (bool(o.why_not), o.price)))


def tracking_number(number: int, courier: str) -> str:
    """What the parcel of that number is called at the courier: letters of its name, digits, a check digit (mod 11)."""
    body = f"{zlib.crc32(f'{courier} {number}'.encode()) % 10**8:08d}"
    check = sum((n + 2) * int(d) for n, d in enumerate(body)) % 11 % 10
    return "".join(word[0] for word in courier.split() if word[0].isalpha())[:2].upper() + body + str(check)


def followed(tracking: str, service_days: int, booked: datetime, now: datetime, fault: Fault = "") -> tuple[ParcelSeen, ...]:
    """What the courier says of it up to now, the oldest first. A lost one is only said to be lost a week after it should have come."""
    steps: list[tuple[float, ParcelSeen]] = []

    def say(
        days: float, state: Literal["taken in", "on its way", "delayed", "delivered", "lost", "damaged"], words: str
    ) -> None:
        at = booked + timedelta(days=days)
        steps.append((days, ParcelSeen(at, tracking, state, words)))

    say(0.2, "taken in", "taken in at the counter")
    say(0.5, "on its way", "left the depot")
    match fault:
        case "delayed":
            say(service_days, "delayed", "stands in a depot, two days more")
            say(service_days + 2.0, "delivered", "handed over at the door")
        case "lost":
            say(service_days, "delayed", "not found where it should be; being looked for")
            say(service_days + 7.0, "lost", "not found again")
        case "damaged":
            say(float(service_days), "damaged", "handed over, the box dented")
        case _:
            say(float(service_days), "delivered", "handed over at the door")
    return tuple(seen for _, seen in steps if seen.at <= now)
